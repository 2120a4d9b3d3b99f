package sharpkestrel.app;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.stage.Stage;
import org.testfx.api.FxRobot;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.project.ProjectFile;
import sharpkestrel.app.shell.Shell;
import sharpkestrel.app.work.RunLane;

/** A window with a new project in it, as tests drive it. */
record OpenWindow(Workspace workspace, Scene scene, Waiting waiting) {

  /**
   * @param folder in which the project is begun
   * @param patience seconds that anything may take
   */
  static OpenWindow on(Stage stage, Path folder, int patience) {
    Workspace workspace = new Workspace();
    ProjectFile.begin(workspace, folder.resolve("project"));
    Scene scene = KestrelApp.scene(workspace);
    stage.setScene(scene);
    stage.show();
    return new OpenWindow(workspace, scene, new Waiting(workspace, patience));
  }

  /** Waits until all that was queued is done, so that nothing is written to the project's folder any more. */
  void rest() {
    for (RunLane lane : List.of(workspace.lanes().run(), workspace.lanes().keeping())) {
      for (int round = 0; round < 2; round++) {
        CountDownLatch done = new CountDownLatch(1);
        lane.cancel();
        lane.afterAll(done::countDown);
        try {
          if (!done.await(60, TimeUnit.SECONDS)) {
            throw new IllegalStateException("the window's work does not end");
          }
        } catch (InterruptedException stopped) {
          Thread.currentThread().interrupt();
          return;
        }
      }
    }
    waiting.until("rest", () -> workspace.lanes().save().isAtRest());
    if (!workspace.lanes().save().flush(Duration.ofSeconds(60))) {
      throw new IllegalStateException("the window's writing does not end");
    }
  }

  /** Waits until all of the picture is drawn. */
  void waitForPicture() {
    waiting.until("the picture", () -> ((Shell) scene.getRoot()).picture().isComplete());
  }

  static String text(FxRobot robot, String label) {
    return robot.lookup(label).queryAs(Label.class).getText();
  }

  /** Where a pixel of a raster lies on the screen when all of it is shown. */
  Point2D onScreen(int width, int height, double col, double row) {
    Node picture = scene.lookup("#picture");
    Bounds box = picture.localToScreen(picture.getBoundsInLocal());
    double scale = Math.min(box.getWidth() / width, box.getHeight() / height);
    return new Point2D(
        box.getCenterX() + (col - width / 2.0) * scale,
        box.getCenterY() + (row - height / 2.0) * scale);
  }
}
