package sharpkestrel.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.control.ToggleButton;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.project.ProjectFile;
import sharpkestrel.app.shell.Shell;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoJson;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.Layer;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.SampleType;

/** One's own files, from the command to objects in the table, in a real window. */
@ExtendWith(ApplicationExtension.class)
class OwnDataTest {

  private static final int SIDE = 240;

  @TempDir
  static Path folder;

  private OpenWindow window;

  @Start
  void start(Stage stage) {
    Workspace workspace = new Workspace();
    window = new OpenWindow(workspace, KestrelApp.scene(workspace), new Waiting(workspace, 120));
    stage.setScene(window.scene());
    stage.show();
  }

  @AfterEach
  void rest() {
    window.rest();
  }

  /** Plots of tones of their own in bands without a role, and none said, as files of other software are. */
  private static Path file(String name, int bands, SampleType type, double scale, Grid grid) {
    float[][] planes = new float[bands][SIDE * SIDE];
    for (int b = 0; b < bands; b++) {
      for (int i = 0; i < planes[b].length; i++) {
        int plot = i % SIDE / 40 + 7 * (i / SIDE / 40);
        double tone = 60 + 110 * Math.abs(Math.sin(plot * (b + 1.3))) + (i * 7919L) % 9;
        planes[b][i] = (float) Math.rint(tone * scale);
      }
    }
    List<Band> plain = java.util.stream.IntStream.range(0, bands)
        .mapToObj(b -> new Band("band " + (b + 1), BandRole.OTHER, "", type, Double.NaN)
            .withGuessedRole(BandRole.OTHER))
        .toList();
    Path file = folder.resolve(name + ".tif");
    GeoTiffWriter.write(
        new MemoryRaster(grid, plain, sharpkestrel.raster.Attachments.NONE, planes),
        file,
        Compression.DEFLATE,
        Job.QUIET);
    return file;
  }

  private static Grid placed(double pixel) {
    return new Grid(SIDE, SIDE, Affine.northUp(512_000, 6_702_000, pixel), CrsName.epsg(32630));
  }

  /** The command, and then: the stage, its step, the next tool, its step, the table. */
  private ObjectSet objectsOf(FxRobot robot, Path file) {
    robot.interact(() -> Opening.start(window.workspace(), List.of(file)));
    window.waiting().results(1);
    window.waitForPicture();
    robot.clickOn("#stage-segment").clickOn("#segment-run");
    window.waiting().results(2);
    robot.clickOn("#tool-measure").clickOn("#measure-run");
    window.waiting().results(3);
    return (ObjectSet) window.workspace().results().getLast().value();
  }

  private String look() {
    return ((ToggleButton) window.scene().lookup("#look")).getText();
  }

  /** Colours of the middle of the picture that differ: more than greys. */
  private boolean isInColour(FxRobot robot) {
    window.waitForPicture();
    boolean[] coloured = {false};
    robot.interact(() -> {
      var image = ((Shell) window.scene().getRoot()).picture().snapshot(null, null);
      var pixels = image.getPixelReader();
      for (int k = 0; k < 400; k++) {
        var colour = pixels.getColor((int) (image.getWidth() * (0.4 + 0.2 * (k % 20) / 20)), (int)
            (image.getHeight() * (0.4 + 0.2 * (k / 20) / 20)));
        coloured[0] |= colour.getSaturation() > 0.15;
      }
    });
    return coloured[0];
  }

  @Test
  void aPhotoWithoutAPlace(FxRobot robot) {
    Path photo = file("photo", 3, SampleType.UINT8, 1, Grid.ofPixels(SIDE, SIDE));

    ObjectSet set = objectsOf(robot, photo);

    assertThat(set.count()).isGreaterThan(20);
    assertThat(set.table().column("area").unit()).isEqualTo("px");
    assertThat(look()).contains("Natural");
    assertThat(isInColour(robot)).isTrue();
    assertThat(window.workspace().titleProperty().get()).isEqualTo("photo");
    assertThat(ProjectFile.isIn(folder.resolve("photo-kestrel"))).isTrue();
  }

