package sharpkestrel.app.tools.pick;

import java.util.Locale;
import java.util.function.IntConsumer;
import javafx.geometry.Insets;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;
import sharpkestrel.app.plot.Plot;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.segment.Branch;
import sharpkestrel.segment.ClickedObject;

/**
 * How much each rung of a branch is a thing of its own, over its area, with how sharp its border is as a dot; natural rungs are
 * marked, a click takes one.
 */
final class RungPlot extends Plot {

  private static final double SIDE = 12;
  private static final double FOOT = 34;
  private static final double TOP = 16;
  private static final double HIT = 12;
  private static final double LEGEND = 29;
  private static final double BESIDE = 50;

  private final IntConsumer taken;
  private Branch branch;
  private double[] edges = {};
  private int rung;
  private double pixelArea;
  private String unit = "m²";

  RungPlot(double width, double height, IntConsumer taken) {
    super(width, height, new Insets(TOP, SIDE, FOOT, SIDE));
    this.taken = taken;
    setId("rungs");
  }

  /**
   * @param clicked null for none
   * @param newRung the one that is picked; below 0 for none of them
   */
  void show(ClickedObject clicked, int newRung, GroundSize ground) {
    branch = clicked == null ? null : clicked.branch();
    edges = clicked == null ? new double[0] : clicked.edges();
    rung = newRung;
    pixelArea = ground.area();
    unit = ground.areaUnit();
    if (branch != null) {
      double least = branch.pixels(0) * pixelArea;
      double most = branch.pixels(branch.rungs() - 1) * pixelArea;
      setAcross(least, Math.max(most, 2 * least), true, unit);
    }
    draw();
  }

  @Override
  protected void release(double x, double y) {
    int nearest = branch == null ? -1 : nearest(x);
    if (nearest >= 0) {
      taken.accept(nearest);
    }
  }

  @Override
  protected String under(double x, double y) {
    int nearest = branch == null ? -1 : nearest(x);
    return nearest < 0 || nearest == rung ? "" : area(branch.pixels(nearest) * pixelArea);
  }

  private int nearest(double x) {
    int best = -1;
    for (int each : branch.natural()) {
      boolean nearer = best < 0 || Math.abs(x(each) - x) < Math.abs(x(best) - x);
      best = nearer && Math.abs(x(each) - x) < HIT ? each : best;
    }
    return best;
  }

  private double x(int i) {
    return across().at(branch.pixels(i) * pixelArea);
  }

  @Override
  protected void paint(GraphicsContext g) {
    if (branch == null) {
      return;
    }
    double most = 1e-9;
    double sharpest = 1e-9;
    for (int each : branch.natural()) {
      most = Math.max(most, branch.score(each, edges));
      sharpest = Math.max(sharpest, Double.isNaN(edges[each]) ? 0 : edges[each]);
    }
    for (int each : branch.natural()) {
      boolean chosen = each == rung;
      double bar = foot() - (foot() - top()) * branch.score(each, edges) / most;
      g.setStroke(inks().of(chosen ? "accent" : "second"));
      g.setLineWidth(chosen ? 5 : 3);
      g.strokeLine(x(each), foot(), x(each), bar);
      if (!Double.isNaN(edges[each])) {
        double dot = foot() - (foot() - top()) * edges[each] / sharpest;
        g.setFill(inks().of("soft"));
        g.fillOval(x(each) - 2.5, dot - 2.5, 5, 5);
      }
      if (chosen) {
        g.setFill(inks().of("text"));
        g.setFont(Font.font("IBM Plex Mono", 11));
        g.setTextAlign(
            x(each) < BESIDE
                ? TextAlignment.LEFT
                : x(each) > right() - BESIDE ? TextAlignment.RIGHT : TextAlignment.CENTER);
        g.fillText(area(branch.pixels(each) * pixelArea), x(each), bar - 4);
      }
    }
  }

  @Override
  protected void drawAxes(GraphicsContext g) {
    super.drawAxes(g);
    if (branch == null) {
      return;
    }
    g.setFont(Font.font("IBM Plex Sans", 10));
    g.setTextAlign(TextAlignment.LEFT);
    String bars = branch.bordersCount() ? "stays itself, with a sharp border" : "stays itself";
    g.fillText("bars: " + bars + "; dots: how sharp its border is", left(), foot() + LEGEND);
  }

  private String area(double area) {
    return String.format(Locale.ROOT, area < 100 ? "%.1f %s" : "%,.0f %s", area, unit);
  }
}
