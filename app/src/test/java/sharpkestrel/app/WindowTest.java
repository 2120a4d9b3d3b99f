package sharpkestrel.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.Map;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.shape.MoveTo;
import javafx.scene.shape.Path;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;
import org.testfx.util.WaitForAsyncUtils;
import sharpkestrel.app.model.Display;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.segment.Cut;

/** What the window does with keys and mouse, on a small scene whose numbers are known. */
@ExtendWith(ApplicationExtension.class)
class WindowTest {

  private static final double FOLDED = 32;
  private static final double RESTING = 272;
  private static final double LIFTED = 560;

  @TempDir
  java.nio.file.Path folder;

  private Workspace workspace;
  private Scene scene;
  private Waiting waiting;
  private OpenWindow window;

  @Start
  void start(Stage stage) {
    window = OpenWindow.on(stage, folder, 60);
    workspace = window.workspace();
    scene = window.scene();
    waiting = window.waiting();
  }

  /** Opens a scene as the first result. */
  private void openScene(FxRobot robot, int times) {
    java.nio.file.Path file = folder.resolve("field.tif");
    SmallScene.write(file, 0.5, times);
    robot.interact(() -> workspace.run(
        StepCatalogue.get("clip"),
        "Field",
        Map.of(),
        new LinkedHashMap<>(Map.of("scene", file.toString())),
        Map.of()));
    waiting.results(1);
    window.waitForPicture();
  }

  private void segmentAndMeasure(FxRobot robot) {
    robot.clickOn("#stage-segment").clickOn("#segment-run");
    waiting.results(2);
    robot.clickOn("#tool-measure").clickOn("#measure-run");
    waiting.results(3);
  }

  private double benchHeight() {
    return scene.lookup(".bench").getBoundsInParent().getHeight();
  }

  /** Where a pixel of a scene of one field lies on the screen when all of it is shown. */
  private Point2D onScreen(double col, double row) {
    return window.onScreen(SmallScene.WIDTH, SmallScene.HEIGHT, col, row);
  }

  @Test
  void theBenchFoldsAndLiftsAndEscDropsIt(FxRobot robot) {
    openScene(robot, 1);
    double picture = scene.lookup("#picture").getBoundsInParent().getHeight();
    robot.clickOn("#picture");

    robot.type(KeyCode.P);
    assertThat(benchHeight()).isEqualTo(FOLDED);
    assertThat(scene.lookup("#picture").getBoundsInParent().getHeight())
        .isEqualTo(picture + RESTING - FOLDED);
    robot.type(KeyCode.E);
    assertThat(benchHeight()).isEqualTo(LIFTED);
    robot.type(KeyCode.ESCAPE);
    assertThat(benchHeight()).isEqualTo(RESTING);
    assertThat(scene.lookup("#picture").getBoundsInParent().getHeight()).isEqualTo(picture);
  }

  @Test
  void theListOfKeysComesByItsButtonAndGoesByEsc(FxRobot robot) {
    robot.clickOn("#help");
    assertThat(scene.lookup("#keys").isVisible()).isTrue();
    assertThat(robot.lookup("#keys .label").queryAllAs(Label.class))
        .extracting(Label::getText)
        .contains("R", "run the tool on all", "Ctrl Z", "undo", "Space and drag");

    robot.type(KeyCode.ESCAPE);
    assertThat(scene.lookup("#keys").isVisible()).isFalse();
  }

  @Test
  void keysAreSilentWhileATextIsEdited(FxRobot robot) {
    openScene(robot, 1);
    robot.clickOn("#stage-place");

    Waiting.type(robot, "#ortho-undulation", "rep47");

    assertThat(robot.lookup("#ortho-undulation").queryAs(TextField.class).getText())
        .isEqualTo("rep47");
    assertThat(benchHeight()).isEqualTo(RESTING);
    assertThat(workspace.results()).hasSize(1);
    assertThat(workspace.lanes().busyProperty().get()).isFalse();
  }

  @Test
  void rRunsTheToolInHandAndUndoAndRedoTakeItsResultAwayAndBack(FxRobot robot) {
    openScene(robot, 1);
    robot.clickOn("#stage-sharpen").clickOn("#tool-index").clickOn("#picture");

    robot.type(KeyCode.R);
    waiting.results(2);
    assertThat(workspace.display().paneAProperty().get().step().id()).isEqualTo("index");
    robot.push(KeyCode.CONTROL, KeyCode.Z);
    waiting.results(1);
    assertThat(workspace.display().paneAProperty().get().title()).isEqualTo("Field");
    robot.push(KeyCode.CONTROL, KeyCode.Y);
    waiting.results(2);
  }

