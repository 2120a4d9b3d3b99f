package sharpkestrel.objects;

import sharpkestrel.geo.GroundSize;

/** The plane that fits the surface over each object best, by least squares: its steepness, and how rough the surface is about it. */
final class PlaneFit implements ObjectStrips.Collector<PlaneFit.Part> {

  private static final int SUMS = 9;

  private final int plane;
  private final GroundSize ground;
  private final double[] sums;

  record Part(int low, double[] sums) {}

  /**
   * @param plane of the surface's heights in metres
   */
  PlaneFit(int objects, int plane, GroundSize ground) {
    this.plane = plane;
    this.ground = ground;
    sums = new double[objects * SUMS];
  }

  @Override
  public Part strip(ObjectStrips.Strip strip) {
    float[] heights = strip.planes()[plane];
    double[] part = new double[strip.count() * SUMS];
    for (int k = 0; k < strip.count(); k++) {
      int at = k * SUMS;
      for (int i = strip.starts()[k]; i < strip.starts()[k + 1]; i++) {
        int place = strip.order()[i];
        double h = heights[place];
        if (Double.isNaN(h)) {
          continue;
        }
        double x = strip.column(place) * ground.width();
        double y = strip.row(place) * ground.height();
        part[at]++;
        part[at + 1] += x;
        part[at + 2] += y;
        part[at + 3] += h;
        part[at + 4] += x * x;
        part[at + 5] += x * y;
        part[at + 6] += y * y;
        part[at + 7] += x * h;
        part[at + 8] += y * h;
      }
    }
    return new Part(strip.low(), part);
  }

  @Override
  public void join(Part part) {
    for (int i = 0; i < part.sums.length; i++) {
      sums[part.low * SUMS + i] += part.sums[i];
    }
  }

  /**
   * @param variance of the heights of each object
   * @param slopes (output) degrees; NaN where there are no heights
   * @param roughness (output) metres
   */
  void end(double[] variance, double[] slopes, double[] roughness) {
    for (int i = 0; i < slopes.length; i++) {
      int at = i * SUMS;
      double n = sums[at];
      if (n == 0) {
        slopes[i] = Double.NaN;
        roughness[i] = Double.NaN;
        continue;
      }
      double mx = sums[at + 1] / n;
      double my = sums[at + 2] / n;
      double mh = sums[at + 3] / n;
      double xx = sums[at + 4] / n - mx * mx;
      double xy = sums[at + 5] / n - mx * my;
      double yy = sums[at + 6] / n - my * my;
      double xh = sums[at + 7] / n - mx * mh;
      double yh = sums[at + 8] / n - my * mh;
      double det = xx * yy - xy * xy;
      boolean flat = !(det > 1e-9 * (xx + yy) * (xx + yy));
      double a = flat ? 0 : (xh * yy - yh * xy) / det;
      double b = flat ? 0 : (yh * xx - xh * xy) / det;
      slopes[i] = Math.toDegrees(Math.atan(Math.hypot(a, b)));
      roughness[i] = Math.sqrt(Math.max(0, variance[i] - a * xh - b * yh));
    }
  }
}
