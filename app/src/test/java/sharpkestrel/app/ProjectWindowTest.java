package sharpkestrel.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
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
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.project.ProjectFile;
import sharpkestrel.app.shell.Doors;
import sharpkestrel.app.shell.Shell;
import sharpkestrel.app.shell.StartScreen;
import sharpkestrel.flow.StepCatalogue;

/** A project in the window: its results called otherwise, taken away and found; runs in their queue; the first screen. */
@ExtendWith(ApplicationExtension.class)
class ProjectWindowTest {

  @TempDir
  static Path folder;

  private static int projects;

  private Stage stage;
  private OpenWindow window;

  @Start
  void start(Stage newStage) {
    stage = newStage;
    window = OpenWindow.on(stage, folder.resolve("p" + ++projects), 60);
  }

  @AfterEach
  void rest() {
    window.rest();
  }

  private Workspace workspace() {
    return window.workspace();
  }

  private Result named(String name) {
    return workspace().named(name).orElseThrow();
  }

  /** A scene, its objects, and what was measured on them. */
  private void made(FxRobot robot) {
    Path scene = folder.resolve("scene.tif");
    SmallScene.write(scene, 0.5, 1);
    robot.interact(() -> workspace()
        .run(StepCatalogue.get("open"), "", Map.of(), Map.of(), Map.of("file", scene.toString())));
    window.waiting().results(1);
    robot.clickOn("#stage-segment").clickOn("#segment-run");
    window.waiting().results(2);
    robot.clickOn("#tool-measure").clickOn("#measure-run");
    window.waiting().results(3);
    window.waitForPicture();
  }

  private void menu(FxRobot robot, String result, String item) {
    robot.rightClickOn("#result-" + result);
    window
        .waiting()
        .until("the menu", () -> robot.lookup(".context-menu .label").tryQuery().isPresent());
    robot.clickOn(robot
        .lookup(".context-menu .label")
        .<Label>lookup((Label label) -> label.getText().equals(item))
        .<Label>query());
  }

  private List<String> titles() {
    return workspace().results().stream().map(Result::title).toList();
  }

  @Test
  void aResultIsCalledOtherwiseAndThatIsUndoneByName(FxRobot robot) {
    made(robot);

    menu(robot, "segment", "Call it otherwise");
    robot.lookup("#rename").queryAs(TextField.class);
    robot.write("Fields and roofs").type(KeyCode.ENTER);

    assertThat(titles()).containsExactly("scene", "Fields and roofs", "Measured");
    assertThat(robot.lookup("#undo").queryButton().getText())
        .isEqualTo("Undo: call Objects otherwise");
    robot.clickOn("#undo");
    assertThat(titles()).containsExactly("scene", "Objects", "Measured");
    robot.clickOn("#redo");
    assertThat(titles()).containsExactly("scene", "Fields and roofs", "Measured");
  }

  @Test
  void whatHangsFromAResultIsNamedBeforeBothGoAndUndoBringsThemBack(FxRobot robot) {
    made(robot);
    Result measured = named("measure");

    menu(robot, "segment", "Delete");
    assertThat(OpenWindow.text(robot, "#message")).contains("Objects").contains("Measured");
    assertThat(titles()).hasSize(3);
    robot.clickOn("#remedy");
    assertThat(titles()).containsExactly("scene");
    assertThat(workspace().display().paneAProperty().get().title()).isEqualTo("scene");

    robot.clickOn("#undo");
    assertThat(titles()).containsExactly("scene", "Objects", "Measured");
    assertThat(named("measure").value()).isSameAs(measured.value());
    assertThat(workspace().display().paneAProperty().get()).isSameAs(measured);
  }

  @Test
  void aResultIsMadeAgainWithOtherSettings(FxRobot robot) {
    made(robot);
    robot.clickOn("#stage-segment").clickOn("#tool-segment");
    Waiting.type(robot, "#segment-grain", "25");
    robot.clickOn("#segment-run");
    window.waiting().results(4);
    Waiting.type(robot, "#segment-grain", "400");

    robot.clickOn("#tool-measure");
    menu(robot, "segment-2", "Make again with other settings");

    assertThat(robot.lookup("#segment-grain").queryAs(TextField.class).getText())
        .isEqualTo("25");
    Waiting.type(robot, "#segment-grain", "80");
    robot.clickOn("#segment-run");
    window.waiting().results(5);
    assertThat(workspace().results().getLast().settings()).containsEntry("grain", "80");
    assertThat(named("segment-2").settings()).containsEntry("grain", "25");
  }

  @Test
  void aNameThatWasTypedStaysAndResultsAreFoundByName(FxRobot robot) {
    made(robot);
    robot.clickOn("#stage-segment").clickOn("#tool-segment");
    Waiting.type(robot, "#segment-title", "Roofs of the north");
    robot.clickOn("#result-open").clickOn("#stage-segment").clickOn("#tool-segment");
    assertThat(robot.lookup("#segment-title").queryAs(TextField.class).getText())
        .isEqualTo("Roofs of the north");
    robot.clickOn("#segment-run");
    window.waiting().results(4);
    assertThat(titles()).contains("Roofs of the north");

    robot.clickOn("#picture").push(KeyCode.CONTROL, KeyCode.F).write("north");
    assertThat(robot.lookup("#result-segment-2").tryQuery()).isPresent();
    assertThat(robot.lookup("#result-segment").tryQuery()).isEmpty();
    robot.type(KeyCode.ESCAPE);
    assertThat(robot.lookup("#result-open").tryQuery()).isPresent();
  }

