package sharpkestrel.app.tools.segment;

import java.util.function.DoubleConsumer;
import javafx.geometry.Insets;
import javafx.scene.Cursor;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;
import sharpkestrel.app.plot.Plot;
import sharpkestrel.segment.NaturalGrains;

/** How steady a tree's cuts are over the grain, with its natural grains marked; a click takes the grain there, or a mark nearby. */
final class GrainCurve extends Plot {

  private static final double FOOT = 17;
  private static final double HEAD = 14;
  private static final double PAD = 7;
  private static final double NEAR = 9;
  private static final double LABEL = 30;

  private final DoubleConsumer chosen;
  private NaturalGrains grains;
  private double shown;

  /**
   * @param chosen told the grain that is clicked
   */
  GrainCurve(double width, double height, DoubleConsumer chosen) {
    super(width, height, new Insets(HEAD, PAD, FOOT, PAD));
    this.chosen = chosen;
    setId("grain-curve");
    setCursor(Cursor.HAND);
  }

  /**
   * @param newGrains null for none
   * @param newShown the grain that is shown
   * @param least grain at the left end, and {@code most} at the right
   */
  void show(NaturalGrains newGrains, double newShown, double least, double most, String unit) {
    setAcross(least, most, true, unit);
    grains = newGrains;
    shown = newShown;
    draw();
  }

  @Override
  protected void release(double x, double y) {
    if (grains != null) {
      chosen.accept(at(x));
    }
  }

  @Override
  protected String under(double x, double y) {
    return grains == null ? "" : across().readOut(at(x));
  }

  /** The natural grain near a place, else the grain there. */
  private double at(double px) {
    for (double natural : grains.natural()) {
      if (Math.abs(across().at(natural) - px) < NEAR) {
        return natural;
      }
    }
    return across().value(px);
  }

  @Override
  protected void paint(GraphicsContext g) {
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
      xs[k] = across().at(grains.grains()[k]);
      ys[k] = foot() - (foot() - top()) * Math.max(0, grains.steadiness()[k]) / top;
    }
    xs[n] = xs[n - 1];
    ys[n] = foot();
    xs[n + 1] = xs[0];
    ys[n + 1] = foot();
    g.setFill(inks().of("left-out"));
    g.fillPolygon(xs, ys, n + 2);
  }

  @Override
  protected void paintOver(GraphicsContext g) {
    if (grains == null) {
      return;
    }
    g.setFont(Font.font("IBM Plex Mono", 10));
    g.setTextAlign(TextAlignment.CENTER);
    g.setStroke(inks().of("accent"));
    g.setFill(inks().of("accent"));
    g.setLineWidth(2);
    double free = Double.NEGATIVE_INFINITY;
    for (double natural : grains.natural()) {
      if (!across().holds(natural)) {
        continue;
      }
      double px = across().at(natural);
      g.strokeLine(px, top(), px, foot());
      if (px - free > LABEL) {
        double inside = Math.max(LABEL / 2, Math.min(right() - LABEL / 2, px));
        g.fillText(
            String.format(java.util.Locale.ROOT, natural < 10 ? "%.1f" : "%.0f", natural),
            inside,
            top() - 3);
        free = px;
      }
    }
    double here = Math.rint(across().within(shown)) + 0.5;
    g.setStroke(inks().of("text"));
    g.setLineWidth(1);
    g.strokeLine(here, top() - 2, here, foot() + 3);
  }
}
