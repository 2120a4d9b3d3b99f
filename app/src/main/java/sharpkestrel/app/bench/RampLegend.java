package sharpkestrel.app.bench;

import java.util.Locale;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.image.ImageView;
import javafx.scene.image.WritableImage;
import javafx.scene.layout.HBox;
import sharpkestrel.app.viewer.Ramp;

/** The colours of a feature from its lower to its upper end, with both numbers; hidden while nothing is coloured. */
final class RampLegend extends HBox {

  private static final int WIDTH = 140;
  private static final int HEIGHT = 10;

  private final Label low = new Label();
  private final Label high = new Label();

  RampLegend() {
    super(6);
    setAlignment(Pos.CENTER_LEFT);
    setId("ramp-legend");
    low.getStyleClass().add("mono");
    high.getStyleClass().add("mono");
    WritableImage image = new WritableImage(WIDTH, HEIGHT);
    for (int x = 0; x < WIDTH; x++) {
      for (int y = 0; y < HEIGHT; y++) {
        image.getPixelWriter().setArgb(x, y, Ramp.colour(x / (WIDTH - 1.0)));
      }
    }
    getChildren().addAll(low, new ImageView(image), high);
    hide();
  }

  void show(double from, double to, String unit) {
    low.setText(String.format(Locale.ROOT, "\u2264 %.4g", from));
    high.setText(String.format(Locale.ROOT, "\u2265 %.4g %s", to, unit).strip());
    setVisible(true);
  }

  void hide() {
    setVisible(false);
  }
}
