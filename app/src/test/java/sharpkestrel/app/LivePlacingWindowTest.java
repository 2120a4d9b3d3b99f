package sharpkestrel.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.shell.Shell;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.InSystem;
import sharpkestrel.geo.Rpc;
import sharpkestrel.geo.RpcFit;
import sharpkestrel.geo.VerticalDatum;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.RpcText;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.SampleType;

/** A raw scene with a sensor model, shown placed and raw again without anything being written. */
@ExtendWith(ApplicationExtension.class)
class LivePlacingWindowTest {

  private static final int SIDE = 500;
  private static final double LONGITUDE = -3;
  private static final double LATITUDE = 60;
  private static final double DEGREE = 5e-6;

  @TempDir
  Path folder;

  private OpenWindow window;

  @Start
  void start(Stage stage) {
    window = OpenWindow.on(stage, folder, 60);
  }

  /** Looks aslant: a metre up is two thirds of a pixel. */
  private static Rpc rpc() {
    return RpcFit.of(
            (col, row, height, degrees) -> {
              degrees[0] = LONGITUDE + 2 * DEGREE * (col - 250 - 0.66 * height);
              degrees[1] = LATITUDE - DEGREE * (row - 250);
            },
            SIDE,
            SIDE,
            0,
            100)
        .rpc();
  }

  private void openScene(FxRobot robot) {
    float[] pixels = new float[SIDE * SIDE];
    for (int i = 0; i < pixels.length; i++) {
      pixels[i] = 100 + i % SIDE % 40 + i / SIDE % 30;
    }
    Path file = folder.resolve("raw.tif");
    GeoTiffWriter.write(
        new MemoryRaster(
            Grid.ofPixels(SIDE, SIDE),
            List.of(Band.of(BandRole.PAN, SampleType.UINT16)),
            Attachments.NONE,
            new float[][] {pixels}),
        file,
        Compression.DEFLATE,
        Job.QUIET);
    RpcText.write(rpc(), folder.resolve("raw_RPC.TXT"));
    robot.interact(() -> window
        .workspace()
        .run(
            StepCatalogue.get("open"), "Raw", Map.of(), Map.of(), Map.of("file", file.toString())));
    window.waiting().results(1);
    window.waitForPicture();
    robot.clickOn("#picture");
  }

  private void offerHeights(FxRobot robot, double height) {
    float[] plane = new float[100 * 100];
    java.util.Arrays.fill(plane, (float) height);
    Path file = folder.resolve("heights.tif");
    GeoTiffWriter.write(
        new MemoryRaster(
            new Grid(
                100,
                100,
                Affine.northUp(LONGITUDE - 0.01, LATITUDE + 0.01, 0.0002),
                CrsName.epsg(4326)),
            List.of(new Band("height", BandRole.HEIGHT, "m", SampleType.FLOAT32, Double.NaN)),
            Attachments.NONE.with(VerticalDatum.class, VerticalDatum.ELLIPSOID),
            new float[][] {plane}),
        file,
        Compression.DEFLATE,
        Job.QUIET);
    robot.interact(() -> window.workspace().suggestions().all().put("heights", file.toString()));
  }

  private Result shown() {
    return window.workspace().display().paneAProperty().get();
  }

  private double[] middle() {
    return ((Shell) window.scene().getRoot()).picture().middle().orElseThrow();
  }

  @Test
  void thePlaceInTheMiddleStaysThereAndBack(FxRobot robot) {
    openScene(robot);
    offerHeights(robot, 60);
    robot.scroll(2, javafx.geometry.VerticalDirection.UP);
    window.waitForPicture();
    double[] before = middle();

    robot.type(KeyCode.L);
    window.waiting().until("the placed scene", () -> shown().title().contains("placed live"));
    window.waitForPicture();
    assertThat(shown().title()).endsWith("over heights.tif");
    assertThat(robot.lookup("#show-placed").queryAs(ToggleButton.class).isSelected())
        .isTrue();
    Raster placed = (Raster) shown().value();
    double[] at = middle();
    double[] image = new double[2];
    InSystem.of(rpc(), placed.grid().crs())
        .toImage(
            placed.grid().affine().x(at[0], at[1]),
            placed.grid().affine().y(at[0], at[1]),
            60,
            image);
    assertThat(image[0]).isCloseTo(before[0], within(0.6));
    assertThat(image[1]).isCloseTo(before[1], within(0.6));
    assertThat(window.workspace().results()).hasSize(1);

    robot.clickOn("#show-raw");
    window.waiting().until("the raw scene", () -> shown().title().equals("Raw"));
    window.waitForPicture();
    assertThat(middle()[0]).isCloseTo(before[0], within(0.6));
    assertThat(middle()[1]).isCloseTo(before[1], within(0.6));
  }

  @Test
  void withoutHeightsItLiesAtTheHeightItsModelNames(FxRobot robot) {
    openScene(robot);
    robot.clickOn("#show-placed");
    window.waiting().until("the placed scene", () -> shown().title().contains("placed live"));
    assertThat(shown().title()).endsWith("over 50 m");
  }

  @AfterEach
  void restBeforeTheFolderGoes() {
    window.rest();
  }
}
