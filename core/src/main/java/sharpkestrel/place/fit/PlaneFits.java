package sharpkestrel.place.fit;

/** Fits maps of the plane to points. */
public final class PlaneFits {

  private PlaneFits() {}

  /**
   * The map nearest to the points in the sense of least squares, or through them where it interpolates.
   *
   * @param from (input) u and v of each point
   * @param to (input) x and y of each point
   * @throws sharpkestrel.raster.RasterException where the points do not determine it
   */
  public static PlaneMap fit(ModelKind kind, double[][] from, double[][] to) {
    if (from.length < kind.fewest()) {
      throw new LeastSquares.Undetermined(kind.label()
          + " needs "
          + kind.fewest()
          + (kind.fewest() == 1 ? " point that is" : " points that are")
          + " on; there "
          + (from.length == 1 ? "is 1" : "are " + from.length)
          + ". Add points, or choose a stiffer model.");
    }
    return switch (kind) {
      case UNCHANGED ->
        (u, v, xy) -> {
          xy[0] = u;
          xy[1] = v;
        };
      case SHIFT -> shift(from, to);
      case SIMILARITY -> similarity(from, to);
      case AFFINE -> PolynomialMap.fit(1, from, to);
      case PROJECTIVE -> ProjectiveMap.fit(from, to);
      case POLYNOMIAL_2 -> PolynomialMap.fit(2, from, to);
      case POLYNOMIAL_3 -> PolynomialMap.fit(3, from, to);
      case SPLINE -> SplineMap.fit(from, to);
      case PIECEWISE -> PiecewiseMap.fit(from, to);
      case CAMERA -> throw new IllegalArgumentException("A camera is no map of the plane");
    };
  }

  private static PlaneMap shift(double[][] from, double[][] to) {
    double dx = 0;
    double dy = 0;
    for (int i = 0; i < from.length; i++) {
      dx += (to[i][0] - from[i][0]) / from.length;
      dy += (to[i][1] - from[i][1]) / from.length;
    }
    double x = dx;
    double y = dy;
    return (u, v, xy) -> {
      xy[0] = u + x;
      xy[1] = v + y;
    };
  }

  /** Turned, scaled and moved: {@code x = a u - b v + c, y = b u + a v + d}. */
  static PlaneMap similarity(double[][] from, double[][] to) {
    Scaling scaling = Scaling.of(from);
    Scaling target = Scaling.of(to);
    double[][] rows = new double[2 * from.length][];
    double[][] right = new double[rows.length][1];
    for (int i = 0; i < from.length; i++) {
      double u = scaling.u(from[i][0]);
      double v = scaling.v(from[i][1]);
      rows[2 * i] = new double[] {u, -v, 1, 0};
      rows[2 * i + 1] = new double[] {v, u, 0, 1};
      right[2 * i][0] = target.u(to[i][0]);
      right[2 * i + 1][0] = target.v(to[i][1]);
    }
    double[][] s = LeastSquares.solve(rows, right);
    return (u, v, xy) -> {
      double p = scaling.u(u);
      double q = scaling.v(v);
      xy[0] = target.middleU() + target.size() * (s[0][0] * p - s[1][0] * q + s[2][0]);
      xy[1] = target.middleV() + target.size() * (s[1][0] * p + s[0][0] * q + s[3][0]);
    };
  }
}
