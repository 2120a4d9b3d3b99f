package sharpkestrel.raster;

import java.util.function.DoubleUnaryOperator;

/**
 * For each place along an axis of one grid, the pixels of another that it is made of and their weights. Places are worked
 * out from the grids' origins, so that the weights of a place do not depend on the tile in which it is computed.
 *
 * @param first first pixel under each place, of the other grid
 * @param weights of {@code size} pixels from the first on, place by place; they add up to 1
 * @param size pixels under a place
 * @param period places after which the same weights lie over the next pixel; 0 where they do not come again
 */
public record Taps(int[] first, float[] weights, int size, int period) {

  private static final int LONGEST = 16;

  /**
   * @param step pixels of the other grid from one place to the next
   * @param start where pixel 0 of this axis begins on the other, in its pixels
   * @param from first place wanted
   * @param reach of the kernel, in pixels of the other grid
   * @param kernel weight by distance from the place in pixels; need not add up to 1
   */
  public static Taps of(
      double step, double start, int from, int count, double reach, DoubleUnaryOperator kernel) {
    int size = 2 * (int) Math.ceil(reach);
    int[] first = new int[count];
    float[] weights = new float[count * size];
    double[] raw = new double[size];
    for (int i = 0; i < count; i++) {
      double place = start + step * (from + i + 0.5);
      first[i] = (int) Math.floor(place - 0.5) - size / 2 + 1;
      double sum = 0;
      for (int k = 0; k < size; k++) {
        raw[k] = kernel.applyAsDouble(first[i] + k + 0.5 - place);
        sum += raw[k];
      }
      for (int k = 0; k < size; k++) {
        weights[i * size + k] = (float) (raw[k] / sum);
      }
    }
    return new Taps(first, weights, size, period(first, weights, size));
  }

  private static int period(int[] first, float[] weights, int size) {
    for (int period = 1; period <= LONGEST && 2 * period <= first.length; period++) {
      if (comesAgain(first, weights, size, period)) {
        return period;
      }
    }
    return 0;
  }

  private static boolean comesAgain(int[] first, float[] weights, int size, int period) {
    for (int i = period; i < first.length; i++) {
      if (first[i] != first[i - period] + 1) {
        return false;
      }
      for (int k = 0; k < size; k++) {
        if (weights[i * size + k] != weights[(i - period) * size + k]) {
          return false;
        }
      }
    }
    return true;
  }

  /** Cubic convolution with parameter -0.5 (Keys 1981, IEEE Trans. ASSP 29(6), 1153-1160). */
  public static Taps cubic(double step, double start, int from, int count) {
    return of(step, start, from, count, 2, Taps::keys);
  }

  /** A Gaussian, cut off at three standard deviations, which are in pixels of the other grid. */
  public static Taps gaussian(double step, double start, int from, int count, double sigma) {
    double most = Math.max(1, 3 * sigma);
    return of(
        step,
        start,
        from,
        count,
        most,
        d -> Math.abs(d) < most ? Math.exp(-d * d / (2 * sigma * sigma)) : 0);
  }

  /** A mean over so many pixels, those at its ends by the share that lies within. */
  public static Taps box(double step, double start, int from, int count, double width) {
    return of(
        step,
        start,
        from,
        count,
        width / 2 + 0.5,
        d -> Math.max(0, Math.min(1, width / 2 + 0.5 - Math.abs(d))));
  }

  public static Taps bilinear(double step, double start, int from, int count) {
    return of(step, start, from, count, 1, d -> Math.max(0, 1 - Math.abs(d)));
  }

  private static double keys(double distance) {
    double t = Math.abs(distance);
    if (t < 1) {
      return (1.5 * t - 2.5) * t * t + 1;
    }
    return t < 2 ? ((-0.5 * t + 2.5) * t - 4) * t + 2 : 0;
  }

  public int count() {
    return first.length;
  }

  /** The lowest pixel that any place needs. */
  public int low() {
    return Math.min(first[0], first[first.length - 1]);
  }

  /** One past the highest pixel that any place needs. */
  public int high() {
    return Math.max(first[0], first[first.length - 1]) + size;
  }

  /** The share of each place's weights that lies from one pixel to before another. */
  float[] inside(int from, int to) {
    float[] shares = new float[first.length];
    for (int i = 0; i < first.length; i++) {
      for (int k = Math.max(0, from - first[i]); k < Math.min(size, to - first[i]); k++) {
        shares[i] += weights[i * size + k];
      }
    }
    return shares;
  }
}
