package sharpkestrel.raster;

/** Values between the centres of a plane's pixels, along straight lines. */
public final class Bilinear {

  private Bilinear() {}

  /**
   * The value at a place; beyond the outermost centres that of the nearest place between them.
   *
   * @param plane (input) height * width, row by row
   * @param x in pixels, centres at .5
   */
  public static double held(float[] plane, int width, int height, double x, double y) {
    double u = Math.max(0, Math.min(width - 1.0, x - 0.5));
    double v = Math.max(0, Math.min(height - 1.0, y - 0.5));
    int left = Math.min((int) u, Math.max(0, width - 2));
    int top = Math.min((int) v, Math.max(0, height - 2));
    int right = width > 1 ? 1 : 0;
    int below = height > 1 ? width : 0;
    int i = top * width + left;
    double fx = u - left;
    double upper = plane[i] + (plane[i + right] - plane[i]) * fx;
    double lower = plane[i + below] + (plane[i + below + right] - plane[i + below]) * fx;
    return upper + (lower - upper) * (v - top);
  }

  /** The value at a place; NaN beyond the outermost centres and beside what is not known. */
  public static double inside(float[] plane, int width, int height, double x, double y) {
    return x >= 0.5 && y >= 0.5 && x < width - 0.5 && y < height - 0.5
        ? held(plane, width, height, x, y)
        : Double.NaN;
  }
}
