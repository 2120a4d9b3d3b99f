package sharpkestrel.app.plot;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javafx.geometry.Insets;
import javafx.scene.Cursor;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import sharpkestrel.raster.Histogram;

/**
 * The histogram of a band with cuts, such as those between grey levels: a click sets a cut, a drag moves one, a right click or a drag
 * out of the box takes it away. A strip below shows the greys.
 */
public final class LevelsBox extends Plot {

  private static final int BINS = 280;
  private static final double PAD = 8;
  private static final double FOOT = 30;
  private static final double STRIP = 17;
  private static final double NEAR = 5;
  private static final double OUT = 24;
  private static final double ROOM = 0.06;

  private final List<Double> cuts = new ArrayList<>();
  private Optional<Histogram> histogram = Optional.empty();
  private int grabbed = -1;
  private Consumer<List<Double>> drawn = values -> {};

  public LevelsBox(double width, double height) {
    super(width, height, new Insets(4, PAD, FOOT, PAD));
    setAcross(0, 1, false, "");
    setId("levels-box");
  }

  @Override
  protected void hover(double x, double y) {
    setCursor(near(x) >= 0 ? Cursor.H_RESIZE : Cursor.CROSSHAIR);
  }

  /** Told the cuts, ascending, once they have been changed by hand. */
  public void onDrawn(Consumer<List<Double>> listener) {
    drawn = listener;
  }

  /**
   * @param edges where it is cut, ascending
   * @param unit of the values; empty for none
   */
  public void show(Histogram newHistogram, double[] edges, String unit) {
    setAcross(Axis.around(
        newHistogram.quantile(Axis.TAIL),
        newHistogram.quantile(1 - Axis.TAIL),
        ROOM,
        left(),
        right(),
        unit));
    histogram = Optional.of(newHistogram);
    cuts.clear();
    Arrays.stream(edges).forEach(cuts::add);
    draw();
  }

  private long[] counts(Histogram of) {
    long[] counts = new long[BINS];
    for (int k = 0; k < of.counts().length; k++) {
      double value = of.low() + (k + 0.5) * of.binWidth();
      double share = (value - across().from()) / (across().to() - across().from());
      if (share >= 0 && share < 1) {
        counts[(int) (share * BINS)] += of.counts()[k];
      }
    }
    return counts;
  }

  @Override
  protected String under(double x, double y) {
    return grabbed >= 0
        ? across().readOut(cuts.get(grabbed))
        : histogram.isPresent() ? across().readOut(across().value(x)) : "";
  }

  List<Double> cuts() {
    return List.copyOf(cuts);
  }

  /** Cuts as the text of a setting. */
  public static String text(List<Double> cuts) {
    return cuts.stream()
        .map(cut -> cut == Math.rint(cut) ? Long.toString(cut.longValue()) : cut.toString())
        .collect(Collectors.joining(","));
  }

  /** To a thousandth of the axis or so, in decimal digits, so that the text of the setting stays short. */
  private double value(double x) {
    double largest = Math.max(Math.abs(across().from()), Math.abs(across().to()));
    int digits = (int) Math.ceil(Math.log10(largest / (across().to() - across().from())));
    return new BigDecimal(across().value(x))
        .round(new MathContext(Math.max(4, digits + 3)))
        .doubleValue();
  }

  private int near(double px) {
    int best = -1;
    double nearest = NEAR;
    for (int k = 0; k < cuts.size(); k++) {
      double away = Math.abs(px - across().at(cuts.get(k)));
      if (away < nearest) {
        nearest = away;
        best = k;
      }
    }
    return best;
  }

  @Override
  protected void press(double x, double y) {
    grabbed = near(x);
    if (grabbed < 0) {
      double v = value(x);
      grabbed = (int) cuts.stream().filter(cut -> cut < v).count();
      cuts.add(grabbed, v);
    }
  }

  @Override
  protected boolean pressSecond(double x, double y) {
    grabbed = near(x);
    boolean removes = grabbed >= 0 && cuts.size() > 1;
    remove();
    grabbed = -1;
    return removes;
  }

  private void remove() {
    if (grabbed >= 0 && cuts.size() > 1) {
      cuts.remove(grabbed);
      grabbed = -1;
      drawn.accept(cuts());
    }
  }

  @Override
  protected void drag(double x, double y) {
    if (grabbed < 0) {
      return;
    }
    if (y < -OUT || y > getHeight() + OUT) {
      remove();
    } else {
      double v = value(x);
      boolean aboveBefore = grabbed == 0 || v > cuts.get(grabbed - 1);
      boolean belowNext = grabbed == cuts.size() - 1 || v < cuts.get(grabbed + 1);
      if (aboveBefore && belowNext) {
        cuts.set(grabbed, v);
      }
    }
  }

  @Override
  protected void release(double x, double y) {
    if (grabbed >= 0) {
      grabbed = -1;
      drawn.accept(cuts());
    }
  }

  @Override
  protected void paint(GraphicsContext g) {
    g.setFill(inks().of("soft"));
    g.setGlobalAlpha(0.8);
    long[] counts = histogram.map(this::counts).orElse(new long[0]);
    bars(g, counts, Arrays.stream(counts).max().orElse(1), 0);
  }

  @Override
  protected void paintOver(GraphicsContext g) {
    double strip = foot() + STRIP;
    for (int k = 0; k <= cuts.size(); k++) {
      double left = k == 0 ? left() : across().within(cuts.get(k - 1));
      double right = k == cuts.size() ? right() : across().within(cuts.get(k));
      g.setFill(Color.gray(cuts.isEmpty() ? 0.5 : 0.06 + 0.88 * k / cuts.size()));
      g.fillRect(left, strip, right - left, 10);
    }
    g.setStroke(inks().of("soft"));
    g.setLineWidth(1);
    g.strokeRect(left() + 0.5, strip + 0.5, right() - left() - 1, 9);
    for (int k = 0; k < cuts.size(); k++) {
      if (across().holds(cuts.get(k))) {
        double x = Math.rint(across().at(cuts.get(k))) + 0.5;
        g.setStroke(inks().of(k == grabbed ? "text" : "accent"));
        g.setLineWidth(k == grabbed ? 2 : 1);
        g.strokeLine(x, 2, x, strip + 10);
      }
    }
  }
}
