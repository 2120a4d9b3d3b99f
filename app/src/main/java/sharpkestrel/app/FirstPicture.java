package sharpkestrel.app;

import java.util.Locale;
import javafx.animation.AnimationTimer;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.util.Duration;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.viewer.PictureView;

/**
 * Measures a cold start: from the launcher's first line ({@code -Dkestrel.launched}, in seconds since 1970) to the first
 * frame whose visible tiles are all drawn. Says so on the error stream, and ends the application when the demo's raw
 * scenes are there and the controls are warm, too ({@code -Dkestrel.timing=true}).
 */
final class FirstPicture {

  private FirstPicture() {}

  static void report(PictureView picture, Workspace workspace) {
    double launched = Double.parseDouble(System.getProperty("kestrel.launched", "0"));
    new AnimationTimer() {
      private boolean told;

      @Override
      public void handle(long now) {
        if (!picture.isComplete()) {
          return;
        }
        if (!told) {
          System.err.printf(
              Locale.ROOT,
              "kestrel: first picture after %.2f s%n",
              System.currentTimeMillis() / 1000.0 - launched);
          told = true;
        }
        if (workspace.results().size() >= 2) {
          stop();
          PauseTransition rest = new PauseTransition(Duration.seconds(5));
          rest.setOnFinished(e -> Platform.exit());
          rest.play();
        }
      }
    }.start();
  }
}
