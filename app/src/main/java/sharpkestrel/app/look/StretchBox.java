package sharpkestrel.app.look;

import java.util.Arrays;
import java.util.function.Consumer;
import javafx.geometry.Insets;
import javafx.scene.Cursor;
import javafx.scene.canvas.GraphicsContext;
import sharpkestrel.app.model.StretchRule;
import sharpkestrel.app.plot.Axis;
import sharpkestrel.app.plot.Plot;
import sharpkestrel.app.viewer.StretchSample;

/**
 * Histograms of the three channels over each other, each with a handle at either end of its stretch. Handles of channels that
 * share their ends move together.
 */
final class StretchBox extends Plot {

  private static final int BINS = 120;
  private static final double PAD = 8;
  private static final double FOOT = 34;
  private static final double HANDLES = 18;
  private static final double NEAR = 7;
  private static final double ROOM = 0.12;
  private static final String[] INKS = {"red", "green", "blue"};

  private StretchSample sample;
  private double[] low = new double[3];
  private double[] high = {1, 1, 1};
  private int channels = 3;
  private boolean linked;
  private int grabbed = -1;
  private Consumer<StretchRule.Ends> moved = ends -> {};

  StretchBox(double width, double height) {
    super(width, height, new Insets(4, PAD, FOOT, PAD), INKS);
    setAcross(0, 1, false, "");
    setId("stretch-box");
  }

  @Override
  protected void hover(double x, double y) {
    setCursor(near(x, y) >= 0 ? Cursor.H_RESIZE : Cursor.DEFAULT);
  }

  @Override
  protected void press(double x, double y) {
    grabbed = near(x, y);
  }

  @Override
  protected void release(double x, double y) {
    grabbed = -1;
  }

  @Override
  protected String under(double x, double y) {
    if (sample == null) {
      return "";
    }
    double end =
        grabbed < 0 ? across().value(x) : grabbed % 2 == 0 ? low[grabbed / 2] : high[grabbed / 2];
    return across().readOut(end);
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
        from = Math.min(from, sample.quantile(c, Axis.TAIL));
        to = Math.max(to, sample.quantile(c, 1 - Axis.TAIL));
      }
      setAcross(Axis.around(from, to, ROOM, left(), right(), ""));
    }
    low = ends.low().clone();
    high = ends.high().clone();
    channels = oneBand ? 1 : 3;
    linked = newLinked;
    draw();
  }

  private double handleY(int c) {
    return foot() + HANDLES + (channels == 1 ? 4 : 5 * c);
  }

  /** The handle under a place, twice the channel and one more for its upper end; -1 for none. */
  private int near(double px, double py) {
    int best = -1;
    double nearest = NEAR * NEAR;
    for (int c = 0; c < channels; c++) {
      for (int end = 0; end < 2; end++) {
        double dx = px - across().within(end == 0 ? low[c] : high[c]);
        double dy = py < foot() ? 0 : (py - handleY(c)) * 0.7;
        double away = dx * dx + dy * dy;
        if (away < nearest) {
          nearest = away;
          best = 2 * c + end;
        }
      }
    }
    return best;
  }

  @Override
  protected void drag(double px, double py) {
    if (grabbed < 0) {
      return;
    }
    double v = across().value(px);
    double least = (across().to() - across().from()) / 1000;
    for (int c = 0; c < 3; c++) {
      if (channels == 1 || linked || c == grabbed / 2) {
        if (grabbed % 2 == 0) {
          low[c] = Math.min(v, high[c] - least);
        } else {
          high[c] = Math.max(v, low[c] + least);
        }
      }
    }
    moved.accept(new StretchRule.Ends(low.clone(), high.clone()));
  }

  @Override
  protected void paint(GraphicsContext g) {
    for (int c = 0; c < channels && sample != null; c++) {
      g.setFill(inks().of(channels == 1 ? "soft" : INKS[c]));
      g.setGlobalAlpha(channels == 1 ? 0.8 : 0.45);
      long[] counts = sample.histogram(c, across().from(), across().to(), BINS);
      bars(g, counts, Arrays.stream(counts).max().orElse(1), 0);
    }
  }

  @Override
  protected void paintOver(GraphicsContext g) {
    for (int c = 0; c < channels && sample != null; c++) {
      for (int end = 0; end < 2; end++) {
        double x = Math.rint(across().within(end == 0 ? low[c] : high[c])) + 0.5;
        g.setStroke(inks().of(channels == 1 ? "text" : INKS[c]));
        g.setLineWidth(1.4);
        g.strokeLine(x, 2, x, handleY(c));
        g.setFill(inks().of("card"));
        g.fillOval(x - 4, handleY(c) - 4, 8, 8);
        g.strokeOval(x - 4, handleY(c) - 4, 8, 8);
      }
    }
  }
}