  @Test
  void anOrthoOfThreeBands(FxRobot robot) {
    ObjectSet set = objectsOf(robot, file("ortho", 3, SampleType.UINT8, 1, placed(0.3)));

    assertThat(set.table().column("area").unit()).isEqualTo("m²");
    assertThat(isInColour(robot)).isTrue();
  }

  @Test
  void aSceneOfEightBands(FxRobot robot) {
    ObjectSet set = objectsOf(robot, file("eight", 8, SampleType.UINT16, 40, placed(2)));

    assertThat(set.count()).isGreaterThan(5);
    assertThat(look()).contains("Natural");
    assertThat(isInColour(robot)).isTrue();
  }

  /** Nine bands, of which nothing is usual: three of them are seen, and no look is named that is not shown. */
  @Test
  void aSceneOfLargePixels(FxRobot robot) {
    Path scene = file("coarse", 9, SampleType.UINT16, 40, placed(30));

    ObjectSet set = objectsOf(robot, scene);

    assertThat(set.count()).isBetween(100, SIDE * SIDE / 30);
    assertThat(look()).contains("Bands 1, 2, 3");
    assertThat(isInColour(robot)).isTrue();
  }

  /** What was made of a file is there again when the file is opened again. */
  @Test
  void aFileThatWasOpenedBeforeGoesOnWithItsProject(FxRobot robot) throws IOException {
    Path file = file("again", 3, SampleType.UINT8, 1, placed(0.5));
    robot.interact(() -> Opening.start(window.workspace(), List.of(file)));
    window.waiting().results(1);
    robot.clickOn("#stage-segment").clickOn("#segment-run");
    window.waiting().results(2);
    window.rest();

    Workspace next = new Workspace();
    robot.interact(() -> Opening.start(next, List.of(file)));
    new Waiting(next, 60).results(2);

    assertThat(next.results()).extracting(r -> r.step().id()).containsExactly("open", "segment");
    assertThat(Files.list(folder).filter(f -> f.getFileName().toString().startsWith("again-")))
        .hasSize(1);
    new OpenWindow(next, window.scene(), new Waiting(next, 60)).rest();
  }

  /** Outlines of a file in degrees lie over the scene that is opened with them, where they are, and can be listed. */
  @Test
  void outlinesAreLaidOverTheSceneTheyAreOpenedWith(FxRobot robot) throws IOException {
    Path scene = file("under", 3, SampleType.UINT8, 1, placed(0.5));
    Grid grid = RasterFiles.open(scene).grid();
    Geometry square = new GeometryFactory()
        .toGeometry(new Envelope(
            grid.affine().x(20, 60),
            grid.affine().x(60, 20),
            grid.affine().y(20, 60),
            grid.affine().y(60, 20)));
    Path sheds = folder.resolve("sheds.geojson");
    GeoJson.write(
        Layer.of("sheds", new OutlineSet(grid.crs(), List.of(square), new Table(1, List.of()))),
        sheds);

    robot.interact(() -> Opening.start(window.workspace(), List.of(sheds, scene)));
    window.waiting().results(2);
    window.rest();

    Result laid = window.workspace().results().getLast();
    assertThat(laid.step().id()).isEqualTo("open-outlines");
    assertThat(laid.backdrop().grid()).isEqualTo(grid);
    OutlineSet set = (OutlineSet) laid.value();
    assertThat(set.crs()).isEqualTo(grid.crs());
    assertThat(set.outlines().getFirst().symDifference(square).getArea()).isLessThan(0.01);
    assertThat(window.workspace().display().paneAProperty().get()).isEqualTo(laid);
  }

  @Test
  void whatCannotBeOpenedIsSaid(FxRobot robot) throws IOException {
    Path text = Files.writeString(folder.resolve("notes.txt"), "nothing");

    robot.interact(() -> Opening.start(window.workspace(), List.of(text)));
    window
        .waiting()
        .until(
            "the message",
            () -> !window.workspace().messages().textProperty().get().isBlank());

    assertThat(window.workspace().messages().textProperty().get())
        .contains("notes.txt")
        .contains("rasters, deliveries, outlines and projects");
  }
}
