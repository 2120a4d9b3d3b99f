package sharpkestrel.app.bench;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Cursor;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Color;
import sharpkestrel.app.look.Inks;
import sharpkestrel.raster.Histogram;
import sharpkestrel.sharpen.Texture;

/**
 * The histogram of a band with the cuts between its grey levels: a click sets a cut, a drag moves one, a right click or a drag
 * out of the box takes it away. A strip below shows the greys.
 */
final class LevelsBox extends Pane {

  private static final int BINS = 280;
  private static final double PAD = 8;
  private static final double FOOT = 18;
  private static final double NEAR = 5;
  private static final double OUT = 24;
  /** Share of the values at either end that the axis leaves out, and how much room there is beside the others. */
  private static final double TAIL = 0.001;

  private static final double ROOM = 0.06;

  private final Canvas canvas;
  private final Inks inks = new Inks(this::draw, "accent", "soft", "text", "card");
  private final List<Double> cuts = new ArrayList<>();
  private long[] counts = new long[BINS];
  private double from;
  private double to = 1;
  private int grabbed = -1;
  private Consumer<List<Double>> drawn = values -> {};

  LevelsBox(double width, double height) {
    canvas = new Canvas(width, height);
    setId("levels-box");
    setPrefSize(width, height);
    setMaxSize(USE_PREF_SIZE, USE_PREF_SIZE);
    getChildren().addAll(canvas, inks);
    setOnMouseMoved(e -> setCursor(near(e.getX()) >= 0 ? Cursor.H_RESIZE : Cursor.CROSSHAIR));
    setOnMousePressed(this::press);
    setOnMouseDragged(this::drag);
    setOnMouseReleased(e -> let());
  }

  /** Told the cuts, ascending, once they have been changed by hand. */
  void onDrawn(Consumer<List<Double>> listener) {
    drawn = listener;
  }

  void show(Texture.Grouped grouped) {
    Histogram histogram = grouped.statistics().histogram();
    double low = histogram.quantile(TAIL);
    double high = histogram.quantile(1 - TAIL);
    double room = Math.max(ROOM * (high - low), 1e-6);
    from = low - room;
    to = high + room;
    counts = new long[BINS];
    for (int k = 0; k < histogram.counts().length; k++) {
      double share = (histogram.low() + (k + 0.5) * histogram.binWidth() - from) / (to - from);
      if (share >= 0 && share < 1) {
        counts[(int) (share * BINS)] += histogram.counts()[k];
      }
    }
    cuts.clear();
    Arrays.stream(grouped.levels().edges()).forEach(cuts::add);
    draw();
  }

  List<Double> cuts() {
    return List.copyOf(cuts);
  }

  private double x(double value) {
    double share = Math.max(0, Math.min(1, (value - from) / (to - from)));
    return PAD + share * (canvas.getWidth() - 2 * PAD);
  }

  /** To a thousandth of the axis or so, in decimal digits, so that the text of the setting stays short. */
  private double value(double x) {
    double exact = from + (x - PAD) / (canvas.getWidth() - 2 * PAD) * (to - from);
    int digits = (int) Math.ceil(Math.log10(Math.max(Math.abs(from), Math.abs(to)) / (to - from)));
    return new BigDecimal(exact).round(new MathContext(Math.max(4, digits + 3))).doubleValue();
  }

  private int near(double px) {
    int best = -1;
    double nearest = NEAR;
    for (int k = 0; k < cuts.size(); k++) {
      double away = Math.abs(px - x(cuts.get(k)));
      if (away < nearest) {
        nearest = away;
        best = k;
      }
    }
    return best;
  }

  private void press(MouseEvent e) {
    grabbed = near(e.getX());
    if (e.getButton() == MouseButton.SECONDARY) {
      remove();
    } else if (grabbed < 0 && counts.length > 0) {
      double v = value(e.getX());
      grabbed = (int) cuts.stream().filter(cut -> cut < v).count();
      cuts.add(grabbed, v);
    }
    draw();
  }

  private void remove() {
    if (grabbed >= 0 && cuts.size() > 1) {
      cuts.remove(grabbed);
      grabbed = -1;
      drawn.accept(cuts());
    }
  }

  private void drag(MouseEvent e) {
    if (grabbed < 0) {
      return;
    }
    if (e.getY() < -OUT || e.getY() > canvas.getHeight() + OUT) {
      remove();
    } else {
      double v = value(Math.max(PAD, Math.min(canvas.getWidth() - PAD, e.getX())));
      boolean aboveBefore = grabbed == 0 || v > cuts.get(grabbed - 1);
      boolean belowNext = grabbed == cuts.size() - 1 || v < cuts.get(grabbed + 1);
      if (aboveBefore && belowNext) {
        cuts.set(grabbed, v);
      }
    }
    draw();
  }

  private void let() {
    if (grabbed >= 0) {
      grabbed = -1;
      drawn.accept(cuts());
    }
    draw();
  }

  private void draw() {
    GraphicsContext g = canvas.getGraphicsContext2D();
    double w = canvas.getWidth();
    double h = canvas.getHeight() - FOOT;
    g.clearRect(0, 0, w, canvas.getHeight());
    long top = Math.max(1, Arrays.stream(counts).max().orElse(1));
    double step = (w - 2 * PAD) / BINS;
    g.setFill(inks.of("soft"));
    g.setGlobalAlpha(0.8);
    for (int b = 0; b < BINS; b++) {
      // square root heights, so that a few roofs show beside many fields
      double tall = (h - 4) * Math.sqrt((double) counts[b] / top);
      g.fillRect(PAD + b * step, h - tall, step, tall);
    }
    g.setGlobalAlpha(1);
    for (int k = 0; k <= cuts.size(); k++) {
      double left = k == 0 ? PAD : x(cuts.get(k - 1));
      double right = k == cuts.size() ? w - PAD : x(cuts.get(k));
      g.setFill(Color.gray(cuts.isEmpty() ? 0.5 : 0.06 + 0.88 * k / cuts.size()));
      g.fillRect(left, h + 4, right - left, 10);
    }
    g.setStroke(inks.of("soft"));
    g.setLineWidth(1);
    g.strokeRect(PAD + 0.5, h + 4.5, w - 2 * PAD - 1, 9);
    for (int k = 0; k < cuts.size(); k++) {
      double x = Math.rint(x(cuts.get(k))) + 0.5;
      g.setStroke(inks.of(k == grabbed ? "text" : "accent"));
      g.setLineWidth(k == grabbed ? 2 : 1);
      g.strokeLine(x, 2, x, h + 14);
    }
  }
}
