package sharpkestrel.app.plot;

import java.util.List;
import java.util.Locale;
import java.util.function.BiConsumer;
import javafx.geometry.Insets;
import javafx.scene.Cursor;
import javafx.scene.canvas.GraphicsContext;
import sharpkestrel.app.viewer.Palette;

/** A histogram of those who come in, those who pass coloured, between two handles that can be dragged. */
public final class HistogramBox extends Plot {

  private static final int BINS = 48;
  private static final double PAD = 7;
  private static final double REACH = 10;

  private List<boolean[]> groups = List.of();
  private double[] values = new double[0];
  private int[] failedAt = new int[0];
  private int test;
  private double low = Double.NEGATIVE_INFINITY;
  private double high = Double.POSITIVE_INFINITY;
  private int grabbed;
  private BiConsumer<Double, Double> moved = (l, h) -> {};
  private Runnable let = () -> {};

  public HistogramBox(double width, double height) {
    super(width, height, new Insets(6, PAD, 17, PAD));
    setAcross(0, 1, false, "");
  }

  @Override
  protected void hover(double x, double y) {
    setCursor(near(x) != 0 ? Cursor.H_RESIZE : Cursor.DEFAULT);
  }

  @Override
  protected void press(double x, double y) {
    grabbed = near(x);
  }

  @Override
  protected void drag(double x, double y) {
    if (grabbed == 0) {
      return;
    }
    double v = across().rounded(x);
    if (grabbed < 0) {
      low = x <= left() && !isZoomed() ? Double.NEGATIVE_INFINITY : Math.min(v, high);
    } else {
      high = x >= right() && !isZoomed() ? Double.POSITIVE_INFINITY : Math.max(v, low);
    }
    moved.accept(low, high);
  }

  @Override
  protected void release(double x, double y) {
    if (grabbed != 0) {
      let.run();
    }
    grabbed = 0;
  }

  private int near(double x) {
    double toLow = Math.abs(x - place(low, true));
    double toHigh = Math.abs(x - place(high, false));
    if (Math.min(toLow, toHigh) > REACH) {
      return 0;
    }
    return toLow == toHigh ? (x > (left() + right()) / 2 ? 1 : -1) : toLow < toHigh ? -1 : 1;
  }

  private double place(double value, boolean left) {
    return across()
        .within(Double.isInfinite(value) ? (left ? across().from() : across().to()) : value);
  }

  public void onMoved(BiConsumer<Double, Double> listener) {
    moved = listener;
  }

  public void onLetGo(Runnable listener) {
    let = listener;
  }

  /**
   * @param newFailedAt for each value the place of the first test it fails; values that fail before this one are
   *     left out
   * @param newTest place of this test
   * @param from value at the left end of the axis
   * @param unit of the values; empty for none
   */
  public void show(
      double[] newValues,
      int[] newFailedAt,
      int newTest,
      double from,
      double to,
      String unit,
      double newLow,
      double newHigh) {
    values = newValues;
    failedAt = newFailedAt;
    test = newTest;
    double start = Double.isFinite(from) ? from : 0;
    setAcross(start, Double.isFinite(to) && to > start ? to : start + 1, false, unit);
    low = newLow;
    high = newHigh;
    draw();
  }

  /** Draws the shares of groups of the values as lines over the bars, in the colours of their places. */
  public void over(List<boolean[]> newGroups) {
    groups = newGroups;
    draw();
  }

  /** The bar of a value, those beyond the ends of the whole axis in the outermost; -1 for one that is out of sight. */
  private int bin(double value) {
    if (isZoomed() && !across().holds(value)) {
      return -1;
    }
    double share = (value - across().from()) / (across().to() - across().from());
    return (int) Math.max(0, Math.min(BINS - 1.0, share * BINS));
  }

  private boolean isIn(int i) {
    return failedAt[i] >= test && !Double.isNaN(values[i]);
  }

  @Override
  protected String under(double x, double y) {
    if (grabbed != 0 || values.length == 0) {
      double end = grabbed < 0 ? low : high;
      return values.length == 0 || Double.isInfinite(end) ? "" : across().readOut(end);
    }
    double from = across().value(left() + binOf(x) * (right() - left()) / BINS);
    double to = across().value(left() + (binOf(x) + 1) * (right() - left()) / BINS);
    long count = 0;
    for (int i = 0; i < values.length; i++) {
      count += isIn(i) && bin(values[i]) == binOf(x) ? 1 : 0;
    }
    return String.format(
        Locale.ROOT,
        "%s \u2013 %s: %,d",
        across().readOut(from).split(" ")[0],
        across().readOut(to),
        count);
  }

  private int binOf(double x) {
    return (int) Math.max(0, Math.min(BINS - 1.0, BINS * (x - left()) / (right() - left())));
  }

  @Override
  protected void paint(GraphicsContext g) {
    long[] all = new long[BINS];
    long[] kept = new long[BINS];
    long top = 1;
    for (int i = 0; i < values.length; i++) {
      int bin = isIn(i) ? bin(values[i]) : -1;
      if (bin >= 0) {
        all[bin]++;
        kept[bin] += values[i] >= low && values[i] <= high ? 1 : 0;
        top = Math.max(top, all[bin]);
      }
    }
    g.setFill(inks().of("left-out"));
    bars(g, all, top, 1);
    g.setFill(inks().of("accent"));
    bars(g, kept, top, 1);
    for (int k = 0; k < groups.size(); k++) {
      drawGroup(g, k);
    }
  }

  private void drawGroup(GraphicsContext g, int group) {
    int[] counts = new int[BINS];
    int top = 1;
    for (int i = 0; i < values.length; i++) {
      int bin = groups.get(group)[i] && !Double.isNaN(values[i]) ? bin(values[i]) : -1;
      if (bin >= 0) {
        counts[bin]++;
        top = Math.max(top, counts[bin]);
      }
    }
    double step = (right() - left()) / BINS;
    g.setStroke(Palette.of(group));
    g.setLineWidth(2);
    g.beginPath();
    for (int b = 0; b < BINS; b++) {
      double y = foot() - barHeight(counts[b], top);
      if (b == 0) {
        g.moveTo(left(), y);
      }
      g.lineTo(left() + b * step, y);
      g.lineTo(left() + (b + 1) * step, y);
    }
    g.stroke();
  }

  @Override
  protected void paintOver(GraphicsContext g) {
    for (boolean left : new boolean[] {true, false}) {
      double x = Math.rint(place(left ? low : high, left)) + 0.5;
      g.setStroke(inks().of("text"));
      g.setLineWidth(1.5);
      g.strokeLine(x, 2, x, foot() + 2);
      g.setFill(inks().of("card"));
      g.fillRoundRect(x - 4, foot() - 9, 8, 12, 4, 4);
      g.strokeRoundRect(x - 4, foot() - 9, 8, 12, 4, 4);
    }
  }
}
