package sharpkestrel.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.ComboBox;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;
import sharpkestrel.app.model.Display;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.StretchRule;
import sharpkestrel.app.model.ViewPlace;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.project.ProjectFile;
import sharpkestrel.geo.Crs;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.place.Reprojected;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;

/** Looks, panes and cut-outs in a real window. */
@ExtendWith(ApplicationExtension.class)
class LookWindowTest extends TownWindow {

  @Start
  void start(Stage stage) {
    begin(stage);
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
    assertThat(workspace().display().ownLooks()).extracting(Look::name).containsExactly("Woods");
    robot.clickOn("#look-natural");
    assertThat(look().name()).isEqualTo("Natural");
    robot.press(KeyCode.CONTROL).type(KeyCode.DIGIT1).release(KeyCode.CONTROL);
    assertThat(look().roles())
        .containsExactly(BandRole.NEAR_INFRARED, BandRole.GREEN, BandRole.BLUE);
    window.waiting().until("the look in the project", () -> saved().contains("Woods"));
  }

  @Test
  void aProjectOpensAsItWasLeft(FxRobot robot) {
    openScenes(robot);
    robot.interact(() -> {
      workspace().display().show(workspace().results().get(0));
      workspace().display().paneBProperty().set(workspace().results().get(1));
      workspace().display().compareProperty().set(Display.Compare.SIDE_BY_SIDE);
      workspace().display().lookProperty().set(Look.INFRARED);
    });
    window.waitForPicture();
    ViewPlace place = new ViewPlace(512_031.5, -6_701_960.25, 0.125);
    robot.interact(() -> workspace().display().viewWantedProperty().set(place));
    window
        .waiting()
        .until("the place", () -> isAbout(workspace().display().viewProperty().get(), place));
    window.waiting().until("the place in the project", () -> saved().contains("6701960.25"));
    settle(robot);

    robot.interact(() -> {
      Workspace again = new Workspace();
      Scene scene = KestrelApp.scene(again);
      ((Stage) window.scene().getWindow()).setScene(scene);
      ProjectFile.open(again, folder.resolve("project"));
      window = new OpenWindow(again, scene, new Waiting(again, 60));
    });
    window.waiting().results(2);
    window.waitForPicture();

    window
        .waiting()
        .until("the place", () -> isAbout(workspace().display().viewProperty().get(), place));
    assertThat(workspace().display().paneAProperty().get().title()).isEqualTo("Pan");
    assertThat(workspace().display().paneBProperty().get().title()).isEqualTo("Bands");
    assertThat(workspace().display().compareProperty().get())
        .isEqualTo(Display.Compare.SIDE_BY_SIDE);
    assertThat(workspace().display().stageProperty().get())
        .isEqualTo(sharpkestrel.step.Stage.SHARPEN);
    assertThat(look()).isEqualTo(Look.INFRARED);
  }

  private static boolean isAbout(ViewPlace seen, ViewPlace place) {
    return seen != null
        && Math.abs(seen.x() - place.x()) < 1e-6
        && Math.abs(seen.y() - place.y()) < 1e-6
        && Math.abs(seen.unitsPerPixel() - place.unitsPerPixel()) < 1e-9;
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
      workspace().display().show(workspace().results().get(0));
      workspace().display().paneBProperty().set(workspace().results().get(1));
      workspace().display().compareProperty().set(Display.Compare.SIDE_BY_SIDE);
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
    robot.interact(() -> workspace().display().show(workspace().results().get(1)));
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
                && !workspace().lanes().busyProperty().get());
    robot.sleep(300);
    return OpenWindow.text(robot, "#position");
  }
}
