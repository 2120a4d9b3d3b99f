package sharpkestrel.sharpen.texture;

import java.util.EnumSet;
import java.util.Set;
import java.util.function.BiConsumer;

/**
 * How often pairs of levels, their differences and their sums occur in the window about each pixel, and what the measures make
 * of it. Only what the measures need is counted.
 */
final class PairCounts {

  /** Below any entropy that is not 0. */
  private static final double LEAST = 1e-9;

  private final LevelPairs pairs;
  private final PairMatrix matrix;
  private final NumberCounts single;
  private final NumberCounts differences;
  private final NumberCounts sums;
  private final int[] upper;
  private final int[] lower;
  private final int[] numbers;
  private final double[] secondMoments;
  private final double[] pairEntropies;
  private final double[] singleEntropies;
  private final double[] differenceEntropies;
  private final double[] sumEntropies;
  private int row = -1;

  PairCounts(LevelTile tile, Displacement displacement, int levels, Set<Measure> measures) {
    pairs = new LevelPairs(tile, displacement);
    int columns = pairs.columns();
    int across = pairs.across();
    upper = new int[columns];
    lower = new int[columns];
    numbers = new int[columns];
    Set<Measure> ofMatrix =
        EnumSet.of(Measure.SECOND_MOMENT, Measure.PAIR_ENTROPY, Measure.INFORMATION);
    ofMatrix.retainAll(measures);
    matrix = ofMatrix.isEmpty() ? null : new PairMatrix(pairs, levels);
    LogTable logs = new LogTable(2 * across * pairs.down());
    single = measures.contains(Measure.INFORMATION)
        ? new NumberCounts(levels, columns, across, logs)
        : null;
    differences = measures.contains(Measure.DIFFERENCE_ENTROPY)
        ? new NumberCounts(levels, columns, across, logs)
        : null;
    sums = measures.contains(Measure.SUM_ENTROPY)
        ? new NumberCounts(2 * levels - 1, columns, across, logs)
        : null;
    secondMoments = new double[tile.width()];
    pairEntropies = new double[tile.width()];
    singleEntropies = new double[tile.width()];
    differenceEntropies = new double[tile.width()];
    sumEntropies = new double[tile.width()];
    for (int y = 0; y < pairs.down() - 1; y++) {
      count(y, NumberCounts::enter);
    }
  }

  /**
   * Goes on to the next row of the tile, and counts in the windows about its pixels.
   *
   * @param totals pairs in each window
   * @param shares one over that
   */
  void next(int[] totals, double[] shares) {
    row++;
    if (matrix != null) {
      matrix.measure(row, shares, secondMoments, pairEntropies);
    }
    if (row > 0) {
      count(row - 1, NumberCounts::leave);
    }
    count(row + pairs.down() - 1, NumberCounts::enter);
    if (differences != null) {
      differences.entropies(totals, 1, differenceEntropies);
    }
    if (sums != null) {
      sums.entropies(totals, 1, sumEntropies);
    }
    if (single != null) {
      single.entropies(totals, 2, singleEntropies);
    }
  }

  /** Has the numbers of a row of pairs taken in, or let go. */
  private void count(int y, BiConsumer<NumberCounts, int[]> change) {
    readBoth(y);
    if (single != null) {
      change.accept(single, upper);
      change.accept(single, lower);
    }
    if (differences != null) {
      takeDifferences();
      change.accept(differences, numbers);
    }
    if (sums != null) {
      takeSums();
      change.accept(sums, numbers);
    }
  }

  /** Levels of a row of pairs; where one of a pair is missing, so is the other. */
  private void readBoth(int y) {
    if (single == null && differences == null && sums == null) {
      return;
    }
    pairs.row(y, upper, lower);
    for (int x = 0; x < upper.length; x++) {
      boolean missing = upper[x] == Levels.NONE || lower[x] == Levels.NONE;
      upper[x] = missing ? Levels.NONE : upper[x];
      lower[x] = missing ? Levels.NONE : lower[x];
    }
  }

  private void takeDifferences() {
    for (int x = 0; x < numbers.length; x++) {
      numbers[x] = upper[x] == Levels.NONE ? Levels.NONE : Math.abs(upper[x] - lower[x]);
    }
  }

  private void takeSums() {
    for (int x = 0; x < numbers.length; x++) {
      numbers[x] = upper[x] == Levels.NONE ? Levels.NONE : upper[x] + lower[x];
    }
  }

  /**
   * Values of a measure along the row; NaN where a window holds no pair.
   *
   * @param out (output) from {@code at} on
   */
  void of(Measure measure, float[] out, int at) {
    double[] from = switch (measure) {
      case SECOND_MOMENT -> secondMoments;
      case PAIR_ENTROPY -> pairEntropies;
      case DIFFERENCE_ENTROPY -> differenceEntropies;
      case SUM_ENTROPY -> sumEntropies;
      case INFORMATION -> information();
      default -> throw new IllegalArgumentException(measure + " is no count of pairs");
    };
    for (int x = 0; x < from.length; x++) {
      out[at + x] = (float) from[x];
    }
  }

  private double[] information() {
    double[] out = new double[pairEntropies.length];
    for (int x = 0; x < out.length; x++) {
      double own = singleEntropies[x];
      // where there is one level both entropies are 0
      double shared = (pairEntropies[x] - 2 * own) / Math.max(own, LEAST);
      out[x] = Math.max(-1, Math.min(0, shared));
    }
    return out;
  }
}
