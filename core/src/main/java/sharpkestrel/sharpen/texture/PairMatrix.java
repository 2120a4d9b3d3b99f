package sharpkestrel.sharpen.texture;

/**
 * The co-occurrence matrix of a window that slides along a row: a column of pairs leaves, another comes in, and what is
 * measured follows each of them, so that the matrix is never gone through as a whole (after Unser 1986, IEEE Trans. PAMI
 * 8(1), 118-125, and Clausi and Jernigan 1998, IEEE TGRS 36(1), 298-300). Sums are of whole numbers in fixed point, so they
 * do not drift, and do not depend on where a row of the tile begins.
 *
 * <p>What one pair more changes is looked up as a whole: in one long stand, from the highest bit on, how much more the sum of
 * {@code n ln n} is, how much more that of {@code n²}, and whether the levels of the pair are the same.
 */
final class PairMatrix {

  /** Bits for how many pairs of a column are of the same level: windows have at most 101 rows. */
  private static final int ALIKE_BITS = 7;

  /** Bits for the changes of squares by a column: at most 101 times {@code 2 (2 n + 1)} with n to 101². */
  private static final int SQUARE_BITS = 22;

  /** Of the {@code n ln n}; their changes by a column take up to 11 bits before the point. */
  private static final int FRACTION_BITS = 23;

  private static final double UNIT = 1L << FRACTION_BITS;

  private static final double LOG_TWO = Math.log(2);

  private final int pairsAcross;
  private final int pairsDown;
  private final int pairRows;
  private final int[] cells;
  private final int[] counts;
  private final long[] steps;
  private final long[] nLogN;
  private final int holes;
  private final long[] squaresAlong;
  private final long[] logsAlong;
  private final int[] apartAlong;
  private int alike;
  private long squares;
  private long pairLogs;

  PairMatrix(LevelPairs source, int levels) {
    pairsAcross = source.across();
    pairsDown = source.down();
    pairRows = source.rows();
    holes = levels * (levels + 1) / 2;
    int columns = source.columns();
    // column by column, as the pairs that enter and leave lie one below the other
    cells = new int[columns * pairRows];
    int[] upper = new int[columns];
    int[] lower = new int[columns];
    for (int y = 0; y < pairRows; y++) {
      source.row(y, upper, lower);
      for (int c = 0; c < columns; c++) {
        cells[c * pairRows + y] = cell(upper[c], lower[c]);
      }
    }
    // twice how often a pair of levels occurs, and one more where they are the same
    counts = new int[holes + 1];
    for (int level = 0; level < levels; level++) {
      counts[cell(level, level)] = 1;
    }
    int windows = columns - pairsAcross + 1;
    squaresAlong = new long[windows];
    logsAlong = new long[windows];
    apartAlong = new int[windows];
    // a power of two, as a masked index needs no check
    int most = Integer.highestOneBit(pairsAcross * pairsDown) << 1;
    nLogN = new long[most + 1];
    for (int n = 1; n <= most; n++) {
      nLogN[n] = Math.round(UNIT * n * Math.log(n));
    }
    steps = new long[2 * most];
    for (int n = 0; n < most; n++) {
      long more = nLogN[n + 1] - nLogN[n];
      int squaresMore = 2 * n + 1;
      steps[2 * n] = packed(more, squaresMore, 0);
      steps[2 * n + 1] = packed(more, 2 * squaresMore, 1);
    }
  }

  /** Where a pair is counted, in either order; pairs of which a pixel is missing are counted too, to be taken off again. */
  private int cell(int i, int j) {
    if (i == Levels.NONE || j == Levels.NONE) {
      return holes;
    }
    int high = Math.max(i, j);
    return high * (high + 1) / 2 + Math.min(i, j);
  }

  private static long packed(long logs, int squares, int alike) {
    return (logs << SQUARE_BITS | squares) << ALIKE_BITS | alike;
  }

  /**
   * Measures the windows about all pixels of a row; NaN where a window holds no pair.
   *
   * @param shares one over the pairs in each window
   * @param moments (output) the sum of p²
   * @param entropies (output) minus the sum of p ln p
   */
  void measure(int row, double[] shares, double[] moments, double[] entropies) {
    int windows = shares.length;
    for (int x = 0; x < pairsAcross; x++) {
      enter(row, x);
    }
    for (int x = 0; x < windows; x++) {
      if (x > 0) {
        exchange(row, x - 1, x - 1 + pairsAcross);
      }
      long missing = counts[holes] / 2;
      long total = pairsAcross * pairsDown - missing;
      squaresAlong[x] = squares - missing * missing;
      logsAlong[x] = nLogN[(int) total] - (pairLogs - nLogN[(int) missing]);
      apartAlong[x] = (int) total - alike;
    }
    for (int x = windows - 1; x < windows - 1 + pairsAcross; x++) {
      leave(row, x);
    }
    for (int x = 0; x < windows; x++) {
      // p is n/2N off the diagonal, twice, and n/N on it; squares holds n² and 2n²
      moments[x] = 0.5 * squaresAlong[x] * shares[x] * shares[x];
      entropies[x] = (apartAlong[x] * LOG_TWO + logsAlong[x] / UNIT) * shares[x];
    }
  }

  private void enter(int row, int column) {
    long more = 0;
    int from = column * pairRows + row;
    for (int k = from; k < from + pairsDown; k++) {
      int n = counts[cells[k]];
      counts[cells[k]] = n + 2;
      more += steps[n & steps.length - 1];
    }
    change(more, 1);
  }

  private void leave(int row, int column) {
    long less = 0;
    int from = column * pairRows + row;
    for (int k = from; k < from + pairsDown; k++) {
      int n = counts[cells[k]] - 2;
      counts[cells[k]] = n;
      less += steps[n & steps.length - 1];
    }
    change(less, -1);
  }

  /** Both in one loop, which takes a fifth less time. */
  private void exchange(int row, int leaving, int entering) {
    int[] held = counts;
    int[] which = cells;
    long[] table = steps;
    int down = pairsDown;
    int out = leaving * pairRows + row;
    int in = entering * pairRows + row;
    long less = 0;
    long more = 0;
    for (int k = 0; k < down; k++) {
      int gone = which[out + k];
      int n = held[gone] - 2;
      held[gone] = n;
      less += table[n & table.length - 1];
      int come = which[in + k];
      int m = held[come];
      held[come] = m + 2;
      more += table[m & table.length - 1];
    }
    change(less, -1);
    change(more, 1);
  }

  private void change(long packed, int sign) {
    alike += sign * (int) (packed & (1L << ALIKE_BITS) - 1);
    squares += sign * (packed >>> ALIKE_BITS & (1L << SQUARE_BITS) - 1);
    pairLogs += sign * (packed >>> ALIKE_BITS + SQUARE_BITS);
  }
}
