package sharpkestrel.extract.learner;

import java.util.Arrays;
import java.util.List;
import java.util.SplittableRandom;
import java.util.stream.IntStream;

/**
 * Which row to ask about next: one that is in doubt, of a kind that is common, and unlike those that were asked (after Settles 2012, Active
 * Learning, sections 3 and 5: uncertainty weighed by density, and diverse).
 *
 * <p>Commonness is how near a row lies to a drawn sample of all, in features of one spread; how unlike the asked it is, how far from the
 * nearest of those. Of very many rows some that lie evenly among them are asked about, so that nobody waits.
 */
public final class NextQuestion {

  private static final int SAMPLE = 300;
  private static final int MOST_ASKED = 10_000;

  private final float[][] columns;
  private final Standard standard;

  /** Rows that may be asked about, standardised, and where they are. */
  private final float[][] rows;

  private final int[] places;
  private final double[] common;

  /** A distance that counts as near: that between rows as they come. */
  private final double usual;

  /**
   * @param columns of features; NaN counts as the mean
   */
  public NextQuestion(float[][] columns, long seed) {
    this.columns = columns;
    int n = columns.length == 0 ? 0 : columns[0].length;
    Examples all = Examples.of(
        IntStream.range(0, columns.length).mapToObj(f -> "f" + f).toList(),
        columns,
        List.of("all"),
        new int[n]);
    standard = Standard.of(all);
    int step = Math.max(1, Math.ceilDiv(n, MOST_ASKED));
    places = IntStream.range(0, Math.ceilDiv(n, step)).map(i -> i * step).toArray();
    rows = Arrays.stream(places).mapToObj(this::row).toArray(float[][]::new);
    SplittableRandom random = new SplittableRandom(seed);
    float[][] sample = random
        .ints(Math.min(SAMPLE, n), 0, Math.max(1, n))
        .mapToObj(this::row)
        .toArray(float[][]::new);
    double sum = 0;
    for (int i = 0; i < sample.length; i++) {
      sum += distance(sample[i], sample[(i + 1) % sample.length]);
    }
    usual = sample.length == 0 ? 1 : Math.max(1e-9, sum / sample.length);
    common = Arrays.stream(rows)
        .mapToDouble(row -> Arrays.stream(sample)
                .mapToDouble(other -> Math.exp(-distance(row, other) / usual))
                .sum()
            / Math.max(1, sample.length))
        .toArray();
  }

  private float[] row(int place) {
    float[] row = new float[columns.length];
    float[] out = new float[columns.length];
    for (int f = 0; f < row.length; f++) {
      row[f] = columns[f][place];
    }
    standard.of(row, out);
    return out;
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
    float[][] before = Arrays.stream(asked).mapToObj(this::row).toArray(float[][]::new);
    for (int i = 0; i < rows.length; i++) {
      if (known[places[i]]) {
        continue;
      }
      double worth = (0.02 + doubt[places[i]]) * common[i];
      if (worth <= most) {
        continue;
      }
      double nearest = 1;
      for (float[] other : before) {
        nearest = Math.min(nearest, distance(rows[i], other) / usual);
      }
      worth *= nearest;
      if (worth > most) {
        most = worth;
        best = places[i];
      }
    }
    return best;
  }
}
