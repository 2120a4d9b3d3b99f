package sharpkestrel.app;

import javafx.event.Event;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.input.PickResult;
import javafx.scene.input.ScrollEvent;
import javafx.scene.input.ScrollEvent.HorizontalTextScrollUnits;
import javafx.scene.input.ScrollEvent.VerticalTextScrollUnits;
import org.testfx.util.WaitForAsyncUtils;

/** The mouse's wheel, which the robot of a window without a display does not turn. */
public final class Wheel {

  private static final double NOTCH = 40;

  private Wheel() {}

  /**
   * @param screen where the mouse is
   * @param notches above 0 away from the hand
   */
  public static void turn(Node node, Point2D screen, int notches) {
    Point2D at = node.screenToLocal(screen);
    for (int k = 0; k < Math.abs(notches); k++) {
      ScrollEvent event = new ScrollEvent(
          ScrollEvent.SCROLL,
          at.getX(),
          at.getY(),
          screen.getX(),
          screen.getY(),
          false,
          false,
          false,
          false,
          true,
          false,
          0,
          Math.signum(notches) * NOTCH,
          0,
          0,
          HorizontalTextScrollUnits.NONE,
          0,
          VerticalTextScrollUnits.NONE,
          0,
          0,
          new PickResult(node, at.getX(), at.getY()));
      WaitForAsyncUtils.asyncFx(() -> Event.fireEvent(node, event));
    }
    WaitForAsyncUtils.waitForFxEvents();
  }
}
