package sharpkestrel.sharpen.texture;

import java.util.Arrays;

/**
 * The co-occurrence matrix of a window that slides along a row: a column of pairs leaves, another comes in, and what is
 * measured follows each of them, so that the matrix is never gone through as a whole (after Unser 1986, IEEE Trans. PAMI
 * 8(1), 118-125, and Clausi and Jernigan 1998, IEEE TGRS 36(1), 298-300). Sums are of whole numbers in fixed point, so they
 * do not drift, and do not depend on where a row of the tile begins.
 */
final class PairMatrix {

  /** {@code n ln n} in units of 2^-32. */
  private static final double UNIT = 0x1p32;

  private static final double LOG_TWO = Math.log(2);

  private static final int HOLE = -1;

  private final int pairsAcross;
  private final int pairsDown;
  private final int pairRows;
  private final int[] cells;
  private final int[] pairs;
  private final long[] steps;
  private final double[] logs;
  private int total;
  private int alike;
  private long squares;
  private long pairLogs;

  PairMatrix(LevelPairs source, int levels) {
    pairsAcross = source.across();
    pairsDown = source.down();
    pairRows = source.rows();
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
    pairs = new int[levels * (levels + 1) / 2];
    // a power of two, as a masked index needs no check
    steps = new long[Integer.highestOneBit(pairsAcross * pairsDown) << 1];
    logs = new double[steps.length];
    for (int n = 0; n < steps.length; n++) {
      steps[n] = Math.round(UNIT * (xLogX(n + 1) - xLogX(n)));
      logs[n] = Math.log(n);
    }
  }

  /** Where a pair is counted, in either order, and in the lowest bit whether its levels are the same. */
  private static int cell(int i, int j) {
    if (i == Levels.NONE || j == Levels.NONE) {
      return HOLE;
    }
    int high = Math.max(i, j);
    return high * (high + 1) / 2 + Math.min(i, j) << 1 | (i == j ? 1 : 0);
  }

  private static double xLogX(double n) {
    return n > 0 ? n * Math.log(n) : 0;
  }

  /**
   * Measures the windows about all pixels of a row; NaN where a window holds no pair.
   *
   * @param moments (output) the sum of p²
   * @param entropies (output) minus the sum of p ln p
   */
  void measure(int row, double[] moments, double[] entropies) {
    Arrays.fill(pairs, 0);
    total = 0;
    alike = 0;
    squares = 0;
    pairLogs = 0;
    for (int x = 0; x < pairsAcross; x++) {
      follow(row, x, 0);
    }
    for (int x = 0; x < moments.length; x++) {
      if (x > 0) {
        follow(row, x - 1, 1);
        follow(row, x - 1 + pairsAcross, 0);
      }
      moments[x] = secondMoment();
      entropies[x] = entropy();
    }
  }

  /**
   * Without branches where pairs differ, which no processor could foresee.
   *
   * @param lag 0 where a column of pairs enters, 1 where it leaves: what changes goes by the lower of both counts
   */
  private void follow(int row, int column, int lag) {
    int[] counts = pairs;
    long[] table = steps;
    int step = 1 - 2 * lag;
    long logsOfThese = 0;
    int squaresOfThese = 0;
    int same = 0;
    int holes = 0;
    int from = column * pairRows + row;
    for (int k = from; k < from + pairsDown; k++) {
      int cell = cells[k];
      if (cell == HOLE) {
        holes++;
        continue;
      }
      int n = counts[cell >> 1] - lag;
      counts[cell >> 1] = n + 1 - lag;
      logsOfThese += table[n & table.length - 1];
      squaresOfThese += (1 + (cell & 1)) * (2 * n + 1);
      same += cell & 1;
    }
    total += step * (pairsDown - holes);
    alike += step * same;
    squares += step * squaresOfThese;
    pairLogs += step * logsOfThese;
  }

  private double secondMoment() {
    // p is n/2N off the diagonal, twice, and n/N on it; squares holds n² and 2n²
    double n = total;
    return total == 0 ? Double.NaN : squares / (2 * n * n);
  }

  private double entropy() {
    return total == 0
        ? Double.NaN
        : Math.max(0, logs[total] + ((total - alike) * LOG_TWO - pairLogs / UNIT) / total);
  }
}
