package sharpkestrel.sharpen.texture;

import java.util.Arrays;

/**
 * How often small numbers of several kinds occur in a window that slides over a tile. Counts of every column are kept up from
 * row to row, and those of the window follow from column to column, so that the cost does not depend on the window (after
 * Perreault and Hebert 2007, IEEE Trans. Image Processing 16(9), 2389-2394). Each number is followed along the row by itself,
 * and only past columns near which it occurs.
 */
final class WindowCounts {

  /** {@code n ln n} in units of 2^-32: sums of whole numbers come out alike in any order. */
  private static final double UNIT = 0x1p32;

  /** Less is rounding: no window is so large that one number among others makes so little. */
  private static final double NOTHING = 1e-9;

  /** Columns in a block, of which is known what occurs in it. */
  private static final int BLOCK = 64;

  private final int across;
  private final int[] starts;
  private final int[] each;
  private final char[][] columns;
  private final int[][] blocks;
  private final int[] totals;
  private final long[] xLogX;
  private final double[] logs;
  private final double[] shares;

  /**
   * @param numbers of each kind that can occur: 0 to one less
   * @param each how many of a kind one thing counts for
   * @param width columns of the tile
   * @param across columns in a window
   * @param most numbers of a kind that a window can hold, below 65,536
   */
  WindowCounts(int[] numbers, int[] each, int width, int across, int most) {
    this.across = across;
    this.each = each;
    starts = new int[numbers.length + 1];
    for (int kind = 0; kind < numbers.length; kind++) {
      starts[kind + 1] = starts[kind] + numbers[kind];
    }
    columns = new char[starts[numbers.length]][width];
    blocks = new int[columns.length][Math.ceilDiv(width, BLOCK)];
    totals = new int[width];
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
    int at = starts[kind] + number;
    columns[at][column] += (char) step;
    blocks[at][column / BLOCK] += step;
  }

  /**
   * @param out (output) for each kind and window along the row, from the first column on: entropy with natural logarithms; NaN
   *     where it holds nothing
   */
  void entropies(double[][] out) {
    int width = out[0].length;
    int[] inWindow = new int[width];
    int total = 0;
    for (int x = 0; x < across - 1; x++) {
      total += totals[x];
    }
    for (int x = 0; x < width; x++) {
      total += totals[x + across - 1];
      inWindow[x] = total;
      total -= totals[x];
    }
    long[] sums = new long[width];
    for (int kind = 0; kind < each.length; kind++) {
      Arrays.fill(sums, 0);
      for (int number = starts[kind]; number < starts[kind + 1]; number++) {
        follow(number, sums);
      }
      for (int x = 0; x < width; x++) {
        int n = inWindow[x] * each[kind];
        double entropy = n == 0 ? Double.NaN : logs[n] - sums[x] * shares[n];
        out[kind][x] = entropy < NOTHING ? 0 : entropy;
      }
    }
  }

  private void follow(int number, long[] sums) {
    int[] held = blocks[number];
    for (int from = 0; from < sums.length; from += BLOCK) {
      int to = Math.min(sums.length, from + BLOCK);
      int last = (to + across - 2) / BLOCK;
      boolean occurs = false;
      for (int block = from / BLOCK; block <= last; block++) {
        occurs |= held[block] != 0;
      }
      if (occurs) {
        add(columns[number], from, to, sums);
      }
    }
  }

  private void add(char[] column, int from, int to, long[] sums) {
    long[] table = xLogX;
    int most = table.length - 1;
    int n = 0;
    for (int x = from; x < from + across; x++) {
      n += column[x];
    }
    sums[from] += table[n & most];
    for (int x = from + 1; x < to; x++) {
      // one sum a step, so that steps wait for one another as little as can be
      n += column[x + across - 1] - column[x - 1];
      sums[x] += table[n & most];
    }
  }
}