  @Test
  void theCursorReadsPositionAndValues(FxRobot robot) {
    openScene(robot, 1);

    robot.moveTo(onScreen(72.5, 50.5));
    waiting.until("a readout", () -> OpenWindow.text(robot, "#position").startsWith("E"));

    // Column 72 and row 50: 36.25 m east and 25.25 m south of the corner; light 1 + 0.02 * 2.
    assertThat(OpenWindow.text(robot, "#position").replace("\u2009", ""))
        .contains("512036", "6701974");
    assertThat(OpenWindow.text(robot, "#values")).isEqualTo("0.520 0.520");
  }

  @Test
  void aPickedObjectIsTheChosenRowOfTheTableAndTheReverse(FxRobot robot) {
    openScene(robot, 1);
    segmentAndMeasure(robot);
    ObjectSet set = (ObjectSet) workspace.display().paneAProperty().get().value();

    robot.clickOn(onScreen(72.5, 50.5));
    waiting.until(
        "the roof picked", () -> workspace.display().selectedRowProperty().get() >= 0);
    int roof = workspace.display().selectedRowProperty().get();
    assertThat(set.table().values("red_mean")[roof]).isBetween(0.48, 0.52);
    long area = Math.round(set.table().values("area")[roof]);
    assertThat(OpenWindow.text(robot, "#picked"))
        .isEqualTo("object " + set.ids()[roof] + " \u00b7 " + area + " m²");
    assertThat(scene.lookup("#features").isVisible()).isTrue();

    robot.clickOn("#view-table");
    Node table = scene.lookup("#table");
    Bounds box = table.localToScreen(table.getBoundsInLocal());
    // The area's column is the first after the number; a click on its head sorts by it.
    robot.clickOn(box.getMinX() + 130, box.getMinY() + 10);
    robot.clickOn(box.getMinX() + 130, box.getMinY() + 30);
    double least = java.util.Arrays.stream(set.table().values("area")).min().orElseThrow();
    assertThat(
            set.table().values("area")[workspace.display().selectedRowProperty().get()])
        .isEqualTo(least);
  }

  @Test
  void anotherGrainMakesTheMeasuredStaleAndTheTrailMakesItAgain(FxRobot robot) {
    openScene(robot, 2);
    segmentAndMeasure(robot);
    robot.clickOn("#result-segment").clickOn("#tool-segment");

    Waiting.type(robot, "#grain-number", "4000");
    robot.type(KeyCode.ENTER).clickOn("#keep-grain");
    waiting.until("the offer", () -> scene.lookup("#remake-stale") != null);
    int objects = ((Cut) workspace.named("segment").orElseThrow().value()).objects();
    robot.clickOn("#remake-stale");
    waiting.until("fresh results", () -> scene.lookup("#remake-stale") == null);

    ObjectSet measured = (ObjectSet) workspace.named("measure").orElseThrow().value();
    assertThat(measured.count()).isEqualTo(objects);
    assertThat(workspace.maker().stale()).isEmpty();
  }

  @Test
  void aCancelledRunLeavesNothingBehind(FxRobot robot) {
    openScene(robot, 12);
    robot.clickOn("#stage-segment").clickOn("#segment-run");
    waiting.until("the run", () -> workspace.lanes().busyProperty().get());

    robot.clickOn("#cancel-task");
    waiting.until("its end", () -> !workspace.lanes().busyProperty().get());

    assertThat(workspace.results()).hasSize(1);
    assertThat(workspace.messages().textProperty().get()).isEmpty();
  }

  @Test
  void handlesOfATestStandWhereItsNumbersSay(FxRobot robot) {
    openScene(robot, 1);
    segmentAndMeasure(robot);
    robot.clickOn("#stage-extract");
    ObjectSet set = (ObjectSet) workspace.named("measure").orElseThrow().value();
    double from = set.table().quantile("red_mean", 0.005);
    double to = set.table().quantile("red_mean", 0.995);
    double middle = (from + to) / 2;

    Waiting.type(robot, "#winnow-text", "red_mean >= " + middle);
    robot.type(KeyCode.ENTER);
    waiting.until("the test", () -> scene.lookup("#histogram-red_mean") != null);
    Node histogram = scene.lookup("#histogram-red_mean");
    Bounds box = histogram.localToScreen(histogram.getBoundsInLocal());
    robot
        .drag(box.getCenterX(), box.getMinY() + 30, MouseButton.PRIMARY)
        .dropTo(box.getMinX(), box.getMinY() + 30);

    // Dragged off the end of the axis, the handle bounds nothing any more.
    assertThat(OpenWindow.text(robot, "#survivors")).isEqualTo(Integer.toString(set.count()));
  }

