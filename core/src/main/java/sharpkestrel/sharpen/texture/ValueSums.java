package sharpkestrel.sharpen.texture;

/**
 * Mean, variance and range of the values in the window about each pixel; no-data is left out. Sums are of whole numbers in
 * fixed point: floats would lose the variance of dark water, and would depend on where a tile begins.
 */
final class ValueSums {

  private final float[] values;
  private final int stride;
  private final int width;
  private final int height;
  private final int side;
  private final double low;
  private final double unit;

  /**
   * @param values (input) rows of {@code stride}, with a margin of the window's radius on each side
   * @param low the lowest value there can be
   * @param unit of fixed point: 1 for whole numbers
   */
  ValueSums(float[] values, int stride, int radius, double low, double unit) {
    this.values = values;
    this.stride = stride;
    this.low = low;
    this.unit = unit;
    side = 2 * radius + 1;
    width = stride - 2 * radius;
    height = values.length / stride - 2 * radius;
  }

  /**
   * @param mean (output) and {@code variance}, of the population, for each pixel of the tile
   */
  void moments(float[] mean, float[] variance) {
    long[] counts = new long[stride];
    long[] sums = new long[stride];
    long[] squares = new long[stride];
    for (int y = 0; y < side - 1; y++) {
      take(y, 1, counts, sums, squares);
    }
    for (int y = 0; y < height; y++) {
      take(y + side - 1, 1, counts, sums, squares);
      long n = 0;
      long s = 0;
      long q = 0;
      for (int x = 0; x < side - 1; x++) {
        n += counts[x];
        s += sums[x];
        q += squares[x];
      }
      for (int x = 0; x < width; x++) {
        n += counts[x + side - 1];
        s += sums[x + side - 1];
        q += squares[x + side - 1];
        double m = (double) s / n;
        mean[y * width + x] = (float) (low + m * unit);
        double v = ((double) q - m * s) / n;
        variance[y * width + x] = (float) (Math.max(0, v) * unit * unit);
        n -= counts[x];
        s -= sums[x];
        q -= squares[x];
      }
      take(y, -1, counts, sums, squares);
    }
  }

  private void take(int row, int sign, long[] counts, long[] sums, long[] squares) {
    int from = row * stride;
    for (int x = 0; x < stride; x++) {
      float v = values[from + x];
      if (!Float.isNaN(v)) {
        long fixed = sign * Math.round((v - low) / unit);
        counts[x] += sign;
        sums[x] += fixed;
        squares[x] += sign * fixed * fixed;
      }
    }
  }

  /**
   * @param range (output) highest less lowest value, for each pixel of the tile
   */
  void range(float[] range) {
    float[] high = new float[width * height];
    extremes(1, high);
    extremes(-1, range);
    for (int i = 0; i < range.length; i++) {
      float between = high[i] + range[i];
      range[i] = between == Float.NEGATIVE_INFINITY ? Float.NaN : between;
    }
  }

  /** The highest of the values times a sign; minus infinity where there are none. */
  private void extremes(int sign, float[] out) {
    float[][] across = new float[height + side - 1][width];
    float[] row = new float[stride];
    float[] part = new float[width];
    for (int y = 0; y < across.length; y++) {
      for (int x = 0; x < stride; x++) {
        float v = sign * values[y * stride + x];
        row[x] = Float.isNaN(v) ? Float.NEGATIVE_INFINITY : v;
      }
      System.arraycopy(row, 0, across[y], 0, width);
      for (int k = 1; k < side; k++) {
        System.arraycopy(row, k, part, 0, width);
        highest(across[y], part);
      }
    }
    for (int y = 0; y < height; y++) {
      System.arraycopy(across[y], 0, part, 0, width);
      for (int k = 1; k < side; k++) {
        highest(part, across[y + k]);
      }
      System.arraycopy(part, 0, out, y * width, width);
    }
  }

  private static void highest(float[] soFar, float[] more) {
    for (int i = 0; i < soFar.length; i++) {
      soFar[i] = Math.max(soFar[i], more[i]);
    }
  }
}
