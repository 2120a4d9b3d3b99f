package sharpkestrel.app.look;

import java.util.function.Consumer;
import javafx.scene.Cursor;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.Pane;
import sharpkestrel.app.model.StretchRule;
import sharpkestrel.app.plot.Inks;
import sharpkestrel.app.plot.ValueAxis;
import sharpkestrel.app.viewer.StretchSample;

/**
 * Histograms of the three channels over each other, each with a handle at either end of its stretch. Handles of channels that
 * share their ends move together.
 */
final class StretchBox extends Pane {

  private static final int BINS = 120;
  private static final double PAD = 8;
  private static final double FOOT = 22;
  private static final double NEAR = 7;
  private static final double ROOM = 0.12;
  private static final String[] INKS = {"red", "green", "blue"};

  private final Canvas canvas;
  private final Inks inks = new Inks(this::draw, "red", "green", "blue", "soft", "text", "card");
  private StretchSample sample;
  private double[] low = new double[3];
  private double[] high = {1, 1, 1};
  private int channels = 3;
  private boolean linked;
  private ValueAxis axis;
  private int grabbed = -1;
  private Consumer<StretchRule.Ends> moved = ends -> {};

  StretchBox(double width, double height) {
    canvas = new Canvas(width, height);
    axis = new ValueAxis(0, 1, PAD, width);
    setId("stretch-box");
    setPrefSize(width, height);
    setMaxSize(USE_PREF_SIZE, USE_PREF_SIZE);
    getChildren().addAll(canvas, inks);
    setOnMouseMoved(
        e -> setCursor(near(e.getX(), e.getY()) >= 0 ? Cursor.H_RESIZE : Cursor.DEFAULT));
    setOnMousePressed(e -> grabbed = near(e.getX(), e.getY()));
    setOnMouseDragged(e -> drag(e.getX()));
    setOnMouseReleased(e -> grabbed = -1);
  }

  void onMoved(Consumer<StretchRule.Ends> listener) {
    moved = listener;
  }

  /**
   * @param oneBand whether all channels show one band
   * @param newLinked whether they share their ends
   */
  void show(StretchSample newSample, StretchRule.Ends ends, boolean oneBand, boolean newLinked) {
    if (newSample != sample) {
      sample = newSample;
      double from = Double.POSITIVE_INFINITY;
      double to = Double.NEGATIVE_INFINITY;
      for (int c = 0; c < 3; c++) {
        from = Math.min(from, sample.quantile(c, ValueAxis.TAIL));
        to = Math.max(to, sample.quantile(c, 1 - ValueAxis.TAIL));
      }
      axis = ValueAxis.around(from, to, ROOM, PAD, canvas.getWidth());
    }
    low = ends.low().clone();
    high = ends.high().clone();
    channels = oneBand ? 1 : 3;
    linked = newLinked;
    draw();
  }

  private double handleY(int c) {
    return canvas.getHeight() - FOOT + 4 + (channels == 1 ? 4 : 5 * c);
  }

  /** The handle under a place, twice the channel and one more for its upper end; -1 for none. */
  private int near(double px, double py) {
    int best = -1;
    double nearest = NEAR * NEAR;
    for (int c = 0; c < channels; c++) {
      for (int end = 0; end < 2; end++) {
        double dx = px - axis.x(end == 0 ? low[c] : high[c]);
        double dy = py < canvas.getHeight() - FOOT ? 0 : (py - handleY(c)) * 0.7;
        double away = dx * dx + dy * dy;
        if (away < nearest) {
          nearest = away;
          best = 2 * c + end;
        }
      }
    }
    return best;
  }

  private void drag(double px) {
    if (grabbed < 0) {
      return;
    }
    double v = axis.value(px);
    double least = (axis.to() - axis.from()) / 1000;
    for (int c = 0; c < 3; c++) {
      if (channels == 1 || linked || c == grabbed / 2) {
        if (grabbed % 2 == 0) {
          low[c] = Math.min(v, high[c] - least);
        } else {
          high[c] = Math.max(v, low[c] + least);
        }
      }
    }
    draw();
    moved.accept(new StretchRule.Ends(low.clone(), high.clone()));
  }

  private void draw() {
    GraphicsContext g = canvas.getGraphicsContext2D();
    double w = canvas.getWidth();
    double h = canvas.getHeight() - FOOT;
    g.clearRect(0, 0, w, canvas.getHeight());
    if (sample == null) {
      return;
    }
    for (int c = 0; c < channels; c++) {
      g.setFill(inks.of(channels == 1 ? "soft" : INKS[c]));
      g.setGlobalAlpha(channels == 1 ? 0.8 : 0.45);
      axis.bars(g, sample.histogram(c, axis.from(), axis.to(), BINS), h, h - 4);
    }
    g.setGlobalAlpha(1);
    g.setStroke(inks.of("soft"));
    g.setLineWidth(1);
    g.strokeLine(PAD, h + 0.5, w - PAD, h + 0.5);
    for (int c = 0; c < channels; c++) {
      for (int end = 0; end < 2; end++) {
        double x = Math.rint(axis.x(end == 0 ? low[c] : high[c])) + 0.5;
        g.setStroke(inks.of(channels == 1 ? "text" : INKS[c]));
        g.setLineWidth(1.4);
        g.strokeLine(x, 2, x, handleY(c));
        g.setFill(inks.of("card"));
        g.fillOval(x - 4, handleY(c) - 4, 8, 8);
        g.strokeOval(x - 4, handleY(c) - 4, 8, 8);
      }
    }
  }
}
