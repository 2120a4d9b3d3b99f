package sharpkestrel.outline;

/**
 * The rectangle of least area around points: one of its sides lies along a side of their convex hull (Freeman and
 * Shapira 1975, CACM 18(7), 409-413).
 *
 * @param length of the longer side
 * @param width of the shorter side
 * @param angle of the longer side, radians from the x axis towards the y axis, in [0, pi)
 */
public record MinimumRectangle(
    double centreX, double centreY, double length, double width, double angle) {

  /**
   * @param xs (input) corners of a convex hull in turn; fewer than three give a rectangle without width
   */
  public static MinimumRectangle ofHull(double[] xs, double[] ys, int count) {
    if (count == 0) {
      return new MinimumRectangle(Double.NaN, Double.NaN, 0, 0, 0);
    }
    MinimumRectangle best = null;
    double least = Double.POSITIVE_INFINITY;
    for (int i = 0; i < Math.max(1, count); i++) {
      int j = (i + 1) % count;
      double dx = xs[j] - xs[i];
      double dy = ys[j] - ys[i];
      double l = Math.hypot(dx, dy);
      double ux = l == 0 ? 1 : dx / l;
      double uy = l == 0 ? 0 : dy / l;
      double uLow = Double.POSITIVE_INFINITY;
      double uHigh = -uLow;
      double vLow = uLow;
      double vHigh = -uLow;
      for (int k = 0; k < count; k++) {
        double u = xs[k] * ux + ys[k] * uy;
        double v = -xs[k] * uy + ys[k] * ux;
        uLow = Math.min(uLow, u);
        uHigh = Math.max(uHigh, u);
        vLow = Math.min(vLow, v);
        vHigh = Math.max(vHigh, v);
      }
      double area = (uHigh - uLow) * (vHigh - vLow);
      if (area < least) {
        least = area;
        double cu = (uLow + uHigh) / 2;
        double cv = (vLow + vHigh) / 2;
        boolean along = uHigh - uLow >= vHigh - vLow;
        double angle = Math.atan2(uy, ux) + (along ? 0 : Math.PI / 2);
        angle = ((angle % Math.PI) + Math.PI) % Math.PI;
        best = new MinimumRectangle(
            cu * ux - cv * uy,
            cu * uy + cv * ux,
            Math.max(uHigh - uLow, vHigh - vLow),
            Math.min(uHigh - uLow, vHigh - vLow),
            angle);
      }
    }
    return best;
  }
}
