package sharpkestrel.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.time.Instant;
import java.util.List;
import java.util.Map;
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
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;

/** The stage Sharpen in a real window: methods in numbers, trials, thresholds, profiles, grey levels. */
@ExtendWith(ApplicationExtension.class)
class SharpenWindowTest extends TownWindow {

  @Start
  void start(Stage stage) {
    begin(stage);
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

    robot.clickOn("#pansharpen-four");
    window
        .waiting()
        .until(
            "the best four",
            () -> robot.lookup(".variant-tag").queryAll().stream().allMatch(Node::isVisible));
    List<String> best = table.getChildren().stream()
        .filter(node -> node.getId() != null)
        .map(node -> "Method " + node.getId().substring("rating-".length()).replace('_', ' '))
        .toList();
    assertThat(robot.lookup(".variant-tag").queryAllAs(Label.class))
        .extracting(Label::getText)
        .containsExactlyElementsOf(best.subList(0, 4));

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

  private static Attachments takenAt(String time) {
    return Attachments.NONE.with(
        Acquisition.class, new Acquisition(Instant.parse(time), 40, 160, 5, 90, Map.of()));
  }

  @Test
  void scenesOfOnePassAreOfferedTogetherAndThoseOfAResultWithIt(FxRobot robot) {
    Attachments april = takenAt("2031-04-15T11:11:07Z");
    BandRole[] roles = {BandRole.BLUE, BandRole.GREEN, BandRole.RED, BandRole.NEAR_INFRARED};
    open("Pan", april, 4 * COARSE, 0.5, BandRole.PAN);
    open("Bands", april, COARSE, 2, roles);
    open("Later", takenAt("2031-06-11T10:14:01Z"), COARSE, 2, roles);
    robot.interact(() -> workspace().display().show(workspace().results().get(0)));
    window.waitForPicture();
    robot.clickOn("#stage-sharpen");
    settle(robot);
    ComboBox<?> bands = robot.lookup("#pansharpen-multispectral").queryComboBox();
    assertThat(bands.getValue()).hasToString("Bands");

    robot.interact(() -> bands.getSelectionModel().select(0));
    assertThat(bands.getValue()).hasToString("Later");
    robot.clickOn("#pansharpen-run");
    window.waiting().results(4);
    assertThat(workspace().messages().warningProperty().get()).contains("2031-06-11");
    robot.interact(() -> workspace().display().show(workspace().results().get(1)));
    window.waitForPicture();
    assertThat(bands.getValue()).hasToString("Bands");
    robot.interact(() -> workspace().display().show(workspace().results().get(3)));
    window.waitForPicture();
    assertThat(bands.getValue()).hasToString("Later");
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
            () -> Files.isRegularFile(folder.resolve("project/hand/profiles.jsonl")));
    window
        .waiting()
        .until("best bands", () -> robot.lookup("#best-0").tryQuery().isPresent());
    settle(robot);
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
