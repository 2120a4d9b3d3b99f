package sharpkestrel.app.tools.segment;

import java.util.function.DoubleConsumer;
import javafx.scene.Cursor;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.Pane;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;
import sharpkestrel.app.plot.Inks;
import sharpkestrel.segment.NaturalGrains;

/** How steady a tree's cuts are over the grain, with its natural grains marked; a click takes the grain there, or a mark nearby. */
final class GrainCurve extends Pane {

  private static final double FOOT = 14;
  private static final double HEAD = 4;
  private static final double PAD = 7;
  private static final double NEAR = 9;

  private final Canvas canvas;
  private final Inks inks = new Inks(this::draw, "left-out", "accent", "soft", "text");
  private double least = 1;
  private double most = 2;
  private NaturalGrains grains;
  private double shown;

  /**
   * @param chosen told the grain that is clicked
   */
  GrainCurve(double width, double height, DoubleConsumer chosen) {
    canvas = new Canvas(width, height);
    setId("grain-curve");
    setPrefSize(width, height);
    setMaxSize(USE_PREF_SIZE, USE_PREF_SIZE);
    setCursor(Cursor.HAND);
    getChildren().addAll(canvas, inks);
    setOnMouseClicked(e -> {
      if (grains != null) {
        chosen.accept(at(e.getX()));
      }
    });
  }

  /**
   * @param newGrains null for none
   * @param newShown the grain that is shown
   * @param newLeast grain at the left end, and {@code newMost} at the right
   */
  void show(NaturalGrains newGrains, double newShown, double newLeast, double newMost) {
    least = newLeast;
    most = newMost;
    grains = newGrains;
    shown = newShown;
    draw();
  }

  private double x(double grain) {
    double share = Math.log(grain / least) / Math.log(most / least);
    return PAD + (canvas.getWidth() - 2 * PAD) * Math.max(0, Math.min(1, share));
  }

  /** The natural grain near a place, else the grain there. */
  private double at(double px) {
    for (double natural : grains.natural()) {
      if (Math.abs(x(natural) - px) < NEAR) {
        return natural;
      }
    }
    double share = (px - PAD) / (canvas.getWidth() - 2 * PAD);
    return least * Math.pow(most / least, Math.max(0, Math.min(1, share)));
  }

  private void draw() {
    GraphicsContext g = canvas.getGraphicsContext2D();
    double h = canvas.getHeight() - FOOT;
    g.clearRect(0, 0, canvas.getWidth(), canvas.getHeight());
    if (grains == null) {
      return;
    }
    double top = 1e-9;
    for (double steady : grains.steadiness()) {
      top = Math.max(top, steady);
    }
    int n = grains.grains().length;
    double[] xs = new double[n + 2];
    double[] ys = new double[n + 2];
    for (int k = 0; k < n; k++) {
      xs[k] = x(grains.grains()[k]);
      ys[k] = h - (h - HEAD) * Math.max(0, grains.steadiness()[k]) / top;
    }
    xs[n] = xs[n - 1];
    ys[n] = h;
    xs[n + 1] = xs[0];
    ys[n + 1] = h;
    g.setFill(inks.of("left-out"));
    g.fillPolygon(xs, ys, n + 2);
    g.setStroke(inks.of("soft"));
    g.setLineWidth(1);
    g.strokeLine(PAD, h + 0.5, canvas.getWidth() - PAD, h + 0.5);
    g.setFont(Font.font("IBM Plex Mono", 10));
    g.setTextAlign(TextAlignment.CENTER);
    double free = Double.NEGATIVE_INFINITY;
    for (double natural : grains.natural()) {
      double px = x(natural);
      g.setStroke(inks.of("accent"));
      g.setLineWidth(2);
      g.strokeLine(px, HEAD, px, h);
      String text = String.format(java.util.Locale.ROOT, natural < 10 ? "%.1f" : "%.0f", natural);
      if (px - free > 30) {
        g.setFill(inks.of("accent"));
        g.fillText(text, px, h + 11);
        free = px;
      }
    }
    double here = Math.rint(x(shown)) + 0.5;
    g.setStroke(inks.of("text"));
    g.setLineWidth(1);
    g.strokeLine(here, 0, here, h + 3);
  }
}
