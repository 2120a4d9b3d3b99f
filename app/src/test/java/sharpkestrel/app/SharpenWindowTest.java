package sharpkestrel.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.layout.GridPane;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.StretchRule;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.shell.Shell;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.Crs;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.place.Reprojected;
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

/** The stage Sharpen in a real window: looks, methods in numbers, trials, thresholds, profiles. */
@ExtendWith(ApplicationExtension.class)
class SharpenWindowTest {

  private static final int COARSE = 120;

  @TempDir
  Path folder;

  private OpenWindow window;

  @Start
  void start(Stage stage) {
    window = OpenWindow.on(stage, folder, 60);
  }

  /** A town of bright blocks in the east, woods in the north-west, water in the south-west. */
  private static double ground(int band, double x, double y) {
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

  private void open(String name, int size, double pixel, BandRole... roles) {
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
    write(file, size, pixel, planes, roles);
    int before = workspace().results().size();
    workspaceRun(name, file);
    window.waiting().results(before + 1);
  }

  private static void write(
      Path file, int size, double pixel, float[][] planes, BandRole... roles) {
    Grid grid =
        new Grid(size, size, Affine.northUp(512_000, 6_702_000, pixel), CrsName.epsg(32630));
    List<Band> bands =
        Arrays.stream(roles).map(role -> Band.of(role, SampleType.UINT16)).toList();
    GeoTiffWriter.write(
        new MemoryRaster(grid, bands, Attachments.NONE, planes),
        file,
        Compression.DEFLATE,
        Job.QUIET);
  }

  private void workspaceRun(String title, Path file) {
    javafx.application.Platform.runLater(() -> workspace()
        .run(
            StepCatalogue.get("open"), title, Map.of(), Map.of(), Map.of("file", file.toString())));
  }

  private void openScenes(FxRobot robot) {
    openBoth();
    settle(robot);
    robot.clickOn("#stage-sharpen");
  }

  private void openBoth() {
    open("Pan", 4 * COARSE, 0.5, BandRole.PAN);
    open("Bands", COARSE, 2, BandRole.BLUE, BandRole.GREEN, BandRole.RED, BandRole.NEAR_INFRARED);
    window.waitForPicture();
  }

  private Workspace workspace() {
    return window.workspace();
  }

  private PictureView picture() {
    return ((Shell) window.scene().getRoot()).picture();
  }

  private Look look() {
    return workspace().lookProperty().get();
  }

  /** Waits until no work has been going on for a while, so that nothing is made anew under the mouse. */
  private void settle(FxRobot robot) {
    window.waiting().until("rest", () -> {
      for (int k = 0; k < 4; k++) {
        if (workspace().tasks().runningProperty().get()) {
          return false;
        }
        robot.sleep(60);
      }
      return true;
    });
  }

  private void drag(FxRobot robot, double col, double row, double toCol, double toRow) {
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

  @Test
  void aLookIsMadeKeptByKeyAndHoldsForOtherRasters(FxRobot robot) {
    openScenes(robot);
    robot.type(KeyCode.N).type(KeyCode.K);
    assertThat(window.scene().lookup("#look-card").isVisible()).isTrue();

    robot.clickOn("#stretch-range");
    assertThat(look().stretch().kind()).isEqualTo(StretchRule.Kind.RANGE);
    double before = picture().ends().orElseThrow().low()[0];

    // the lower handles lie one under the other near the left end: the one of red is dragged
    // inwards
    Node box = window.scene().lookup("#stretch-box");
    robot.clickOn("#stretch-by-hand");
    Point2D corner = box.localToScreen(0, 0);
    double width = box.getBoundsInLocal().getWidth();
    double at = handle(width);
    robot
        .drag(corner.getX() + at, corner.getY() + 40)
        .dropTo(corner.getX() + at + 60, corner.getY() + 40);
    assertThat(look().stretch().kind()).isEqualTo(StretchRule.Kind.BY_HAND);
    double[] low = picture().ends().orElseThrow().low();
    assertThat(Math.max(low[0], Math.max(low[1], low[2]))).isGreaterThan(before);

    robot.interact(() -> {
      ComboBox<BandRole> red = robot.lookup("#look-role-red").queryComboBox();
      red.setValue(BandRole.NEAR_INFRARED);
    });
    robot.clickOn("#look-name").write("Woods").clickOn("#look-keep");
    assertThat(workspace().ownLooks()).extracting(Look::name).containsExactly("Woods");
    robot.clickOn("#look-natural");
    assertThat(look().name()).isEqualTo("Natural");
    robot.press(KeyCode.CONTROL).type(KeyCode.DIGIT1).release(KeyCode.CONTROL);
    assertThat(look().roles())
        .containsExactly(BandRole.NEAR_INFRARED, BandRole.GREEN, BandRole.BLUE);
    window.waiting().until("the look in the project", () -> saved().contains("Woods"));
  }

  /** Where the lowest end of all lies in the box: its axis begins an eighth of the range before the values do. */
  private double handle(double width) {
    double from = Double.POSITIVE_INFINITY;
    double to = Double.NEGATIVE_INFINITY;
    double lowest = Double.POSITIVE_INFINITY;
    for (int c = 0; c < 3; c++) {
      from = Math.min(from, picture().sample().orElseThrow().quantile(c, 0.001));
      to = Math.max(to, picture().sample().orElseThrow().quantile(c, 0.999));
      lowest = Math.min(lowest, picture().ends().orElseThrow().low()[c]);
    }
    double room = 0.12 * (to - from);
    return 8 + (lowest - from + room) / (to - from + 2 * room) * (width - 16);
  }

  private String saved() {
    try {
      return Files.readString(folder.resolve("project/project.json"));
    } catch (java.io.IOException notYet) {
      return "";
    }
  }

  @Test
  void methodsAreRatedOneIsTakenAndVariantsOfATrialStandSideBySide(FxRobot robot) {
    openScenes(robot);
    robot.interact(() -> picture().fit());
    robot.type(KeyCode.T).clickOn("#pansharpen-rate");
    window
        .waiting()
        .until("ratings", () -> robot.lookup("#rating-laplacian").tryQuery().isPresent());
    GridPane table = robot.lookup("#ratings").queryAs(GridPane.class);
    assertThat(table.getChildren()).hasSize(7 * 9);

    robot.clickOn("#rating-brovey");
    ComboBox<String> method = robot.lookup("#pansharpen-method").queryComboBox();
    assertThat(method.getValue()).isEqualTo("brovey");
    window.waitForPicture();

    robot.clickOn("#tool-local-contrast").clickOn("#local-contrast-four");
    window
        .waiting()
        .until(
            "variants",
            () -> robot.lookup(".variant-tag").queryAll().stream().allMatch(Node::isVisible));
    assertThat(robot.lookup(".variant-tag").queryAllAs(Label.class))
        .extracting(Label::getText)
        .contains("Neighbourhood 32", "Neighbourhood 256");
    Label third = robot.lookup(".variant-tag").queryAllAs(Label.class).stream()
        .filter(label -> label.getText().endsWith("128"))
        .findFirst()
        .orElseThrow();
    Point2D under = third.localToScreen(20, 40);
    robot.clickOn(under);
    assertThat(robot
            .lookup("#local-contrast-neighbourhood")
            .queryAs(TextField.class)
            .getText())
        .isEqualTo("128");
  }

  @Test
  void theBuiltUpThresholdIsDraggedOverThePictureAndMakesAMask(FxRobot robot) {
    openScenes(robot);
    robot.interact(() -> picture().fit());
    robot.clickOn("#tool-builtup").clickOn("#builtup-show");
    Label share = robot.lookup("#builtup-share").queryAs(Label.class);
    window.waiting().until("the share", () -> share.getText().contains("%"));
    TextField threshold = robot.lookup("#builtup-threshold").queryAs(TextField.class);
    double start = Double.parseDouble(threshold.getText());
    window.waitForPicture();

    Node box = robot.lookup("#builtup-histogram").query();
    Point2D corner = box.localToScreen(0, 0);
    double width = box.getBoundsInLocal().getWidth();
    for (double x = 8; x < width - 20 && Double.parseDouble(threshold.getText()) == start; x += 9) {
      robot
          .drag(corner.getX() + x, corner.getY() + 60)
          .dropTo(corner.getX() + x + 12, corner.getY() + 60);
    }
    assertThat(Double.parseDouble(threshold.getText())).isNotEqualTo(start);

    robot.clickOn("#builtup-run");
    window.waiting().results(3);
    Raster mask = (Raster) workspace().results().get(2).value();
    assertThat(mask.bands().get(0).type()).isEqualTo(SampleType.UINT8);
    float[] values = mask.read(0, mask.grid().window(), Request.BACKGROUND)[0];
    assertThat(values[60 * COARSE + 100]).isEqualTo(1);
    assertThat(values[90 * COARSE + 20]).isZero();
  }

  @Test
  void profilesOfPlacesAreToldApartAndMeasuresThatTellNothingNewLeftOut(FxRobot robot) {
    openScenes(robot);
    robot.interact(() -> picture().fit());
    robot.clickOn("#tool-profiles");
    window.waitForPicture();
    drag(robot, 20, 20, 40, 40);
    window
        .waiting()
        .until("a place", () -> robot.lookup("#profile-name-0").tryQuery().isPresent());
    drag(robot, 20, 80, 40, 100);
    drag(robot, 80, 30, 100, 60);
    window
        .waiting()
        .until(
            "distances",
            () -> !robot.lookup("#apart").queryAs(GridPane.class).getChildren().isEmpty());
    window
        .waiting()
        .until("best bands", () -> robot.lookup("#best-0").tryQuery().isPresent());
    settle(robot);
    robot.clickOn("#profile-name-0").eraseText(7).write("wood").type(KeyCode.ENTER);
    window
        .waiting()
        .until(
            "the places in the project",
            () -> Files.isRegularFile(folder.resolve("project/hand/profiles.gpkg")));
    window
        .waiting()
        .until("best bands", () -> robot.lookup("#best-0").tryQuery().isPresent());
    robot.clickOn("#best-0");
    assertThat(look().name()).isEqualTo("Best three");
    assertThat(look().roles()).contains(BandRole.NEAR_INFRARED);
    settle(robot);
    robot.clickOn("#profile-shown-2");
    assertThat(robot.lookup("#profile-shown-2").queryAs(CheckBox.class).isSelected())
        .isFalse();

    settle(robot);
    ComboBox<String> upwards = robot.lookup("#scatter-y").queryComboBox();
    assertThat(upwards.getItems()).contains("near infrared", "Vegetation", "Water");
    robot.interact(() -> upwards.setValue("Vegetation"));
    settle(robot);
    Node plot = robot.lookup("#scatter").query();
    Point2D foot = plot.localToScreen(4, 4);
    // all of the plot drawn around lights all of the picture
    robot.moveTo(foot).press(MouseButton.PRIMARY);
    robot.moveBy(140, 0).moveBy(0, 140).moveBy(-140, 0).release(MouseButton.PRIMARY);
    window.waitForPicture();

    robot.clickOn("#tool-texture").clickOn("#texture-compare");
    TextField measures = robot.lookup("#texture-measures").queryAs(TextField.class);
    String before = measures.getText();
    window.waiting().until("the patch", () -> picture().trials().isSet());
    window.waiting().until("another choice", () -> {
      robot.interact(() -> robot.lookup("#texture-thin").queryButton().fire());
      return !measures.getText().equals(before);
    });
    assertThat(measures.getText()).startsWith("range").doesNotContain("deviation");
  }

  @Test
  void bandsAreStackedWithTheirRolesGuessedAndMended(FxRobot robot) {
    Path delivery = folder.resolve("delivery");
    for (String name : new String[] {"a_blue", "b_red", "c_unknown"}) {
      float[] plane = new float[40 * 40];
      Arrays.fill(plane, 7);
      write(delivery.resolve(name + ".tif"), 40, 2, new float[][] {plane}, BandRole.OTHER);
    }
    robot.clickOn("#tool-stack").clickOn("#stack-path").write(delivery.toString());
    robot.clickOn("#stack-add");
    window
        .waiting()
        .until("the bands", () -> robot.lookup("#stack-role-2").tryQuery().isPresent());
    ComboBox<BandRole> first = robot.lookup("#stack-role-0").queryComboBox();
    ComboBox<BandRole> third = robot.lookup("#stack-role-2").queryComboBox();
    assertThat(first.getValue()).isEqualTo(BandRole.BLUE);
    assertThat(third.getValue()).isEqualTo(BandRole.OTHER);
    robot.interact(() -> third.setValue(BandRole.GREEN));

    robot.clickOn("#stack-run");
    window.waiting().results(1);
    Raster stack = (Raster) workspace().results().get(0).value();
    assertThat(stack.bands())
        .extracting(Band::role)
        .containsExactly(BandRole.BLUE, BandRole.RED, BandRole.GREEN);
  }

  @Test
  void whatIsUnderThePatchIsCutOut(FxRobot robot) {
    openBoth();
    settle(robot);
    robot.interact(() -> picture().fit());
    robot.type(KeyCode.T).clickOn("#tool-clip");
    robot.clickOn("#clip-extent-patch").clickOn("#clip-run");
    window.waiting().results(3);

    Raster cut = (Raster) workspace().results().get(2).value();
    assertThat(cut.grid().width()).isBetween(20, COARSE - 1);
    assertThat(cut.grid().height()).isBetween(20, COARSE - 1);
    assertThat(cut.bands()).hasSize(4);
  }

  @Test
  void panesOfTwoCoordinateSystemsMoveTogether(FxRobot robot) {
    open("Bands", COARSE, 2, BandRole.BLUE, BandRole.GREEN, BandRole.RED, BandRole.NEAR_INFRARED);
    Raster here = (Raster) workspace().results().get(0).value();
    Path file = folder.resolve("next-zone.tif");
    GeoTiffWriter.write(
        Reprojected.to(Crs.of(CrsName.epsg(32631)), here), file, Compression.NONE, Job.QUIET);
    workspaceRun("Next zone", file);
    window.waiting().results(2);
    robot.interact(() -> {
      workspace().show(workspace().results().get(0));
      workspace().paneBProperty().set(workspace().results().get(1));
      workspace().compareProperty().set(Workspace.Compare.SIDE_BY_SIDE);
    });
    window.waitForPicture();
    robot.interact(() -> picture().fit());
    window.waitForPicture();

    Bounds well = picture().localToScreen(picture().getBoundsInLocal());
    double left = well.getMinX() + well.getWidth() / 4;
    String inA = readAt(robot, left, well.getCenterY());
    String inB = readAt(robot, left + Math.floor(well.getWidth() / 2), well.getCenterY());

    assertThat(inB.split(" {2,}")[0]).isEqualTo(inA.split(" {2,}")[0]).startsWith("E 512");
    assertThat(OpenWindow.text(robot, "#values")).containsPattern("\\d{2,} \\d{2,}");

    // the other way round the picture stays where it is, in the other's coordinates
    robot.interact(() -> workspace().show(workspace().results().get(1)));
    window.waitForPicture();
    assertThat(readAt(robot, left, well.getCenterY())).startsWith("E 18");
    assertThat(OpenWindow.text(robot, "#values")).containsPattern("\\d{2,} \\d{2,}");
  }

  /** The position that is read out at a place of the screen. */
  private String readAt(FxRobot robot, double x, double y) {
    String before = OpenWindow.text(robot, "#position");
    robot.moveTo(x, y);
    window
        .waiting()
        .until(
            "a readout",
            () -> OpenWindow.text(robot, "#position").startsWith("E")
                && !workspace().tasks().runningProperty().get());
    robot.sleep(300);
    return OpenWindow.text(robot, "#position");
  }

  @Test
  void greyLevelsAreDrawnOnTheHistogram(FxRobot robot) {
    openScenes(robot);
    robot.clickOn("#tool-texture").clickOn("#texture-levels");
    Label count = robot.lookup("#levels-count").queryAs(Label.class);
    window.waiting().until("the levels", () -> count.getText().startsWith("32 grey levels"));
    TextField cuts = robot.lookup("#texture-cuts").queryAs(TextField.class);
    robot.interact(() -> cuts.setText("150,300"));
    robot.interact(() -> robot.lookup("#texture-binning").queryComboBox().setValue("cuts"));
    window.waiting().until("three levels", () -> count.getText().startsWith("3 grey levels"));

    Node box = robot.lookup("#levels-box").query();
    Point2D corner = box.localToScreen(0, 0);
    double far = corner.getX() + box.getBoundsInLocal().getWidth() - 30;
    robot.clickOn(far, corner.getY() + 50);
    window.waiting().until("one more", () -> count.getText().startsWith("4 grey levels"));
    double third = Double.parseDouble(cuts.getText().split(",")[2]);
    assertThat(cuts.getText()).startsWith("150,300,");
    assertThat(third).isGreaterThan(300);

    robot.drag(far, corner.getY() + 50).dropTo(far - 60, corner.getY() + 50);
    assertThat(Double.parseDouble(cuts.getText().split(",")[2])).isBetween(300.0, third - 1);
    robot.rightClickOn(far - 60, corner.getY() + 50);
    assertThat(cuts.getText()).isEqualTo("150,300");
    window.waiting().until("three levels", () -> count.getText().startsWith("3 grey levels"));
  }
}
