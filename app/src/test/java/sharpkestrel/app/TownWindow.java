package sharpkestrel.app;

import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import javafx.geometry.Point2D;
import javafx.scene.input.MouseButton;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.shell.Shell;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.SampleType;

/** A window on two scenes of a made-up town, and what tests of it share. */
abstract class TownWindow {

  static final int COARSE = 120;

  @TempDir
  Path folder;

  OpenWindow window;

  /** To be called by the method that starts a test: the one of a class above it would not be found. */
  void begin(Stage stage) {
    window = OpenWindow.on(stage, folder, 60);
  }

  /** A town of bright blocks in the east, woods in the north-west, water in the south-west. */
  static double ground(int band, double x, double y) {
    double grain = new Random((long) x * 7919 + (long) y * 104_729 + band).nextInt(12);
    if (x > 60) {
      boolean house = ((int) (x / 4) + (int) (y / 4)) % 2 == 0;
      return (house ? 500 - 20 * band : 200 + 10 * band) + grain;
    }
    if (y < 60) {
      return (band == 3 ? 700 : 120 + 15 * band) + 2 * grain;
    }
    return 150 - 30 * band + grain;
  }

  void open(String name, int size, double pixel, BandRole... roles) {
    open(name, Attachments.NONE, size, pixel, roles);
  }

  void open(String name, Attachments attachments, int size, double pixel, BandRole... roles) {
    Path file = folder.resolve(name + ".tif");
    double scale = (double) COARSE / size;
    float[][] planes = new float[roles.length][size * size];
    for (int b = 0; b < roles.length; b++) {
      for (int i = 0; i < size * size; i++) {
        double x = i % size * scale;
        double y = i / size * scale;
        planes[b][i] =
            (float) (roles.length > 1 ? ground(b, x, y) : (ground(0, x, y) + ground(1, x, y)) / 2);
      }
    }
    write(file, attachments, size, pixel, planes, roles);
    int before = workspace().results().size();
    workspaceRun(name, file);
    window.waiting().results(before + 1);
  }

  static void write(Path file, int size, double pixel, float[][] planes, BandRole... roles) {
    write(file, Attachments.NONE, size, pixel, planes, roles);
  }

  private static void write(
      Path file,
      Attachments attachments,
      int size,
      double pixel,
      float[][] planes,
      BandRole... roles) {
    Grid grid =
        new Grid(size, size, Affine.northUp(512_000, 6_702_000, pixel), CrsName.epsg(32630));
    List<Band> bands =
        Arrays.stream(roles).map(role -> Band.of(role, SampleType.UINT16)).toList();
    GeoTiffWriter.write(
        new MemoryRaster(grid, bands, attachments, planes), file, Compression.DEFLATE, Job.QUIET);
  }

  void workspaceRun(String title, Path file) {
    javafx.application.Platform.runLater(() -> workspace()
        .run(
            StepCatalogue.get("open"), title, Map.of(), Map.of(), Map.of("file", file.toString())));
  }

  void openScenes(FxRobot robot) {
    openBoth();
    settle(robot);
    robot.clickOn("#stage-sharpen");
  }

  void openBoth() {
    open("Pan", 4 * COARSE, 0.5, BandRole.PAN);
    open("Bands", COARSE, 2, BandRole.BLUE, BandRole.GREEN, BandRole.RED, BandRole.NEAR_INFRARED);
    window.waitForPicture();
  }

  Workspace workspace() {
    return window.workspace();
  }

  PictureView picture() {
    return ((Shell) window.scene().getRoot()).picture();
  }

  /** Waits until no work has been going on for a while, so that nothing is made anew under the mouse. */
  void settle(FxRobot robot) {
    window.waiting().until("rest", () -> {
      for (int k = 0; k < 4; k++) {
        if (workspace().lanes().busyProperty().get()) {
          return false;
        }
        robot.sleep(60);
      }
      return true;
    });
  }

  void drag(FxRobot robot, double col, double row, double toCol, double toRow) {
    Point2D from = window.onScreen(COARSE, COARSE, col, row);
    Point2D to = window.onScreen(COARSE, COARSE, toCol, toRow);
    robot.moveTo(from).press(MouseButton.PRIMARY);
    robot
        .moveTo(to.getX(), from.getY())
        .moveTo(to)
        .moveTo(from.getX(), to.getY())
        .moveTo(from);
    robot.release(MouseButton.PRIMARY);
  }

  Look look() {
    return workspace().display().lookProperty().get();
  }

  @AfterEach
  void restBeforeTheFolderGoes() {
    window.rest();
  }

  /** The objects of the town, measured: the fourth result. */
  void measure(FxRobot robot) {
    openBoth();
    settle(robot);
    robot.clickOn("#stage-segment");
    Waiting.type(robot, "#segment-grain", "100");
    robot.clickOn("#segment-run");
    window.waiting().results(3);
    settle(robot);
    robot.clickOn("#tool-measure").clickOn("#measure-run");
    window.waiting().results(4);
    settle(robot);
  }
}
