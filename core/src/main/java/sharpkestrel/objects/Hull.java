package sharpkestrel.objects;

import java.util.Arrays;
import sharpkestrel.outline.MinimumRectangle;

/**
 * The convex hull of the corners of an object's outermost pixels (Andrew 1979, monotone chain), down the right side, then up
 * the left.
 */
record Hull(double[] xs, double[] ys) {

  /**
   * @param low (input) first column of each row of the object
   * @param high (input) the column after the last; below 0 where a row has none
   * @param from place of the object's first row in those, up to {@code to}
   * @param top the scene's row that it is
   */
  static Hull of(int[] low, int[] high, int from, int to, int top) {
    int rows = to - from;
    double[] xs = new double[4 * rows + 4];
    double[] ys = new double[4 * rows + 4];
    int n = 0;
    // down the right side, then up the left, each kept convex
    for (int side = 0; side < 2; side++) {
      int start = n;
      for (int r = 0; r < rows; r++) {
        int k = side == 0 ? from + r : to - 1 - r;
        if (high[k] < 0) {
          continue;
        }
        double x = side == 0 ? high[k] : low[k];
        double y = top + k - from;
        for (int corner = 0; corner < 2; corner++) {
          double cy = side == 0 ? y + corner : y + 1 - corner;
          while (n - start >= 2
              && (xs[n - 1] - xs[n - 2]) * (cy - ys[n - 2])
                      - (ys[n - 1] - ys[n - 2]) * (x - xs[n - 2])
                  <= 0) {
            n--;
          }
          xs[n] = x;
          ys[n++] = cy;
        }
      }
    }
    return new Hull(Arrays.copyOf(xs, n), Arrays.copyOf(ys, n));
  }

  MinimumRectangle rectangle() {
    return MinimumRectangle.ofHull(xs, ys, xs.length);
  }

  /** In pixels. */
  double area() {
    double twice = 0;
    for (int i = 0, j = xs.length - 1; i < xs.length; j = i++) {
      twice += xs[j] * ys[i] - xs[i] * ys[j];
    }
    return Math.abs(twice) / 2;
  }
}
