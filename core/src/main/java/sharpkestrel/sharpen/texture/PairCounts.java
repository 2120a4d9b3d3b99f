package sharpkestrel.sharpen.texture;

import java.util.Arrays;

/**
 * Counts of the pairs of levels in a window that slides along a row: a column of pairs leaves, another comes in, and what is
 * measured follows each of them, so that nothing is ever gone through as a whole (after Unser 1986, IEEE Trans. PAMI 8(1),
 * 118-125, and Clausi and Jernigan 1998, IEEE TGRS 36(1), 298-300). Sums are of whole numbers in fixed point, so they do not
 * drift, and do not depend on where a row of the tile begins.
 */
final class PairCounts {

  /** {@code n ln n} in units of 2^-32. */
  private static final double UNIT = 0x1p32;

  private static final double LOG_TWO = Math.log(2);

  private static final char HOLE = Character.MAX_VALUE;

  private final int pairsAcross;
  private final int pairsDown;
  private final int levels;
  private final int pairRows;
  private final char[] lows;
  private final char[] highs;
  private final int[] pairs;
  private final int[] single;
  private final int[] differences;
  private final int[] sums;
  private final long[] steps;
  private final double[] logs;
  private final boolean wantsSums;
  private int total;
  private int unlike;
  private long squares;
  private long pairLogs;
  private long singleLogs;
  private long differenceLogs;
  private long sumLogs;

  PairCounts(LevelTile tile, Displacement displacement, int levels, boolean wantsSums) {
    this.levels = levels;
    this.wantsSums = wantsSums;
    // a pair counts in both orders, so the one that goes down may stand for both
    boolean up = displacement.down() < 0;
    int right = up ? -displacement.right() : displacement.right();
    int down = Math.abs(displacement.down());
    int side = 2 * tile.radius() + 1;
    pairsAcross = side - Math.abs(right);
    pairsDown = side - down;
    int[][] rows = tile.rows();
    pairRows = rows.length - down;
    int columns = rows[0].length - Math.abs(right);
    // column by column, as the pairs that enter and leave lie one below the other
    lows = new char[columns * pairRows];
    highs = new char[columns * pairRows];
    for (int y = 0; y < pairRows; y++) {
      for (int c = 0; c < columns; c++) {
        int x = right < 0 ? c - right : c;
        int i = rows[y][x];
        int j = rows[y + down][x + right];
        boolean hole = (i | j) < 0;
        lows[c * pairRows + y] = (char) (hole ? HOLE : Math.min(i, j));
        highs[c * pairRows + y] = (char) Math.max(0, Math.max(i, j));
      }
    }
    pairs = new int[levels * levels];
    single = new int[levels];
    differences = new int[levels];
    sums = new int[2 * levels];
    steps = new long[2 * side * side + 2];
    logs = new double[steps.length];
    for (int n = 0; n + 1 < steps.length; n++) {
      steps[n] = Math.round(UNIT * (xLogX(n + 1) - xLogX(n)));
      logs[n] = Math.log(n);
    }
  }

  private static double xLogX(double n) {
    return n > 0 ? n * Math.log(n) : 0;
  }

  /** Starts over at the window about the first pixel of a row of the tile. */
  void start(int row) {
    Arrays.fill(pairs, 0);
    Arrays.fill(single, 0);
    Arrays.fill(differences, 0);
    Arrays.fill(sums, 0);
    total = 0;
    unlike = 0;
    squares = 0;
    pairLogs = 0;
    singleLogs = 0;
    differenceLogs = 0;
    sumLogs = 0;
    for (int x = 0; x < pairsAcross; x++) {
      enter(row, x);
    }
  }

  /** Moves from the window about a pixel to that about the next. */
  void move(int row, int fromColumn) {
    leave(row, fromColumn);
    enter(row, fromColumn + pairsAcross);
  }

  private void enter(int row, int column) {
    follow(row, column, 0);
  }

  private void leave(int row, int column) {
    follow(row, column, 1);
  }

  /**
   * Without branches where pairs differ, which no processor could foresee.
   *
   * @param lag 0 where a column of pairs enters, 1 where it leaves: what changes goes by the lower of both counts
   */
  private void follow(int row, int column, int lag) {
    int[] counts = pairs;
    int[] singles = single;
    int step = 1 - 2 * lag;
    long pairLog = 0;
    long singleLog = 0;
    long differenceLog = 0;
    long sumLog = 0;
    long square = 0;
    int alike = 0;
    int holes = 0;
    int from = column * pairRows + row;
    for (int k = from; k < from + pairsDown; k++) {
      int low = lows[k];
      int high = highs[k];
      if (low == HOLE) {
        holes++;
        continue;
      }
      int same = low == high ? 1 : 0;
      int at = low * levels + high;
      int n = counts[at] - lag;
      counts[at] += step;
      pairLog += steps[n];
      square += (1 + same) * (2L * n + 1);
      alike += same;
      singleLog += steps[singles[low] - lag];
      singles[low] += step;
      singleLog += steps[singles[high] - lag];
      singles[high] += step;
      differenceLog += steps[differences[high - low] - lag];
      differences[high - low] += step;
      if (wantsSums) {
        sumLog += steps[sums[low + high] - lag];
        sums[low + high] += step;
      }
    }
    int moved = pairsDown - holes;
    total += step * moved;
    unlike += step * (moved - alike);
    squares += step * square;
    pairLogs += step * pairLog;
    singleLogs += step * singleLog;
    differenceLogs += step * differenceLog;
    sumLogs += step * sumLog;
  }

  /** The value of a measure in the window as it stands; NaN where it holds no pair. */
  float of(Measure measure) {
    if (total == 0) {
      return Float.NaN;
    }
    double n = total;
    return (float)
        switch (measure) {
          // p is n/2N off the diagonal, twice, and n/N on it; squares holds n² and 2n²
          case SECOND_MOMENT -> squares / (2 * n * n);
          case PAIR_ENTROPY -> pairEntropy(n);
          case DIFFERENCE_ENTROPY -> Math.max(0, logs[total] - differenceLogs / UNIT / n);
          case SUM_ENTROPY -> Math.max(0, logs[total] - sumLogs / UNIT / n);
          case INFORMATION -> {
            double own = Math.max(0, logs[2 * total] - singleLogs / UNIT / (2 * n));
            yield own < 1e-9 ? 0 : Math.max(-1, Math.min(0, (pairEntropy(n) - 2 * own) / own));
          }
          default -> throw new IllegalArgumentException(measure + " is no count of pairs");
        };
  }

  private double pairEntropy(double n) {
    return Math.max(0, logs[total] + (unlike * LOG_TWO - pairLogs / UNIT) / n);
  }
}
