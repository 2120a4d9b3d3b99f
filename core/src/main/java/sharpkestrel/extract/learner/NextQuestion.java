package sharpkestrel.extract.learner;

import java.util.SplittableRandom;

/**
 * Which row to ask about next: one that is in doubt, of a kind that is common, and unlike those that were asked (after Settles 2012, Active
 * Learning, sections 3 and 5: uncertainty weighed by density, and diverse).
 *
 * <p>Commonness is how near a row lies to a drawn sample of all, in features of one spread; how unlike the asked it is, how far from the
 * nearest of those.
 */
public final class NextQuestion {

  private static final int SAMPLE = 300;

  private final float[][] rows;
  private final double[] common;

  /** A distance that counts as near: that between rows as they come. */
  private final double usual;

  /**
   * @param columns of features; NaN counts as the mean
   */
  public NextQuestion(float[][] columns, long seed) {
    int n = columns.length == 0 ? 0 : columns[0].length;
    int[] classOf = new int[n];
    Examples all = Examples.of(
        java.util.stream.IntStream.range(0, columns.length)
            .mapToObj(f -> "f" + f)
            .toList(),
        columns,
        java.util.List.of("all"),
        classOf);
    Standard standard = Standard.of(all);
    rows = new float[n][columns.length];
    float[] row = new float[columns.length];
    for (int i = 0; i < n; i++) {
      all.row(i, row);
      standard.of(row, rows[i]);
    }
    SplittableRandom random = new SplittableRandom(seed);
    int[] sample = random.ints(Math.min(SAMPLE, n), 0, Math.max(1, n)).toArray();
    common = new double[n];
    double sum = 0;
    for (int i = 0; i < sample.length; i++) {
      sum += distance(rows[sample[i]], rows[sample[(i + 1) % sample.length]]);
    }
    usual = sample.length == 0 ? 1 : Math.max(1e-9, sum / sample.length);
    for (int i = 0; i < n; i++) {
      double near = 0;
      for (int other : sample) {
        near += Math.exp(-distance(rows[i], rows[other]) / usual);
      }
      common[i] = near / Math.max(1, sample.length);
    }
  }

  private static double distance(float[] a, float[] b) {
    double sum = 0;
    for (int f = 0; f < a.length; f++) {
      // one feature that is far off does not decide alone
      sum += Math.min(4, Math.abs(a[f] - b[f]));
    }
    return sum / Math.max(1, a.length);
  }

  /**
   * The row to ask about; -1 where all are known.
   *
   * @param doubt of each row, 0 to 1
   * @param known rows that have an answer
   * @param asked rows that were asked, answered or passed over
   */
  public int next(double[] doubt, boolean[] known, int[] asked) {
    int best = -1;
    double most = -1;
    for (int i = 0; i < rows.length; i++) {
      if (known[i]) {
        continue;
      }
      double worth = (0.02 + doubt[i]) * common[i];
      if (worth <= most) {
        continue;
      }
      double nearest = 1;
      for (int other : asked) {
        nearest = Math.min(nearest, distance(rows[i], rows[other]) / usual);
      }
      worth *= nearest;
      if (worth > most) {
        most = worth;
        best = i;
      }
    }
    return best;
  }
}
