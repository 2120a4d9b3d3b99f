package sharpkestrel.place.fit;

/**
 * A projective map (homography), eight numbers: first by the linear equations of Hartley and Zisserman (2004, section
 * 4.1) with scaled coordinates, then by Gauss-Newton steps on the distances that matter.
 */
final class ProjectiveMap implements PlaneMap {

  private static final int STEPS = 8;

  private final Scaling from;
  private final Scaling to;
  private final double[] h;

  private ProjectiveMap(Scaling from, Scaling to, double[] h) {
    this.from = from;
    this.to = to;
    this.h = h;
  }

  static ProjectiveMap fit(double[][] from, double[][] to) {
    Scaling source = Scaling.of(from);
    Scaling target = Scaling.of(to);
    int n = from.length;
    double[][] rows = new double[2 * n][8];
    double[][] right = new double[2 * n][1];
    for (int i = 0; i < n; i++) {
      double u = source.u(from[i][0]);
      double v = source.v(from[i][1]);
      double x = target.u(to[i][0]);
      double y = target.v(to[i][1]);
      rows[2 * i] = new double[] {u, v, 1, 0, 0, 0, -x * u, -x * v};
      rows[2 * i + 1] = new double[] {0, 0, 0, u, v, 1, -y * u, -y * v};
      right[2 * i][0] = x;
      right[2 * i + 1][0] = y;
    }
    double[] h = new double[8];
    double[][] first = LeastSquares.solve(rows, right);
    for (int k = 0; k < 8; k++) {
      h[k] = first[k][0];
    }
    for (int step = 0; step < STEPS; step++) {
      for (int i = 0; i < n; i++) {
        double u = source.u(from[i][0]);
        double v = source.v(from[i][1]);
        double w = h[6] * u + h[7] * v + 1;
        double x = (h[0] * u + h[1] * v + h[2]) / w;
        double y = (h[3] * u + h[4] * v + h[5]) / w;
        rows[2 * i] = new double[] {u / w, v / w, 1 / w, 0, 0, 0, -x * u / w, -x * v / w};
        rows[2 * i + 1] = new double[] {0, 0, 0, u / w, v / w, 1 / w, -y * u / w, -y * v / w};
        right[2 * i][0] = target.u(to[i][0]) - x;
        right[2 * i + 1][0] = target.v(to[i][1]) - y;
      }
      double[][] change = LeastSquares.solve(rows, right);
      double largest = 0;
      for (int k = 0; k < 8; k++) {
        h[k] += change[k][0];
        largest = Math.max(largest, Math.abs(change[k][0]));
      }
      if (largest < 1e-12) {
        break;
      }
    }
    return new ProjectiveMap(source, target, h);
  }

  @Override
  public void apply(double u, double v, double[] xy) {
    double a = from.u(u);
    double b = from.v(v);
    double w = h[6] * a + h[7] * b + 1;
    // behind the line at infinity nothing is shown
    double scale = w > 1e-9 ? to.size() / w : Double.NaN;
    xy[0] = (h[0] * a + h[1] * b + h[2]) * scale + to.middleU();
    xy[1] = (h[3] * a + h[4] * b + h[5]) * scale + to.middleV();
  }
}
