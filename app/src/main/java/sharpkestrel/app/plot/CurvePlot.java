package sharpkestrel.app.plot;

import java.util.List;
import java.util.Locale;
import javafx.geometry.Insets;
import javafx.scene.canvas.GraphicsContext;
import sharpkestrel.extract.learner.LearnersCompared.Point;

/** What is told right by the number of samples, with the interval of each. */
public final class CurvePlot extends Plot {

  private static final double FOOT = 17;
  private static final double SIDE = 34;
  private static final double PAD = 8;
  private static final double DOT = 3;
  private static final double NEAR = 12;

  private List<Point> points = List.of();

  public CurvePlot(double width, double height) {
    super(width, height, new Insets(PAD, PAD, FOOT, SIDE));
    setId("learning-curve");
  }

  public void show(List<Point> now) {
    points = now;
    double most = now.stream().mapToDouble(Point::samples).max().orElse(1);
    double least = now.stream().mapToDouble(Point::low).min().orElse(0);
    setAcross(0, most * 1.05, false, "");
    setUp(Math.max(0, Math.floor(10 * least) / 10), 1, "");
    draw();
  }

  @Override
  protected void paint(GraphicsContext g) {
    g.setStroke(inks().of("soft"));
    g.setLineWidth(1);
    for (Point point : points) {
      double x = across().at(point.samples());
      g.strokeLine(x, up().at(point.low()), x, up().at(point.high()));
    }
    g.setStroke(inks().of("accent"));
    g.setFill(inks().of("accent"));
    g.setLineWidth(1.5);
    double[] xs = points.stream().mapToDouble(p -> across().at(p.samples())).toArray();
    double[] ys = points.stream().mapToDouble(p -> up().at(p.right())).toArray();
    g.strokePolyline(xs, ys, xs.length);
    for (int i = 0; i < xs.length; i++) {
      g.fillOval(xs[i] - DOT, ys[i] - DOT, 2 * DOT, 2 * DOT);
    }
  }

  @Override
  protected String under(double x, double y) {
    return points.stream()
        .filter(point -> Math.abs(across().at(point.samples()) - x) < NEAR)
        .findFirst()
        .map(point -> String.format(
            Locale.ROOT,
            "%d samples: %.0f %%, %.0f to %.0f",
            point.samples(),
            100 * point.right(),
            100 * point.low(),
            100 * point.high()))
        .orElse("");
  }
}
