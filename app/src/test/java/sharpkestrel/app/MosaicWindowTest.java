package sharpkestrel.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Random;
import javafx.geometry.Point2D;
import javafx.scene.control.MenuButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.geo.SeamVisibility;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.place.mosaic.SeamEdits;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;

/** Two scenes that overlap, the second brighter, laid together with the mouse. */
@ExtendWith(ApplicationExtension.class)
class MosaicWindowTest {

  private static final int WIDTH = 400;
  private static final int HEIGHT = 300;
  private static final int SHIFT = 160;
  private static final int ALL = WIDTH + SHIFT;
  private static final double WEST = 512_000;
  private static final double NORTH = 6_702_000;

  @TempDir
  Path folder;

  private OpenWindow window;

  @Start
  void start(Stage stage) {
    window = OpenWindow.on(stage, folder, 90);
  }

  private void open(FxRobot robot, String name, int shift, double gain) {
    Random random = new Random(3);
    float[] ground = new float[ALL * HEIGHT];
    for (int i = 0; i < ground.length; i++) {
      ground[i] = 300
          + 80 * (float) Math.sin(i % ALL / 19.0)
          + 60 * (float) Math.cos(i / ALL / 13.0)
          + 20 * random.nextFloat();
    }
    float[] pixels = new float[WIDTH * HEIGHT];
    for (int i = 0; i < pixels.length; i++) {
      pixels[i] = Math.round(gain * ground[i / WIDTH * ALL + shift + i % WIDTH]);
    }
    Grid grid =
        new Grid(WIDTH, HEIGHT, Affine.northUp(WEST + shift, NORTH, 1), CrsName.epsg(32630));
    Path file = folder.resolve(name + ".tif");
    GeoTiffWriter.write(
        new MemoryRaster(
            grid,
            List.of(Band.of(BandRole.PAN, SampleType.UINT16)),
            Attachments.NONE,
            new float[][] {pixels}),
        file,
        Compression.DEFLATE,
        Job.QUIET);
    int before = window.workspace().results().size();
    robot.interact(() -> window
        .workspace()
        .run(StepCatalogue.get("open"), name, Map.of(), Map.of(), Map.of("file", file.toString())));
    window.waiting().results(before + 1);
  }

  private void findSeams(FxRobot robot) {
    open(robot, "West", 0, 1);
    open(robot, "East", SHIFT, 1.4);
    robot.clickOn("#stage-place").clickOn("#tool-mosaic");
    // both are chosen already; taken out and put in again the first comes last
    robot.clickOn("#mosaic-scenes").clickOn("#mosaic-scenes-open");
    robot.clickOn("#mosaic-scenes").clickOn("#mosaic-scenes-open");
    assertThat(robot.lookup("#mosaic-scenes").queryAs(MenuButton.class).getText())
        .isEqualTo("2: East, West");
    robot.clickOn("#mosaic-scenes").clickOn("#mosaic-scenes-open-2");
    robot.clickOn("#mosaic-scenes").clickOn("#mosaic-scenes-open-2");
    assertThat(robot.lookup("#mosaic-scenes").queryAs(MenuButton.class).getText())
        .isEqualTo("2: West, East");
    robot.clickOn("#mosaic-find");
    waitForFigure(robot);
    robot.clickOn("#picture").type(KeyCode.F);
    window.waitForPicture();
  }

  private void waitForFigure(FxRobot robot) {
    window
        .waiting()
        .until(
            "a figure of the seams",
            () -> OpenWindow.text(robot, "#seam-visibility").endsWith("%"));
  }

  /** A file that is kept for the scenes in hand; one that is not there before it was written. */
  private Path kept(String name) {
    Path hand = folder.resolve("project/hand");
    window.workspace().lanes().save().flush(java.time.Duration.ofSeconds(30));
    java.io.File[] found = hand.toFile()
        .listFiles((of, file) -> file.startsWith(name + "-") && file.endsWith(".gpkg"));
    return found == null || found.length == 0 ? hand.resolve(name) : found[0].toPath();
  }

  private OutlineSet areas() {
    return GeoPackage.read(kept("seam-areas"), "").outlines();
  }

  /** The area of a scene in m². */
  private double area(int scene) {
    OutlineSet areas = areas();
    double sum = 0;
    for (int i = 0; i < areas.count(); i++) {
      sum += areas.table().values("scene")[i] == scene ? areas.outlines().get(i).getArea() : 0;
    }
    return sum;
  }

  private Point2D onScreen(double col, double row) {
    return window.onScreen(ALL, HEIGHT, col, row);
  }

