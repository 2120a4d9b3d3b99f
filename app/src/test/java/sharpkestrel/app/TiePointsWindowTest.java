package sharpkestrel.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Random;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;
import sharpkestrel.app.model.Display;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.Placement;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.place.fit.TiePoint;
import sharpkestrel.place.fit.TiePointFile;
import sharpkestrel.place.fit.TiePoints;
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

/** A photo without a place, tied by hand and by machine to an ortho of the same ground. */
@ExtendWith(ApplicationExtension.class)
class TiePointsWindowTest {

  private static final int SIDE = 600;

  @TempDir
  Path folder;

  private Workspace workspace;
  private Scene scene;
  private Waiting waiting;
  private OpenWindow window;

  @Start
  void start(Stage stage) {
    window = OpenWindow.on(stage, folder, 90);
    workspace = window.workspace();
    scene = window.scene();
    waiting = window.waiting();
  }

  /** Blobs of all sizes. */
  private static float[] ground() {
    Random random = new Random(7);
    float[] pixels = new float[SIDE * SIDE];
    for (int k = 0; k < 1500; k++) {
      double x = SIDE * random.nextDouble();
      double y = SIDE * random.nextDouble();
      double size = 1.5 + 9 * Math.pow(random.nextDouble(), 3);
      double tone = 60 * random.nextGaussian();
      int reach = (int) (3 * size);
      for (int r = Math.max(0, (int) y - reach); r < Math.min(SIDE, y + reach); r++) {
        for (int c = Math.max(0, (int) x - reach); c < Math.min(SIDE, x + reach); c++) {
          double d = Math.pow(c + 0.5 - x, 2) + Math.pow(r + 0.5 - y, 2);
          pixels[r * SIDE + c] += (float) (tone * Math.exp(-d / (2 * size * size)));
        }
      }
    }
    for (int i = 0; i < pixels.length; i++) {
      pixels[i] = Math.max(1, Math.min(254, 128 + pixels[i]));
    }
    return pixels;
  }

