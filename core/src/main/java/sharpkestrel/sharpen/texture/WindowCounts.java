package sharpkestrel.sharpen.texture;

/**
 * How often each of some small numbers occurs in a window that slides over a tile. Counts of every column are kept up from
 * row to row, and those of the window are moved on by whole columns, so that the cost does not depend on the window (after
 * Perreault and Hebert 2007, IEEE Trans. Image Processing 16(9), 2389-2394).
 */
final class WindowCounts {

  /** {@code n ln n} in units of 2^-32: sums of whole numbers come out alike in any order. */
  private static final double UNIT = 0x1p32;

  /** Four counts in a long: short loops over ints cost more than they count. */
  private static final int IN_ONE = 4;

  private static final int BITS = Long.SIZE / IN_ONE;

  private final int across;
  private final long[][] columns;
  private final int[] totals;
  private final long[] xLogX;
  private final double[] logs;

  /**
   * @param numbers that can occur: 0 to {@code numbers - 1}
   * @param columns of the tile
   * @param across columns in a window
   * @param most that a window can hold, below 65,536
   */
  WindowCounts(int numbers, int columns, int across, int most) {
    this.across = across;
    this.columns = new long[columns][Math.ceilDiv(numbers, IN_ONE)];
    totals = new int[columns];
    // a power of two, as a masked index needs no check
    xLogX = new long[Integer.highestOneBit(most) << 1];
    logs = new double[xLogX.length];
    for (int n = 1; n < xLogX.length; n++) {
      logs[n] = Math.log(n);
      xLogX[n] = Math.round(UNIT * n * logs[n]);
    }
  }

  /** One more of a number in a column, or one less. */
  void count(int column, int number, int step) {
    columns[column][number / IN_ONE] += (long) step << number % IN_ONE * BITS;
    totals[column] += step;
  }

  /**
   * @param out (output) for each window along the row, from the first column on: entropy with natural logarithms; NaN where it
   *     holds nothing
   */
  void entropies(double[] out) {
    long[] window = new long[columns[0].length];
    long[] none = new long[window.length];
    int total = 0;
    for (int x = 0; x < across; x++) {
      slide(window, columns[x], none);
      total += totals[x];
    }
    out[0] = entropy(window, total);
    for (int x = 1; x < out.length; x++) {
      slide(window, columns[x - 1 + across], columns[x - 1]);
      total += totals[x - 1 + across] - totals[x - 1];
      out[x] = entropy(window, total);
    }
  }

  /** A number carried from one count to the next comes back, as none of the results is below 0. */
  private static void slide(long[] window, long[] entering, long[] leaving) {
    for (int k = 0; k < window.length; k++) {
      window[k] += entering[k] - leaving[k];
    }
  }

  private double entropy(long[] window, int total) {
    if (total == 0) {
      return Double.NaN;
    }
    long[] table = xLogX;
    int most = table.length - 1;
    long sum = 0;
    for (long four : window) {
      // most numbers do not occur in a window, and do not for the next either
      if (four != 0) {
        sum += table[(int) four & most]
            + table[(int) (four >>> BITS) & most]
            + table[(int) (four >>> 2 * BITS) & most]
            + table[(int) (four >>> 3 * BITS) & most];
      }
    }
    return Math.max(0, logs[total] - sum / UNIT / total);
  }
}