  private void lasso(FxRobot robot, double left, double top, double right, double bottom) {
    robot.moveTo(onScreen(left, top)).press(MouseButton.PRIMARY);
    double[][] way = {
      {(left + right) / 2, top},
      {right, top},
      {right, (top + bottom) / 2},
      {right, bottom},
      {(left + right) / 2, bottom},
      {left, bottom},
      {left, (top + bottom) / 2}
    };
    for (double[] to : way) {
      robot.moveTo(onScreen(to[0], to[1]));
    }
    robot.release(MouseButton.PRIMARY);
  }

  @Test
  void seamsAreFoundDrawnMovedUndoneAndRun(FxRobot robot) {
    findSeams(robot);
    double figure =
        Double.parseDouble(OpenWindow.text(robot, "#seam-visibility").replace(" %", ""));
    assertThat(figure).isLessThan(2);
    double before = area(1);
    assertThat(before + area(2)).isCloseTo((double) ALL * HEIGHT, within(2.0));

    // what the second scene shows is given to the first
    Geometry first = areas().outlines().getFirst();
    double left = seamColumn(first, 150) + 6;
    robot.clickOn("#mosaic-give");
    lasso(robot, left - 20, 120, Math.min(398, left + 30), 180);
    window.waiting().until("a larger area", () -> area(1) > before + 500);
    waitForFigure(robot);
    robot.clickOn("#mosaic-give").clickOn("#picture");
    robot.press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);
    window.waiting().until("the area of before", () -> Math.abs(area(1) - before) < 0.5);

    // a seam is dragged by ten pixels
    double column = seamColumn(areas().outlines().getFirst(), 150);
    robot
        .moveTo(onScreen(column, 150))
        .press(MouseButton.PRIMARY)
        .moveTo(onScreen(column + 5, 150))
        .moveTo(onScreen(column + 10, 150))
        .release(MouseButton.PRIMARY);
    window.waiting().until("a moved seam", () -> Math.abs(area(1) - before) > 3);
    waitForFigure(robot);

    // only a part is wanted
    robot.clickOn("#mosaic-cut");
    lasso(robot, 60, 40, 500, 260);
    window.waiting().until("a drawn area", () -> Files.isRegularFile(kept("area-of-interest")));
    robot.clickOn("#mosaic-cut").clickOn("#mosaic-run");
    window.waiting().results(3);
    Raster mosaic = (Raster) window.workspace().results().getLast().value();
    assertThat(mosaic.grid().width()).isEqualTo(ALL);
    assertThat(mosaic.attachments().get(SeamVisibility.class)).isPresent();
    assertThat(window.workspace().results().getLast().note()).startsWith("seams ");
    float[] row = mosaic.read(0, new Window(0, 99, ALL, 1), Request.BACKGROUND)[0];
    assertThat(row[20]).as("beside the area of interest").isNaN();
    for (int x = 70; x < 490; x++) {
      // the second scene was brighter by two fifths: no step of more than the grain is left
      assertThat(Math.abs(row[x] - row[x - 1])).as("column " + x).isLessThan(30);
    }
  }

  /** Where a seam crosses a row. */
  private static double seamColumn(Geometry first, double row) {
    Geometry line = new GeometryFactory().createLineString(new Coordinate[] {
      new Coordinate(WEST, NORTH - row), new Coordinate(WEST + ALL, NORTH - row)
    });
    return first.intersection(line).getEnvelopeInternal().getMaxX() - WEST;
  }

  @Test
  void whatIsLeftOutOfOneSceneComesFromTheOther(FxRobot robot) {
    findSeams(robot);
    robot.clickOn("#mosaic-leave");
    lasso(robot, 170, 40, 380, 260);
    window.waiting().until("a file", () -> Files.isRegularFile(kept("left-out")));
    window
        .waiting()
        .until("other seams", () -> !window.workspace().lanes().busyProperty().get());
    waitForFigure(robot);
    OutlineSet out = GeoPackage.read(kept("left-out"), "").outlines();
    int scene = (int) out.table().values("scene")[0];
    Geometry gone = out.outlines().getFirst();
    assertThat(gone.getArea()).isCloseTo(210 * 220, within(3000.0));
    OutlineSet areas = areas();
    for (int i = 0; i < areas.count(); i++) {
      if (areas.table().values("scene")[i] == scene) {
        assertThat(areas.outlines().get(i).intersection(gone).getArea())
            .isLessThan(gone.getArea() / 20);
      }
    }
    assertThat(SeamEdits.sides(areas)).anyMatch(SeamEdits.Side::seam);
  }

  @Test
  void withoutSeamsThereIsNothingToDrawOver(FxRobot robot) {
    robot.clickOn("#stage-place").clickOn("#tool-mosaic").clickOn("#mosaic-find");
    assertThat(window.workspace().messages().textProperty().get()).contains("Choose the scenes");
  }

  @AfterEach
  void restBeforeTheFolderGoes() {
    window.rest();
  }
}