  private void openBoth(FxRobot robot) {
    List<Band> bands = List.of(Band.of(BandRole.PAN, SampleType.UINT8));
    Grid placed =
        new Grid(SIDE, SIDE, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630));
    for (Grid grid : List.of(placed, Grid.ofPixels(SIDE, SIDE))) {
      Path file = folder.resolve(grid == placed ? "ortho.tif" : "photo.tif");
      GeoTiffWriter.write(
          new MemoryRaster(grid, bands, Attachments.NONE, new float[][] {ground()}),
          file,
          Compression.DEFLATE,
          Job.QUIET);
      int before = workspace.results().size();
      robot.interact(() -> workspace.run(
          StepCatalogue.get("open"),
          grid == placed ? "Ortho" : "Photo",
          Map.of(),
          Map.of(),
          Map.of("file", file.toString())));
      waiting.results(before + 1);
    }
    assertThat(workspace.messages().warningProperty().get()).contains("photo.tif has no place");
    robot.interact(workspace.messages()::clear);
    robot.clickOn("#stage-place").clickOn("#tool-tiepoints");
    window.waitForPicture();
    assertThat(workspace.display().compareProperty().get()).isEqualTo(Display.Compare.SIDE_BY_SIDE);
  }

  /** A place of a pane, screen pixels from its middle; both panes show the same ground there. */
  private Point2D at(FxRobot robot, boolean inB, double dx, double dy) {
    Bounds all = robot
        .lookup("#picture")
        .query()
        .localToScreen(robot.lookup("#picture").query().getBoundsInLocal());
    double half = Math.floor(all.getWidth() / 2);
    return new Point2D(
        all.getMinX() + (inB ? half : 0) + half / 2 + dx, all.getMinY() + all.getHeight() / 2 + dy);
  }

  private void tie(FxRobot robot, double dx, double dy) {
    robot.clickOn(at(robot, false, dx, dy)).clickOn(at(robot, true, dx, dy));
  }

  private TiePoints kept() {
    return TiePointFile.read(folder.resolve("project/hand/tie-points-open-2.geojson"));
  }

  private void waitForPoints(int count) {
    waiting.until(count + " points", () -> {
      Path file = folder.resolve("project/hand/tie-points-open-2.geojson");
      return file.toFile().isFile() && kept().points().size() == count;
    });
  }

  private static double shown(FxRobot robot) {
    String rms = OpenWindow.text(robot, "#tie-rms");
    return rms.equals("\u2013") ? Double.NaN : Double.parseDouble(rms);
  }

  @Test
  void pointsSetByHandPlaceAPhoto(FxRobot robot) {
    openBoth(robot);
    tie(robot, -140, -120);
    tie(robot, 130, -90);
    tie(robot, 10, 150);
    waitForPoints(3);
    waiting.until("a model", () -> !Double.isNaN(shown(robot)));

    // from now on a click in one picture tells where the other half is expected
    robot.clickOn(at(robot, true, -60, 70)).type(KeyCode.ENTER);
    waitForPoints(4);
    for (TiePoint point : kept().points()) {
      // a pixel of the window is 1.3 pixels of the photo
      assertThat((point.x() - 512_000) * 2).isCloseTo(point.col(), within(1.5));
      assertThat((6_702_000 - point.y()) * 2).isCloseTo(point.row(), within(1.5));
    }

    robot.clickOn("#tie-use-2");
    waiting.until("its use", () -> OpenWindow.text(robot, "#tie-use-2").equals("check"));
    robot.clickOn("#tie-line-2").type(KeyCode.DELETE);
    waiting.until("its use", () -> OpenWindow.text(robot, "#tie-use-2").equals("off"));
    robot.push(KeyCode.CONTROL, KeyCode.Z);
    waiting.until("its use", () -> OpenWindow.text(robot, "#tie-use-2").equals("check"));
    waiting.until(
        "the fit",
        () -> robot.lookup("#tie-advice").queryAs(Label.class).getText().contains("points"));

    robot.clickOn("#tie-model-affine").clickOn("#tiepoints-run");
    waiting.results(3);
    Raster result = (Raster) workspace.results().getLast().value();
    Placement placement = result.attachments().get(Placement.class).orElseThrow();
    assertThat(placement.model()).isEqualTo("Affine");
    assertThat(placement.checkPoints()).isEqualTo(1);
    assertThat(result.grid().crs()).isEqualTo(CrsName.epsg(32630));
    assertThat(workspace.display().paneBProperty().get().title()).isEqualTo("Ortho");
  }

  @Test
  void pointsAreFoundAndThePhotoLiesOnTheOrtho(FxRobot robot) {
    openBoth(robot);
    robot.clickOn("#tie-find");
    waiting.results(3);
    waiting.until("a model", () -> !Double.isNaN(shown(robot)));
    assertThat(((TiePoints) workspace.results().getLast().value()).points()).hasSizeGreaterThan(15);
    assertThat(shown(robot)).isLessThan(0.2);

    robot.clickOn("#tiepoints-run");
    waiting.results(4);
    Raster result = (Raster) workspace.results().getLast().value();
    Raster ortho = (Raster) workspace.named("open").orElseThrow().value();
    assertThat(result.grid().affine().pixelWidth()).isEqualTo(0.5);
    double[] pixel = {512_150.25, 6_701_849.75};
    double squares = 0;
    for (int k = 0; k < 100; k++) {
      double x = pixel[0] + k % 10 * 8;
      double y = pixel[1] - k / 10 * 8;
      squares += Math.pow(value(result, x, y) - value(ortho, x, y), 2) / 100;
    }
    // tones spread by some tens of numbers; a shift of one pixel would make five and more
    assertThat(Math.sqrt(squares)).isLessThan(2);
  }

  @Test
  void soManyPointsAreFoundAsAreAskedForAndSomeKeptForChecking(FxRobot robot) {
    openBoth(robot);
    robot.clickOn("#tie-how");
    Waiting.type(robot, "#tiepoints-most", "16");
    Waiting.type(robot, "#tiepoints-check", "0.25");
    robot.clickOn("#tie-find");
    waiting.results(3);
    TiePoints found = (TiePoints) workspace.results().getLast().value();
    assertThat(found.points()).hasSizeBetween(8, 16);
    assertThat(found.of(TiePoint.Use.CHECK)).hasSizeBetween(2, 4);
    waiting.until(
        "an error at check points",
        () -> OpenWindow.text(robot, "#tie-note").contains("check points"));
  }

  private static float value(Raster raster, double x, double y) {
    Affine toPixel = raster.grid().affine().inverse();
    var window = new sharpkestrel.raster.Window(
        (int) Math.floor(toPixel.x(x, y)), (int) Math.floor(toPixel.y(x, y)), 1, 1);
    return raster.read(0, window, Request.BACKGROUND)[0][0];
  }

  @Test
  void draggingAMarkMovesItsPoint(FxRobot robot) {
    openBoth(robot);
    tie(robot, -100, -100);
    waitForPoints(1);
    double before = kept().points().getFirst().col();
    robot
        .drag(at(robot, false, -100, -100), MouseButton.PRIMARY)
        .dropTo(at(robot, false, -70, -100));
    waiting.until("the move", () -> kept().points().getFirst().col() > before + 30);

    TiePoint moved = kept().points().getFirst();
    assertThat(moved.col() - before).isCloseTo(30 * 1.293, within(3.0));
    assertThat((moved.x() - 512_000) * 2).isCloseTo(before, within(1.5));

    // surveyors know the place better
    robot.clickOn("#tie-line-" + moved.id());
    Waiting.type(robot, "#tie-east", "512111.25");
    Waiting.type(robot, "#tie-height", "53.5");
    robot.type(KeyCode.ENTER);
    waiting.until("the surveyed place", () -> kept().points().getFirst().x() == 512_111.25);
    assertThat(kept().points().getFirst().height()).isEqualTo(53.5);
    assertThat(kept().points().getFirst().y()).isCloseTo(moved.y(), within(0.006));
    Waiting.type(robot, "#tie-north", "far");
    robot.type(KeyCode.ENTER);
    assertThat(workspace.messages().textProperty().get()).contains("'far' is no place");
  }

  @AfterEach
  void restBeforeTheFolderGoes() {
    window.rest();
  }
}