  @Test
  void aWrongSettingIsSaidAndNothingIsMade(FxRobot robot) {
    openScene(robot, 1);
    robot.clickOn("#stage-segment");

    Waiting.type(robot, "#segment-grain", "fine");
    robot.clickOn("#segment-run");
    waiting.until("a message", () -> !workspace.messages().textProperty().get().isEmpty());

    assertThat(OpenWindow.text(robot, "#message")).contains("fine");
    assertThat(workspace.results()).hasSize(1);
  }

  @Test
  void keysSwipeSwapAndSetSideBySide(FxRobot robot) {
    openScene(robot, 1);
    robot.clickOn("#stage-sharpen").clickOn("#tool-index").clickOn("#index-run");
    waiting.results(2);

    robot.clickOn("#picture").type(KeyCode.W);
    assertThat(workspace.display().compareProperty().get()).isEqualTo(Display.Compare.SWIPE);
    assertThat(workspace.display().paneBProperty().get().title()).isEqualTo("Field");
    robot.type(KeyCode.X);
    assertThat(workspace.display().paneAProperty().get().title()).isEqualTo("Field");
    assertThat(workspace.display().paneBProperty().get().step().id()).isEqualTo("index");
    robot.type(KeyCode.S);
    assertThat(workspace.display().compareProperty().get()).isEqualTo(Display.Compare.SIDE_BY_SIDE);
  }

  @Test
  void theThemeTurnsDarkAndLightAgain(FxRobot robot) {
    robot.clickOn("#theme");
    assertThat(scene.getRoot().getStyleClass()).contains("dark");
    robot.clickOn("#theme");
    assertThat(scene.getRoot().getStyleClass()).doesNotContain("dark");
  }

  @Test
  void aMessageGoesWhenTheNextRunBeginsAndByEsc(FxRobot robot) {
    openScene(robot, 1);
    robot.clickOn("#stage-segment");
    Waiting.type(robot, "#segment-grain", "fine");
    robot.clickOn("#segment-run");
    waiting.until("a message", () -> isSeen("#message"));

    Waiting.type(robot, "#segment-grain", "60");
    robot.clickOn("#segment-run");
    waiting.results(2);
    assertThat(isSeen("#message")).isFalse();

    Waiting.type(robot, "#segment-grain", "fine");
    robot.clickOn("#segment-run");
    waiting.until("the same message again", () -> isSeen("#message"));
    robot.clickOn("#picture").type(KeyCode.ESCAPE);
    assertThat(isSeen("#message")).isFalse();
  }

  private boolean isSeen(String label) {
    return scene.lookup(label).getParent().isVisible();
  }

  @Test
  void theReadoutFollowsWhatIsShownUnderACursorAtRest(FxRobot robot) {
    openScene(robot, 1);
    robot.clickOn("#stage-sharpen").clickOn("#tool-index").clickOn(onScreen(10.5, 10.5));
    waiting.until("two values", () -> OpenWindow.text(robot, "#values").split(" ").length == 2);

    robot.type(KeyCode.R);
    waiting.results(2);

    // The vegetation index of 0.05 and 0.4, whatever light falls on both.
    waiting.until("one value", () -> OpenWindow.text(robot, "#values").equals("0.778"));
  }

  @Test
  void theTrailDrawsALineToWhatAResultWasMadeFrom(FxRobot robot) {
    openScene(robot, 1);
    Path line = (Path) scene.lookup(".lineage");
    assertThat(line.getElements()).isEmpty();

    segmentAndMeasure(robot);
    WaitForAsyncUtils.waitForFxEvents();
    waiting.until("the line", () -> !line.getElements().isEmpty());

    double objects = scene.lookup("#result-segment").getBoundsInParent().getCenterY();
    double field = scene.lookup("#result-clip").getBoundsInParent().getCenterY();
    assertThat(line.getElements())
        .filteredOn(e -> e instanceof MoveTo)
        .extracting(e -> ((MoveTo) e).getY())
        .contains(field, objects);
  }

  @AfterEach
  void restBeforeTheFolderGoes() {
    window.rest();
  }
}
