package sharpkestrel.sharpen.texture;

import java.util.EnumSet;
import java.util.Set;

/**
 * How often pairs of levels, their differences and their sums occur in the window about each pixel, and what the measures make
 * of it. Only what the measures need is counted.
 */
final class PairCounts {

  private final LevelPairs pairs;
  private final PairMatrix matrix;
  private final WindowCounts single;
  private final WindowCounts differences;
  private final WindowCounts sums;
  private final int[] upper;
  private final int[] lower;
  private final double[] secondMoments;
  private final double[] pairEntropies;
  private final double[] singleEntropies;
  private final double[] differenceEntropies;
  private final double[] sumEntropies;

  PairCounts(LevelTile tile, Displacement displacement, int levels, Set<Measure> measures) {
    pairs = new LevelPairs(tile, displacement);
    upper = new int[pairs.columns()];
    lower = new int[pairs.columns()];
    Set<Measure> ofMatrix =
        EnumSet.of(Measure.SECOND_MOMENT, Measure.PAIR_ENTROPY, Measure.INFORMATION);
    ofMatrix.retainAll(measures);
    matrix = ofMatrix.isEmpty() ? null : new PairMatrix(pairs, levels);
    single = measures.contains(Measure.INFORMATION) ? counts(levels) : null;
    differences = measures.contains(Measure.DIFFERENCE_ENTROPY) ? counts(levels) : null;
    sums = measures.contains(Measure.SUM_ENTROPY) ? counts(2 * levels - 1) : null;
    secondMoments = new double[tile.width()];
    pairEntropies = new double[tile.width()];
    singleEntropies = new double[tile.width()];
    differenceEntropies = new double[tile.width()];
    sumEntropies = new double[tile.width()];
    for (int y = 0; y < pairs.down() - 1; y++) {
      count(y, 1);
    }
  }

  private WindowCounts counts(int numbers) {
    return new WindowCounts(
        numbers, pairs.columns(), pairs.across(), 2 * pairs.across() * pairs.down());
  }

  /** Counts in the windows about all pixels of a row of the tile; rows one after the other. */
  void measure(int row) {
    if (row > 0) {
      count(row - 1, -1);
    }
    count(row + pairs.down() - 1, 1);
    if (matrix != null) {
      matrix.measure(row, secondMoments, pairEntropies);
    }
    if (single != null) {
      single.entropies(singleEntropies);
    }
    if (differences != null) {
      differences.entropies(differenceEntropies);
    }
    if (sums != null) {
      sums.entropies(sumEntropies);
    }
  }

  private void count(int row, int step) {
    pairs.row(row, upper, lower);
    for (int x = 0; x < upper.length; x++) {
      int i = upper[x];
      int j = lower[x];
      if (i == Levels.NONE || j == Levels.NONE) {
        continue;
      }
      if (single != null) {
        single.count(x, i, step);
        single.count(x, j, step);
      }
      if (differences != null) {
        differences.count(x, Math.abs(i - j), step);
      }
      if (sums != null) {
        sums.count(x, i + j, step);
      }
    }
  }

  /**
   * Values of a measure along the row measured last; NaN where a window holds no pair.
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
    double[] out = new double[singleEntropies.length];
    for (int x = 0; x < out.length; x++) {
      double own = singleEntropies[x];
      double shared = (pairEntropies[x] - 2 * own) / own;
      out[x] = own < 1e-9 ? 0 : Math.max(-1, Math.min(0, shared));
    }
    return out;
  }
}
