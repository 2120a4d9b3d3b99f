package sharpkestrel.app.shell;

import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import sharpkestrel.app.plot.Inks;
import sharpkestrel.app.viewer.CursorReadout;
import sharpkestrel.app.viewer.PictureView;

/** Position, pixel size, values under the cursor, what is picked, and the zoom. */
public final class StatusBar extends HBox {

  private final Label position = mono();
  private final Label size = mono();
  private final Label picked = mono();
  private final Label values = mono();
  private final Canvas bars = new Canvas(70, 14);
  private final Inks inks = new Inks(() -> {}, "second");

  public StatusBar(PictureView picture) {
    getStyleClass().add("status-bar");
    setMinHeight(24);
    setPrefHeight(24);
    setMaxHeight(24);
    Label zoom = mono();
    zoom.textProperty().bind(picture.zoomTextProperty());
    Region gap = new Region();
    HBox.setHgrow(gap, Priority.ALWAYS);
    position.setId("position");
    values.setId("values");
    picked.setId("picked");
    position.setMinWidth(Region.USE_PREF_SIZE);
    getChildren().addAll(position, size, bars, values, picked, gap, zoom, inks);
    picture.onReadout(this::show);
  }

  private static Label mono() {
    Label label = new Label();
    label.getStyleClass().add("mono");
    return label;
  }

  public void showPicked(String text) {
    picked.setText(text);
  }

  private void show(CursorReadout.Readout readout) {
    position.setText(readout.position());
    size.setText(readout.pixelSize());
    float top = 1e-9f;
    StringBuilder text = new StringBuilder();
    for (float v : readout.values()) {
      top = Float.isNaN(v) ? top : Math.max(top, v);
      text.append(
          Float.isNaN(v)
              ? "\u2013 "
              : String.format(java.util.Locale.ROOT, v < 10 ? "%.3f " : "%.0f ", v));
    }
    values.setText(text.toString().strip());
    GraphicsContext g = bars.getGraphicsContext2D();
    g.clearRect(0, 0, bars.getWidth(), bars.getHeight());
    g.setFill(inks.of("second"));
    for (int b = 0; b < readout.values().length && b < 7; b++) {
      float v = readout.values()[b];
      double h = Float.isNaN(v) ? 0 : 14 * Math.max(0, v / top);
      g.fillRect(b * 10, 14 - h, 8, h);
    }
  }
}
