package sharpkestrel.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.stage.Stage;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;
import org.testfx.framework.junit5.Stop;
import sharpkestrel.app.model.Display;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.work.Background;
import sharpkestrel.demo.Survey;
import sharpkestrel.demo.SurveyMaker;
import sharpkestrel.raster.Job;

/** The whole job in the real window, by mouse and keyboard only. */
@ExtendWith(ApplicationExtension.class)
class WholeJobTest {

  @TempDir
  static Path home;

  private static Survey survey;

  private Workspace workspace;
  private Scene scene;
  private Waiting waiting;
  private StallWatch watch;

  /** Before the window opens, which must not take long. */
  @BeforeAll
  static void aSurvey() {
    survey = SurveyMaker.make(home.resolve("surveys"), new Survey.Order(3, 640), Job.QUIET);
  }

  @Start
  void start(Stage stage) {
    Background.compilersStandBack(); // as Main does
    workspace = new Workspace();
    waiting = new Waiting(workspace, 240);
    workspace.titleProperty().set("Fenwrack Sound");
    workspace.setFolder(home.resolve("project"), false);
    scene = KestrelApp.scene(workspace);
    stage.setScene(scene);
    stage.show();
    DemoSession.gather(workspace, survey);
    watch = new StallWatch(workspace.lanes().busyProperty()::get);
  }

  @Stop
  void stop() {
    watch.stop();
  }

  private void tryASegmentation(FxRobot robot) {
    robot.clickOn("#segment-try");
    waiting.until("the trial", () -> workspace.lanes().busyProperty().get());
    waiting.until("its end", () -> !workspace.lanes().busyProperty().get());
    assertThat(workspace.messages().textProperty().get()).isEmpty();
  }

  @Test
  void anAnalystGoesFromRawPartsToADeliveredGeoPackage(FxRobot robot) {
    waiting.results(2);
    robot.clickOn("#result-ms").clickOn("#picture");
    robot.type(KeyCode.I);
    assertThat(workspace.display().lookProperty().get().name()).isEqualTo("Infrared");
    robot.type(KeyCode.N);

    robot.clickOn("#result-pan").clickOn("#tool-calibrate").clickOn("#calibrate-run");
    waiting.results(3);
    robot.clickOn("#result-ms").clickOn("#calibrate-run");
    waiting.results(4);

    robot.clickOn("#stage-gather").clickOn("#result-calibrate");
    robot.clickOn("#stage-place");
    Waiting.type(robot, "#ortho-undulation", "47");
    Waiting.type(robot, "#ortho-pixel-size", "0.5");
    robot.clickOn("#ortho-run");
    waiting.results(5);
    robot.clickOn("#stage-gather").clickOn("#result-calibrate-2").clickOn("#stage-place");
    Waiting.type(robot, "#ortho-undulation", "47");
    Waiting.type(robot, "#ortho-pixel-size", "2");
    robot.clickOn("#ortho-run");
    waiting.results(6);

    robot.clickOn("#stage-sharpen").clickOn("#pansharpen-run");
    waiting.results(7);
    robot.clickOn("#picture").type(KeyCode.W);
    assertThat(workspace.display().compareProperty().get()).isEqualTo(Display.Compare.SWIPE);
    robot.type(KeyCode.W);

    robot.clickOn("#stage-segment");
    tryASegmentation(robot);
    robot.clickOn("#segment-run");
    waiting.results(8);
    tryASegmentation(robot);
    int before =
        ((sharpkestrel.segment.Cut) workspace.display().paneAProperty().get().value()).objects();
    Waiting.type(robot, "#grain-number", "120");
    robot.type(KeyCode.ENTER).clickOn("#keep-grain");
    waiting.until(
        "a coarser cut",
        () -> ((sharpkestrel.segment.Cut)
                    workspace.display().paneAProperty().get().value())
                .objects()
            < before);
    robot.clickOn("#tool-measure").clickOn("#measure-run");
    waiting.results(9);

    robot.moveTo("#picture").scroll(3, javafx.geometry.VerticalDirection.UP);
    robot.clickOn("#picture");
    waiting.until("a picked object's features", () -> scene.lookup("#features").isVisible());
    robot.type(KeyCode.ESCAPE);

    robot.clickOn("#stage-extract");
    Waiting.type(
        robot,
        "#winnow-text",
        "brightness >= 0.19 AND blue_red >= 0.94 AND area BETWEEN 10 AND 400");
    robot.type(KeyCode.ENTER);
    waiting.until(
        "survivors", () -> !((Label) scene.lookup("#survivors")).getText().equals("0"));
    String survivors = ((Label) scene.lookup("#survivors")).getText();
    javafx.scene.Node histogram = robot.lookup("#histogram-brightness").query();
    var box = histogram.localToScreen(histogram.getBoundsInLocal());
    robot
        .drag(box.getMaxX() - 7, box.getMinY() + 30, MouseButton.PRIMARY)
        .dropTo(box.getCenterX(), box.getMinY() + 30);
    waiting.until(
        "fewer survivors", () -> !((Label) scene.lookup("#survivors")).getText().equals(survivors));
    robot.clickOn("#undo");
    waiting.until(
        "the handle back", () -> ((Label) scene.lookup("#survivors")).getText().equals(survivors));
    robot.clickOn("#winnow-run");
    waiting.results(10);

    robot.clickOn("#family-outlines").clickOn("#outline-run");
    waiting.results(11);

    robot.clickOn("#stage-check").clickOn("#compare-run");
    waiting.results(12);
    assertThat(workspace.results().get(11).note()).startsWith("F1");

    Path file = home.resolve("roofs.gpkg");
    robot.clickOn("#stage-deliver");
    Waiting.type(robot, "#export-file", file.toString());
    robot.clickOn("#export-run");
    waiting.results(13);
    assertThat(Files.isRegularFile(file)).isTrue();
    System.out.print(watch.report());
    assertThat(watch.work()).as("work of a lane that the window waited for").isEmpty();
  }
}
