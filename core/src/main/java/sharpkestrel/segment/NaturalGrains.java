package sharpkestrel.segment;

import java.util.ArrayList;
import java.util.List;

/**
 * Which grains are a tree's own. Where the things of a scene are of one size, hardly anything merges while the height rises: a
 * small step in grain takes a large one in height. The steadiness of a grain is that step, the slope of the logarithm of the
 * height over that of the grain; natural grains are where it peaks.
 *
 * @param grains in m², evenly spaced in their logarithm
 * @param steadiness of each of them
 * @param natural those that peak, rising
 */
public record NaturalGrains(double[] grains, double[] steadiness, List<Double> natural) {

  private static final int STEPS = 48;

  /** Share of the range of steadiness by which a peak stands above what lies between it and a higher one. */
  private static final double PROMINENCE = 0.1;

  /**
   * @param least grain that is looked at, in m²
   */
  public static NaturalGrains of(Cut cut, double least, double most) {
    MergeTree tree = cut.tree();
    double valid = tree.validPixels() * cut.ground().area();
    double finest = Math.max(least, 2 * valid / Math.max(1, tree.leaves()));
    double coarsest = Math.max(finest * 1.01, Math.min(most, valid / 4));
    double[] grains = new double[STEPS];
    double[] heights = new double[STEPS];
    double floor = smallestStep(tree);
    for (int k = 0; k < STEPS; k++) {
      grains[k] = finest * Math.pow(coarsest / finest, k / (STEPS - 1.0));
      heights[k] = Math.log(Math.max(floor, tree.heightFor((long) (valid / grains[k]))));
    }
    double step = Math.log(coarsest / finest) / (STEPS - 1);
    double[] slopes = new double[STEPS];
    for (int k = 0; k < STEPS; k++) {
      int before = Math.max(0, k - 1);
      int after = Math.min(STEPS - 1, k + 1);
      slopes[k] = (heights[after] - heights[before]) / (step * (after - before));
    }
    double[] smooth = smoothed(slopes);
    return new NaturalGrains(grains, smooth, peaks(grains, smooth));
  }

  /** Below every height that is above 0, so that it has a logarithm. */
  private static double smallestStep(MergeTree tree) {
    for (int i = 0; i < tree.merges(); i++) {
      if (tree.heightOfMerge(i) > 0) {
        return tree.heightOfMerge(i) / 2;
      }
    }
    return 1;
  }

  private static double[] smoothed(double[] values) {
    double[] smooth = new double[values.length];
    for (int k = 0; k < values.length; k++) {
      double before = values[Math.max(0, k - 1)];
      double after = values[Math.min(values.length - 1, k + 1)];
      smooth[k] = (before + 2 * values[k] + after) / 4;
    }
    return smooth;
  }

  private static List<Double> peaks(double[] grains, double[] values) {
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    for (double v : values) {
      low = Math.min(low, v);
      high = Math.max(high, v);
    }
    List<Double> peaks = new ArrayList<>();
    for (int k = 1; k + 1 < values.length; k++) {
      boolean top = values[k] > values[k - 1] && values[k] >= values[k + 1];
      double saddle = Math.max(lowestUntilHigher(values, k, -1), lowestUntilHigher(values, k, 1));
      if (top && values[k] - saddle > PROMINENCE * (high - low)) {
        peaks.add(grains[k]);
      }
    }
    return peaks;
  }

  /** The lowest value on the way to a higher one; negative infinity where there is none on this side. */
  private static double lowestUntilHigher(double[] values, int from, int direction) {
    double lowest = values[from];
    for (int k = from + direction; k >= 0 && k < values.length; k += direction) {
      if (values[k] > values[from]) {
        return lowest;
      }
      lowest = Math.min(lowest, values[k]);
    }
    return Double.NEGATIVE_INFINITY;
  }
}
