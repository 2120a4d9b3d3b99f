package sharpkestrel.sharpen.texture;

import java.util.EnumSet;
import java.util.List;
import java.util.Set;

/**
 * How often pairs of levels, their differences and their sums occur in the window about each pixel, and what the measures make
 * of it. Only what the measures need is counted.
 */
final class PairCounts {

  /** What is counted of pairs beside the pairs themselves: their levels, both of them; differences; sums. */
  private static final List<Measure> KINDS =
      List.of(Measure.INFORMATION, Measure.DIFFERENCE_ENTROPY, Measure.SUM_ENTROPY);

  private final LevelPairs pairs;
  private final PairMatrix matrix;
  private final WindowCounts counts;
  private final int single;
  private final int differences;
  private final int sums;
  private final int[] upper;
  private final int[] lower;
  private final double[] secondMoments;
  private final double[] pairEntropies;
  private final double[][] entropies;

  PairCounts(LevelTile tile, Displacement displacement, int levels, Set<Measure> measures) {
    pairs = new LevelPairs(tile, displacement);
    upper = new int[pairs.columns()];
    lower = new int[pairs.columns()];
    Set<Measure> ofMatrix =
        EnumSet.of(Measure.SECOND_MOMENT, Measure.PAIR_ENTROPY, Measure.INFORMATION);
    ofMatrix.retainAll(measures);
    matrix = ofMatrix.isEmpty() ? null : new PairMatrix(pairs, levels);
    List<Measure> kinds = KINDS.stream().filter(measures::contains).toList();
    single = kinds.indexOf(Measure.INFORMATION);
    differences = kinds.indexOf(Measure.DIFFERENCE_ENTROPY);
    sums = kinds.indexOf(Measure.SUM_ENTROPY);
    int[] numbers = kinds.stream()
        .mapToInt(kind -> kind == Measure.SUM_ENTROPY ? 2 * levels - 1 : levels)
        .toArray();
    int[] each =
        kinds.stream().mapToInt(kind -> kind == Measure.INFORMATION ? 2 : 1).toArray();
    counts = kinds.isEmpty()
        ? null
        : new WindowCounts(
            numbers, each, pairs.columns(), pairs.across(), 2 * pairs.across() * pairs.down());
    secondMoments = new double[tile.width()];
    pairEntropies = new double[tile.width()];
    entropies = new double[kinds.size()][tile.width()];
    for (int y = 0; y < pairs.down() - 1; y++) {
      count(y, 1);
    }
  }

  /** Counts in the windows about all pixels of a row of the tile; rows one after the other. */
  void measure(int row) {
    if (matrix != null) {
      matrix.measure(row, secondMoments, pairEntropies);
    }
    if (row > 0) {
      count(row - 1, -1);
    }
    count(row + pairs.down() - 1, 1);
    if (counts != null) {
      counts.entropies(entropies);
    }
  }

  private void count(int row, int step) {
    if (counts == null) {
      return;
    }
    pairs.row(row, upper, lower);
    for (int x = 0; x < upper.length; x++) {
      int i = upper[x];
      int j = lower[x];
      if (i == Levels.NONE || j == Levels.NONE) {
        continue;
      }
      counts.total(x, step);
      if (single >= 0) {
        counts.count(single, x, i, step);
        counts.count(single, x, j, step);
      }
      if (differences >= 0) {
        counts.count(differences, x, Math.abs(i - j), step);
      }
      if (sums >= 0) {
        counts.count(sums, x, i + j, step);
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
      case DIFFERENCE_ENTROPY -> entropies[differences];
      case SUM_ENTROPY -> entropies[sums];
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
      double own = entropies[single][x];
      double shared = (pairEntropies[x] - 2 * own) / own;
      out[x] = own < 1e-9 ? 0 : Math.max(-1, Math.min(0, shared));
    }
    return out;
  }
}
