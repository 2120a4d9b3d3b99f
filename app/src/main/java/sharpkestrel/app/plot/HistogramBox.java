package sharpkestrel.app.plot;

import java.util.List;
import java.util.function.BiConsumer;
import javafx.scene.Cursor;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.Pane;
import sharpkestrel.app.viewer.Palette;

/** A histogram of those who come in, those who pass coloured, between two handles that can be dragged. */
public final class HistogramBox extends Pane {

  private static final int BINS = 48;
  private static final double PAD = 7;
  private static final double BASE = 14;

  private final Canvas canvas;
  private final Inks inks = new Inks(this::draw, "left-out", "accent", "soft", "text", "card");
  private List<boolean[]> groups = List.of();
  private double[] values = new double[0];
  private int[] failedAt = new int[0];
  private int test;
  private ValueAxis axis;
  private double low = Double.NEGATIVE_INFINITY;
  private double high = Double.POSITIVE_INFINITY;
  private int grabbed;
  private BiConsumer<Double, Double> moved = (l, h) -> {};
  private Runnable let = () -> {};

  public HistogramBox(double width, double height) {
    canvas = new Canvas(width, height);
    axis = new ValueAxis(0, 1, PAD, width);
    setPrefSize(width, height);
    setMaxSize(USE_PREF_SIZE, USE_PREF_SIZE);
    getChildren().addAll(canvas, inks);
    setOnMouseMoved(e -> setCursor(near(e.getX()) != 0 ? Cursor.H_RESIZE : Cursor.DEFAULT));
    setOnMousePressed(e -> grabbed = near(e.getX()));
    setOnMouseDragged(e -> {
      if (grabbed == 0) {
        return;
      }
      double v = rounded(axis.value(e.getX()));
      if (grabbed < 0) {
        low = e.getX() <= PAD ? Double.NEGATIVE_INFINITY : Math.min(v, high);
      } else {
        high = e.getX() >= canvas.getWidth() - PAD ? Double.POSITIVE_INFINITY : Math.max(v, low);
      }
      moved.accept(low, high);
    });
    setOnMouseReleased(e -> {
      if (grabbed != 0) {
        let.run();
      }
      grabbed = 0;
    });
  }

  /** Takes another size, in pixels of the screen. */
  public void setSize(double width, double height) {
    canvas.setWidth(width);
    canvas.setHeight(height);
    setPrefSize(width, height);
    axis = new ValueAxis(axis.from(), axis.to(), PAD, width);
    draw();
  }

  /** To a thousandth of the axis or finer, in decimal digits, so that the text of the tests stays short. */
  private double rounded(double value) {
    double step = Math.pow(10, Math.floor(Math.log10((axis.to() - axis.from()) / 1000)));
    return java.math.BigDecimal.valueOf(Math.rint(value / step))
        .multiply(java.math.BigDecimal.valueOf(step))
        .doubleValue();
  }

  private int near(double x) {
    double toLow = Math.abs(x - place(low, true));
    double toHigh = Math.abs(x - place(high, false));
    if (Math.min(toLow, toHigh) > 10) {
      return 0;
    }
    return toLow == toHigh ? (x > canvas.getWidth() / 2 ? 1 : -1) : toLow < toHigh ? -1 : 1;
  }

  private double place(double value, boolean left) {
    return axis.x(Double.isInfinite(value) ? (left ? axis.from() : axis.to()) : value);
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
   * @param newFrom value at the left end of the axis
   */
  public void show(
      double[] newValues,
      int[] newFailedAt,
      int newTest,
      double newFrom,
      double newTo,
      double newLow,
      double newHigh) {
    values = newValues;
    failedAt = newFailedAt;
    test = newTest;
    double from = Double.isFinite(newFrom) ? newFrom : 0;
    axis = new ValueAxis(from, newTo > from ? newTo : from + 1, PAD, canvas.getWidth());
    low = newLow;
    high = newHigh;
    draw();
  }

  /** Draws the shares of groups of the values as lines over the bars, in the colours of their places. */
  public void over(List<boolean[]> newGroups) {
    groups = newGroups;
    draw();
  }

  private int bin(double value) {
    double share = (value - axis.from()) / (axis.to() - axis.from());
    return (int) Math.max(0, Math.min(BINS - 1.0, share * BINS));
  }

  private void draw() {
    GraphicsContext g = canvas.getGraphicsContext2D();
    double w = canvas.getWidth();
    double h = canvas.getHeight() - BASE;
    g.clearRect(0, 0, w, canvas.getHeight());
    int[] all = new int[BINS];
    int[] kept = new int[BINS];
    for (int i = 0; i < values.length; i++) {
      if (failedAt[i] < test || Double.isNaN(values[i])) {
        continue;
      }
      int bin = bin(values[i]);
      all[bin]++;
      kept[bin] += values[i] >= low && values[i] <= high ? 1 : 0;
    }
    int top = 1;
    for (int n : all) {
      top = Math.max(top, n);
    }
    double step = (w - 2 * PAD) / BINS;
    for (int b = 0; b < BINS; b++) {
      // square root heights, so that a few roofs show beside many fields
      double full = h * Math.sqrt((double) all[b] / top);
      double part = h * Math.sqrt((double) kept[b] / top);
      g.setFill(inks.of("left-out"));
      g.fillRect(PAD + b * step, h - full, step - 1, full);
      g.setFill(inks.of("accent"));
      g.fillRect(PAD + b * step, h - part, step - 1, part);
    }
    for (int k = 0; k < groups.size(); k++) {
      drawGroup(g, k, step, h);
    }
    g.setLineWidth(1);
    g.setStroke(inks.of("soft"));
    g.strokeLine(PAD, h + 0.5, w - PAD, h + 0.5);
    for (boolean left : new boolean[] {true, false}) {
      double x = Math.rint(place(left ? low : high, left)) + 0.5;
      g.setStroke(inks.of("text"));
      g.setLineWidth(1.5);
      g.strokeLine(x, 2, x, h + 2);
      g.setFill(inks.of("card"));
      g.fillRoundRect(x - 4, h - 2, 8, 14, 4, 4);
      g.strokeRoundRect(x - 4, h - 2, 8, 14, 4, 4);
      g.setLineWidth(1);
    }
  }

  private void drawGroup(GraphicsContext g, int group, double step, double h) {
    int[] counts = new int[BINS];
    int top = 1;
    for (int i = 0; i < values.length; i++) {
      if (groups.get(group)[i] && !Double.isNaN(values[i])) {
        int bin = bin(values[i]);
        counts[bin]++;
        top = Math.max(top, counts[bin]);
      }
    }
    g.setStroke(Palette.of(group));
    g.setLineWidth(2);
    g.beginPath();
    for (int b = 0; b < BINS; b++) {
      double y = h - h * Math.sqrt((double) counts[b] / top);
      if (b == 0) {
        g.moveTo(PAD, y);
      }
      g.lineTo(PAD + b * step, y);
      g.lineTo(PAD + (b + 1) * step, y);
    }
    g.stroke();
  }
}
