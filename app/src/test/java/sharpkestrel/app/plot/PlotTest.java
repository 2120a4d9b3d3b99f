package sharpkestrel.app.plot;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import javafx.geometry.Point2D;
import javafx.scene.Scene;
import javafx.scene.image.Image;
import javafx.scene.input.Clipboard;
import javafx.scene.input.MouseButton;
import javafx.scene.layout.StackPane;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;
import org.testfx.util.WaitForAsyncUtils;
import sharpkestrel.app.Wheel;

/** A histogram by the mouse: what all plots share. */
@ExtendWith(ApplicationExtension.class)
class PlotTest {

  private static final int COUNT = 10_000;

  private HistogramBox box;
  private double low = Double.NEGATIVE_INFINITY;
  private double high = 60;
  private double[] values;

  @Start
  void start(Stage stage) {
    box = new HistogramBox(300, 100);
    values = new Random(4).doubles(COUNT, 0, 100).toArray();
    box.onMoved((newLow, newHigh) -> {
      low = newLow;
      high = newHigh;
      show();
    });
    show();
    Scene scene = new Scene(new StackPane(box), 320, 140);
    for (String sheet : List.of("tokens.css", "shell.css")) {
      scene
          .getStylesheets()
          .add(getClass().getResource("/sharpkestrel/app/" + sheet).toString());
    }
    stage.setScene(scene);
    stage.show();
  }

  private void show() {
    box.show(values, new int[COUNT], 0, 0, 100, "m", low, high);
  }

  private Point2D at(double value) {
    return box.localToScreen(box.across().at(value), 50);
  }

  @Test
  void aHandleIsDraggedAndItsValueReadOut(FxRobot robot) {
    robot.drag(at(60)).moveTo(at(42));

    assertThat(box.getAccessibleText()).startsWith("42").endsWith("m");
    robot.drop();
    assertThat(high).isCloseTo(42, within(0.5));
    assertThat(low).isEqualTo(Double.NEGATIVE_INFINITY);
  }

  @Test
  void whatLiesUnderTheMouseIsCounted(FxRobot robot) {
    robot.moveTo(at(51));

    double width = 100 / 48.0;
    int bin = (int) (51 / width);
    long expected =
        java.util.Arrays.stream(values).filter(v -> (int) (v / width) == bin).count();
    assertThat(box.getAccessibleText()).endsWith(": " + expected);
  }

  @Test
  void theWheelZoomsAtTheCursorAndADoubleClickShowsAllAgain(FxRobot robot) {
    Wheel.turn(box, at(50), 5);
    double share = (box.across().to() - box.across().from()) / 100;

    assertThat(share).isCloseTo(Math.pow(0.8, 5), within(1e-6));
    assertThat(box.across().value(box.across().at(50))).isCloseTo(50, within(1e-6));
    double handle = box.across().at(60);
    assertThat(handle).isGreaterThan(7 + 286 * 0.6 + 20);

    robot.doubleClickOn(at(50));
    WaitForAsyncUtils.waitForFxEvents();
    assertThat(box.isZoomed()).isFalse();
  }

  @Test
  void itIsCopiedAsAPictureOfTwiceItsSize(FxRobot robot) throws Exception {
    robot.clickOn(at(30), MouseButton.SECONDARY);
    robot.clickOn("#plot-copy");

    Image copied = WaitForAsyncUtils.asyncFx(
            () -> Clipboard.getSystemClipboard().getImage())
        .get();
    assertThat(copied.getWidth()).isEqualTo(600);
    assertThat(copied.getHeight()).isEqualTo(200);
    int bar = copied.getPixelReader().getArgb(2 * 40, 2 * 70);
    int above = copied.getPixelReader().getArgb(2 * 40, 2);
    assertThat(bar).isNotEqualTo(above);
  }
}
