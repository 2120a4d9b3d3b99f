package sharpkestrel.app;

import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.BooleanSupplier;
import javafx.scene.input.KeyCode;
import org.testfx.api.FxRobot;
import org.testfx.util.WaitForAsyncUtils;
import sharpkestrel.app.model.Workspace;

/** Waits for what the window is to show, as a person does, and types as one. */
public final class Waiting {

  private final Workspace workspace;
  private final int seconds;

  public Waiting(Workspace workspace, int seconds) {
    this.workspace = workspace;
    this.seconds = seconds;
  }

  /**
   * Waits until something holds, which is asked on the interface thread, as what it looks at changes there; says what did not
   * happen, and what the window said, where it never does.
   */
  public void until(String what, BooleanSupplier ready) {
    try {
      WaitForAsyncUtils.waitFor(
          seconds,
          TimeUnit.SECONDS,
          () -> WaitForAsyncUtils.asyncFx(ready::getAsBoolean).get(seconds, TimeUnit.SECONDS));
    } catch (TimeoutException late) {
      throw new AssertionError(
          what + " did not happen; message: '"
              + workspace.messages().textProperty().get() + "'",
          late);
    }
    WaitForAsyncUtils.waitForFxEvents();
  }

  /** Waits until there are so many results and nothing runs. */
  public void results(int count) {
    until(
        count + " results",
        () -> workspace.results().size() == count
            && !workspace.lanes().busyProperty().get());
  }

  /** Puts a text in place of a field's. */
  public static void type(FxRobot robot, String field, String text) {
    robot.clickOn(field).push(KeyCode.CONTROL, KeyCode.A).write(text);
  }
}