  @Test
  void runsThatWaitAreSeenMovedAndCancelled(FxRobot robot) throws Exception {
    made(robot);
    CountDownLatch held = new CountDownLatch(1);
    robot.interact(() -> workspace()
        .lanes()
        .run()
        .run(
            "Something long",
            job -> {
              try {
                return held.await(60, TimeUnit.SECONDS);
              } catch (InterruptedException stop) {
                throw new AssertionError(stop);
              }
            },
            done -> {},
            failure -> {}));
    robot.clickOn("#stage-segment").clickOn("#tool-segment");
    for (String title : List.of("One", "Two", "Three")) {
      Waiting.type(robot, "#segment-title", title);
      robot.clickOn("#segment-run");
    }
    window.waiting().until("the queue", () -> workspace().lanes().run().queue().size() == 4);
    assertThat(robot
            .lookup("#queue-shown")
            .queryAs(javafx.scene.control.ToggleButton.class)
            .getText())
        .isEqualTo("+3");

    robot.clickOn("#queue-shown");
    // Three before Two, and Two not at all
    robot.clickOn("#queue-up-3");
    window.waiting().until("the order", () -> queued().equals(List.of("One", "Three", "Two")));
    robot.clickOn("#queue-cancel-3");
    window.waiting().until("the rest", () -> queued().equals(List.of("One", "Three")));
    // a trial answers while the long run goes on
    robot.clickOn("#segment-try");
    window
        .waiting()
        .until(
            "the trial",
            () -> ((Shell) window.scene().getRoot()).picture().trials().isTried());
    assertThat(held.getCount()).isEqualTo(1);

    held.countDown();
    window.waiting().results(5);
    assertThat(titles()).endsWith("One", "Three");
  }

  private List<String> queued() {
    return workspace().lanes().run().queue().stream()
        .skip(1)
        .map(run -> run.title())
        .toList();
  }

  /** What the first screen was asked for. */
  private static final class Asked implements Doors {
    private final List<String> log = new ArrayList<>();

    @Override
    public void open(List<Path> paths) {
      log.add("open " + paths);
    }

    @Override
    public void begin(Path folder, String title) {
      log.add("begin " + folder + " as " + title);
    }

    @Override
    public void openDemo() {
      log.add("demo");
    }

    @Override
    public void leave() {
      log.add("leave");
    }
  }

  @Test
  void theFirstScreenOffersWhatWasOpenLastANewProjectAndTheDemo(FxRobot robot) throws IOException {
    made(robot);
    Path project = workspace().folder();
    robot.interact(() -> workspace().close());
    window.rest();
    assertThat(ProjectFile.isIn(project)).isTrue();
    assertThat(project.resolve("picture.png")).exists();
    Asked asked = new Asked();
    robot.interact(() -> {
      StartScreen start = new StartScreen(asked, folder.resolve("new"));
      Scene scene = new Scene(start, 1280, 800);
      start.listenTo(scene);
      stage.setScene(scene);
    });

    robot.clickOn("#recent-0");
    robot.clickOn("#start-demo");
    robot.clickOn("#start-create");
    assertThat(robot.lookup("#start-trouble").queryAs(Label.class).getText()).contains("name");
    robot.clickOn("#start-name").write("North shore").clickOn("#start-create");
    Files.createDirectories(folder.resolve("new").resolve("Taken"));
    robot.clickOn("#start-name").eraseText(20).write("Taken").clickOn("#start-create");

    assertThat(asked.log)
        .containsExactly(
            "open [" + project.toAbsolutePath() + "]",
            "demo",
            "begin " + folder.resolve("new").resolve("North shore") + " as North shore");
    assertThat(robot.lookup("#start-trouble").queryAs(Label.class).getText())
        .contains("there already");
    assertThat(robot.lookup("#recent-0").queryAs(Button.class).getTooltip().getText())
        .isEqualTo(project.toAbsolutePath().toString());
  }

  /** A sheet's own names and relative paths hold here, beside results that have those names already. */
  @Test
  void aRunSheetThatIsOpenedIsOfferedAndItsStepsAreRun(FxRobot robot) throws IOException {
    made(robot);
    Path sheet = Files.writeString(folder.resolve("sheet.json"), """
        {"title": "Fields", "variables": {"grain": "50"}, "steps": [
          {"name": "open", "title": "The scene again", "step": "open", "file": "scene.tif"},
          {"name": "objects", "title": "Finer", "step": "segment", "scene": "@open", "grain": "${grain}"}]}
        """);

    robot.interact(() -> Opening.into(workspace(), List.of(sheet)));
    window
        .waiting()
        .until("the offer", () -> OpenWindow.text(robot, "#message").contains("sheet.json"));
    assertThat(workspace().results()).hasSize(3);
    robot.clickOn("#remedy");
    window.waiting().results(5);

    assertThat(titles()).endsWith("The scene again", "Finer");
    Result finer = workspace().results().getLast();
    assertThat(finer.inputs().get("scene").title()).isEqualTo("The scene again");
    assertThat(finer.settings()).containsEntry("grain", "50");
    assertThat(named("open").title()).isEqualTo("scene");
  }

  @Test
  void moreFilesAreOpenedIntoTheProjectInHand(FxRobot robot) {
    made(robot);
    Path other = folder.resolve("other, with a comma.tif");
    SmallScene.write(other, 0.3, 1);

    robot.interact(() -> Opening.into(workspace(), List.of(other)));
    window.waiting().results(4);

    assertThat(titles()).endsWith("other, with a comma");
    assertThat(workspace().folder().getFileName()).hasToString("project");
  }
}
