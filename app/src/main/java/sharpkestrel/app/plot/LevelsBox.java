package sharpkestrel.app.plot;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javafx.scene.Cursor;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Color;
import sharpkestrel.raster.Histogram;

/**
 * The histogram of a band with cuts, such as those between grey levels: a click sets a cut, a drag moves one, a right click or a drag
 * out of the box takes it away. A strip below shows the greys.
 */
public final class LevelsBox extends Pane {

  private static final int BINS = 280;
  private static final double PAD = 8;
  private static final double FOOT = 18;
  private static final double NEAR = 5;
  private static final double OUT = 24;
  private static final double ROOM = 0.06;

  private final Canvas canvas;
  private final Inks inks = new Inks(this::draw, "accent", "soft", "text", "card");
  private final List<Double> cuts = new ArrayList<>();
  private long[] counts = new long[BINS];
  private ValueAxis axis;
  private int grabbed = -1;
  private Consumer<List<Double>> drawn = values -> {};

  public LevelsBox(double width, double height) {
    canvas = new Canvas(width, height);
    axis = new ValueAxis(0, 1, PAD, width);
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
  public void onDrawn(Consumer<List<Double>> listener) {
    drawn = listener;
  }

  /**
   * @param edges where it is cut, ascending
   */
  public void show(Histogram histogram, double[] edges) {
    axis = ValueAxis.around(
        histogram.quantile(ValueAxis.TAIL),
        histogram.quantile(1 - ValueAxis.TAIL),
        ROOM,
        PAD,
        canvas.getWidth());
    counts = new long[BINS];
    for (int k = 0; k < histogram.counts().length; k++) {
      double share = (histogram.low() + (k + 0.5) * histogram.binWidth() - axis.from())
          / (axis.to() - axis.from());
      if (share >= 0 && share < 1) {
        counts[(int) (share * BINS)] += histogram.counts()[k];
      }
    }
    cuts.clear();
    Arrays.stream(edges).forEach(cuts::add);
    draw();
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
    double largest = Math.max(Math.abs(axis.from()), Math.abs(axis.to()));
    int digits = (int) Math.ceil(Math.log10(largest / (axis.to() - axis.from())));
    return new BigDecimal(axis.value(x))
        .round(new MathContext(Math.max(4, digits + 3)))
        .doubleValue();
  }

  private int near(double px) {
    int best = -1;
    double nearest = NEAR;
    for (int k = 0; k < cuts.size(); k++) {
      double away = Math.abs(px - axis.x(cuts.get(k)));
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
    } else if (grabbed < 0) {
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
      double v = value(e.getX());
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
    g.setFill(inks.of("soft"));
    g.setGlobalAlpha(0.8);
    axis.bars(g, counts, h, h - 4);
    g.setGlobalAlpha(1);
    for (int k = 0; k <= cuts.size(); k++) {
      double left = k == 0 ? PAD : axis.x(cuts.get(k - 1));
      double right = k == cuts.size() ? w - PAD : axis.x(cuts.get(k));
      g.setFill(Color.gray(cuts.isEmpty() ? 0.5 : 0.06 + 0.88 * k / cuts.size()));
      g.fillRect(left, h + 4, right - left, 10);
    }
    g.setStroke(inks.of("soft"));
    g.setLineWidth(1);
    g.strokeRect(PAD + 0.5, h + 4.5, w - 2 * PAD - 1, 9);
    for (int k = 0; k < cuts.size(); k++) {
      double x = Math.rint(axis.x(cuts.get(k))) + 0.5;
      g.setStroke(inks.of(k == grabbed ? "text" : "accent"));
      g.setLineWidth(k == grabbed ? 2 : 1);
      g.strokeLine(x, 2, x, h + 14);
    }
  }
}
