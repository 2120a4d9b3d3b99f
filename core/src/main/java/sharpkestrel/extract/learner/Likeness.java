package sharpkestrel.extract.learner;

import java.util.Arrays;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;

/**
 * How alike rows are to a few picked ones. Features count the more the less they differ among the picked against all (the variance within
 * over that of all, as in relevance feedback after Rui, Huang, Ortega and Mehrotra 1998, IEEE TCSVT 8(5)), and the more the rejected lie
 * away from the picked in them. With one picked row alone all count the same.
 *
 * @param likeness of each row, 0 to 1; 1 for the picked themselves, 0 for the rejected
 * @param weights of the features, adding up to 1
 */
public record Likeness(float[] likeness, double[] weights) {

  private static final int CHUNK = 4096;

  /** Picked rows that the spread of all counts as, so that two that happen to agree do not decide alone. */
  private static final double PRIOR = 0.3;

  /** Picked rows from which on a feature in which they differ as all do hardly counts. */
  private static final double ENOUGH = 3;

  /** A weight is at most so many times that of a feature that says nothing. */
  private static final double MOST = 25;

  /** Ends of what values are taken for, in spreads. */
  private static final float FARTHEST = 4;

  /** Distance at which a row is half as alike. */
  private static final double HALF = 0.6;

  /**
   * @param columns of features; NaN counts as the mean
   * @param picked rows that are wanted
   * @param rejected rows that are not
   */
  public static Likeness of(float[][] columns, int[] picked, int[] rejected, Job job) {
    int d = columns.length;
    int n = d == 0 ? 0 : columns[0].length;
    float[][] scaled = new float[d][];
    Parallel.run(d, job, f -> scaled[f] = scaled(columns[f]));
    double[] weights = new double[d];
    for (int f = 0; f < d; f++) {
      double mean = mean(scaled[f], picked);
      double within = 0;
      for (int row : picked) {
        within += (scaled[f][row] - mean) * (scaled[f][row] - mean);
      }
      double variance = (within + PRIOR) / (picked.length - 1 + PRIOR);
      double more = picked.length - 1;
      double weight =
          Math.max(0, Math.min(MOST, 1 / Math.max(1e-6, variance)) - more / (more + ENOUGH));
      if (rejected.length > 0) {
        double off = mean(scaled[f], rejected) - mean;
        weight *= 0.25 + Math.min(4, off * off / variance);
      }
      weights[f] = varies(scaled[f]) ? weight : 0;
    }
    double all = Arrays.stream(weights).sum();
    for (int f = 0; f < d; f++) {
      weights[f] = all > 0 ? weights[f] / all : 0;
    }
    float[] likeness = new float[n];
    Parallel.run(Math.ceilDiv(n, CHUNK), job, chunk -> {
      for (int row = chunk * CHUNK; row < Math.min(n, (chunk + 1) * CHUNK); row++) {
        double like = near(scaled, weights, row, picked);
        double unlike = near(scaled, weights, row, rejected);
        // as near to a rejected one as to a picked one: half as alike
        likeness[row] = (float) (like <= 0 ? 0 : like * like / (like + unlike));
      }
    });
    for (int row : picked) {
      likeness[row] = 1;
    }
    for (int row : rejected) {
      likeness[row] = 0;
    }
    return new Likeness(likeness, weights);
  }

  /** How near the nearest of some rows is, 0 to 1; 0 where there is none. */
  private static double near(float[][] scaled, double[] weights, int row, int[] others) {
    double least = Double.POSITIVE_INFINITY;
    for (int other : others) {
      double sum = 0;
      for (int f = 0; f < scaled.length; f++) {
        double off = scaled[f][row] - scaled[f][other];
        sum += weights[f] * off * off;
      }
      least = Math.min(least, sum);
    }
    return others.length == 0 ? 0 : Math.exp(-Math.log(2) * least / (HALF * HALF));
  }

  private static double mean(float[] column, int[] rows) {
    return Arrays.stream(rows).mapToDouble(row -> column[row]).average().orElse(0);
  }

  private static boolean varies(float[] scaled) {
    for (float v : scaled) {
      if (v != 0) {
        return true;
      }
    }
    return false;
  }

  /** In spreads about the middle, by ranks' quarters, which outliers leave alone. */
  private static float[] scaled(float[] column) {
    float[] sorted = column.clone();
    Arrays.sort(sorted);
    int n = 0;
    while (n < sorted.length && !Float.isNaN(sorted[n])) {
      n++;
    }
    float[] out = new float[column.length];
    if (n == 0) {
      return out;
    }
    float middle = sorted[n / 2];
    // a normal distribution has 1.35 spreads between its quarters
    float spread = (sorted[3 * (n - 1) / 4] - sorted[(n - 1) / 4]) / 1.35f;
    if (!(spread > 0)) {
      spread = (sorted[n - 1] - sorted[0]) / 6;
    }
    for (int i = 0; i < out.length; i++) {
      float off = spread > 0 ? (column[i] - middle) / spread : 0;
      out[i] = Float.isNaN(off) ? 0 : Math.clamp(off, -FARTHEST, FARTHEST);
    }
    return out;
  }
}
