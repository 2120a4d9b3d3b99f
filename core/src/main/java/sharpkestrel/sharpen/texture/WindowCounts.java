package sharpkestrel.sharpen.texture;

/**
 * How often small numbers of several kinds occur in a window that slides over a tile. Counts of every column are kept up from
 * row to row, and those of the window are moved on by whole columns, so that the cost does not depend on the window (after
 * Perreault and Hebert 2007, IEEE Trans. Image Processing 16(9), 2389-2394).
 */
final class WindowCounts {

  /** {@code n ln n} in units of 2^-32: sums of whole numbers come out alike in any order. */
  private static final double UNIT = 0x1p32;

  /** Four counts in a long: short loops over ints cost more than they count. */
  private static final int IN_ONE = 4;

  private static final int BITS = Long.SIZE / IN_ONE;

  /** Less is rounding: no window is so large that one number among others makes so little. */
  private static final double NOTHING = 1e-9;

  private final int across;
  private final int stride;
  private final int[] starts;
  private final int[] each;
  private final long[] columns;
  private final int[] totals;
  private final long[] xLogX;
  private final double[] logs;
  private final double[] shares;

  /**
   * @param numbers of each kind that can occur: 0 to one less
   * @param each how many of a kind one thing counts for
   * @param columns of the tile
   * @param across columns in a window
   * @param most numbers of a kind that a window can hold, below 65,536
   */
  WindowCounts(int[] numbers, int[] each, int columns, int across, int most) {
    this.across = across;
    this.each = each;
    starts = new int[numbers.length + 1];
    for (int kind = 0; kind < numbers.length; kind++) {
      starts[kind + 1] = starts[kind] + Math.ceilDiv(numbers[kind], IN_ONE);
    }
    stride = starts[numbers.length];
    this.columns = new long[columns * stride];
    totals = new int[columns];
    // a power of two, as a masked index needs no check
    xLogX = new long[Integer.highestOneBit(most) << 1];
    logs = new double[xLogX.length];
    shares = new double[xLogX.length];
    for (int n = 1; n < xLogX.length; n++) {
      logs[n] = Math.log(n);
      xLogX[n] = Math.round(UNIT * n * logs[n]);
      shares[n] = 1 / (UNIT * n);
    }
  }

  /** One thing more in a column, or one less. */
  void total(int column, int step) {
    totals[column] += step;
  }

  /** A number of it. */
  void count(int kind, int column, int number, int step) {
    columns[column * stride + starts[kind] + (number >> 2)] += (long) step << (number & 3) * BITS;
  }

  /**
   * @param out (output) for each kind and window along the row, from the first column on: entropy with natural logarithms; NaN
   *     where it holds nothing
   */
  void entropies(double[][] out) {
    int kinds = each.length;
    long[] window = new long[stride];
    long[] entering = new long[stride];
    long[] leaving = new long[stride];
    int total = 0;
    for (int x = 0; x < across - 1; x++) {
      System.arraycopy(columns, x * stride, entering, 0, stride);
      slide(window, entering, leaving);
      total += totals[x];
    }
    for (int x = 0; x < out[0].length; x++) {
      System.arraycopy(columns, (x + across - 1) * stride, entering, 0, stride);
      slide(window, entering, leaving);
      total += totals[x + across - 1];
      for (int kind = 0; kind < kinds; kind++) {
        out[kind][x] = entropy(window, starts[kind], starts[kind + 1], total * each[kind]);
      }
      System.arraycopy(columns, x * stride, leaving, 0, stride);
      total -= totals[x];
    }
  }

  /** A number carried from one count to the next comes back, as none of the results is below 0. */
  private static void slide(long[] window, long[] entering, long[] leaving) {
    for (int k = 0; k < window.length; k++) {
      window[k] += entering[k] - leaving[k];
    }
  }

  private double entropy(long[] window, int from, int to, int total) {
    if (total == 0) {
      return Double.NaN;
    }
    long[] table = xLogX;
    int most = table.length - 1;
    long sum = 0;
    for (int k = from; k < to; k++) {
      long four = window[k];
      // most numbers do not occur in a window, and do not for the next either
      if (four != 0) {
        sum += table[(int) four & most]
            + table[(int) (four >>> BITS) & most]
            + table[(int) (four >>> 2 * BITS) & most]
            + table[(int) (four >>> 3 * BITS) & most];
      }
    }
    double entropy = logs[total] - sum * shares[total];
    return entropy < NOTHING ? 0 : entropy;
  }
}
