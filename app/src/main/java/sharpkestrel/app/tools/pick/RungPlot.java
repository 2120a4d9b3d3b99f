package sharpkestrel.app.tools.pick;

import java.util.Locale;
import java.util.function.IntConsumer;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.Pane;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;
import sharpkestrel.app.plot.Inks;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.segment.Branch;
import sharpkestrel.segment.ClickedObject;

/**
 * How much each rung of a branch is a thing of its own, over its area, with how sharp its border is as a dot; natural rungs are
 * marked, a click takes one.
 */
final class RungPlot extends Pane {

  private static final double LEFT = 12;
  private static final double FOOT = 34;
  private static final double TOP = 14;
  private static final double HIT = 12;

  private final Canvas canvas;
  private final Inks inks = new Inks(this::draw, "soft", "text", "left-out", "accent", "second");
  private Branch branch;
  private double[] edges = {};
  private int rung;
  private double pixelArea;
  private String unit = "m²";

  RungPlot(double width, double height, IntConsumer taken) {
    canvas = new Canvas(width, height);
    setPrefSize(width, height);
    setMaxSize(USE_PREF_SIZE, USE_PREF_SIZE);
    setId("rungs");
    getChildren().addAll(canvas, inks);
    setOnMouseClicked(e -> {
      int nearest = branch == null ? -1 : nearest(e.getX());
      if (nearest >= 0) {
        taken.accept(nearest);
      }
    });
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
    draw();
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
    double low = Math.log(branch.pixels(0));
    double high = Math.log(Math.max(branch.pixels(branch.rungs() - 1), branch.pixels(0) + 1));
    return LEFT
        + (canvas.getWidth() - 2 * LEFT) * (Math.log(branch.pixels(i)) - low) / (high - low);
  }

  private void draw() {
    GraphicsContext g = canvas.getGraphicsContext2D();
    double w = canvas.getWidth();
    double base = canvas.getHeight() - FOOT;
    g.clearRect(0, 0, w, canvas.getHeight());
    g.setStroke(inks.of("left-out"));
    g.setLineWidth(1);
    g.strokeLine(LEFT, base, w - LEFT, base);
    if (branch == null) {
      return;
    }
    double most = 1e-9;
    double sharpest = 1e-9;
    for (int each : branch.natural()) {
      most = Math.max(most, branch.score(each, edges));
      sharpest = Math.max(sharpest, Double.isNaN(edges[each]) ? 0 : edges[each]);
    }
    ticks(g, base);
    for (int each : branch.natural()) {
      boolean chosen = each == rung;
      double top = base - (base - TOP) * branch.score(each, edges) / most;
      g.setStroke(inks.of(chosen ? "accent" : "second"));
      g.setLineWidth(chosen ? 5 : 3);
      g.strokeLine(x(each), base, x(each), top);
      if (!Double.isNaN(edges[each])) {
        double dot = base - (base - TOP) * edges[each] / sharpest;
        g.setFill(inks.of("soft"));
        g.fillOval(x(each) - 2.5, dot - 2.5, 5, 5);
      }
      if (chosen) {
        g.setFill(inks.of("text"));
        g.setFont(Font.font("IBM Plex Mono", 11));
        g.setTextAlign(
            x(each) < 50
                ? TextAlignment.LEFT
                : x(each) > w - 50 ? TextAlignment.RIGHT : TextAlignment.CENTER);
        g.fillText(area(branch.pixels(each) * pixelArea), x(each), top - 4);
      }
    }
  }

  /** Powers of ten under the axis. */
  private void ticks(GraphicsContext g, double base) {
    g.setFill(inks.of("soft"));
    g.setFont(Font.font("IBM Plex Mono", 10));
    g.setTextAlign(TextAlignment.CENTER);
    double low = branch.pixels(0) * pixelArea;
    double high = branch.pixels(branch.rungs() - 1) * pixelArea;
    for (double area = Math.pow(10, Math.ceil(Math.log10(low))); area <= high; area *= 10) {
      double at = LEFT
          + (canvas.getWidth() - 2 * LEFT)
              * Math.log(area / low)
              / Math.log(Math.max(high / low, 1.01));
      g.strokeLine(at, base, at, base + 4);
      String text = area < 10_000
          ? "" + Math.round(area)
          : area < 1e6 ? Math.round(area / 1e3) + " k" : Math.round(area / 1e6) + " M";
      g.fillText(text, Math.min(at, canvas.getWidth() - LEFT), base + 16);
    }
    g.setFont(Font.font("IBM Plex Sans", 10));
    g.setTextAlign(TextAlignment.RIGHT);
    g.fillText("area, " + unit, canvas.getWidth() - LEFT, base + 29);
    g.setTextAlign(TextAlignment.LEFT);
    String bars = branch.bordersCount() ? "stays itself, with a sharp border" : "stays itself";
    g.fillText("bars: " + bars + "; dots: how sharp its border is", LEFT, base + 29);
  }

  private String area(double area) {
    return String.format(Locale.ROOT, area < 100 ? "%.1f %s" : "%,.0f %s", area, unit);
  }
}
