package sharpkestrel.extract;

import java.util.Arrays;
import java.util.List;
import sharpkestrel.expr.Table;

/**
 * How clearly objects pass a stack of tests. For each test, the distance inside of the nearer end in units of a tenth
 * of the feature's middle 90 % range, squeezed to 0..1 so that an object on an end scores a half; the score of an
 * object is its least. Objects between 0.35 and 0.65 are doubtful.
 */
public final class WinnowScores {

  public static final double DOUBT = 0.15;

  private WinnowScores() {}

  /**
   * @return for each row 0 (far outside of some test) to 1 (far inside of all); NaN features score 0
   */
  public static double[] of(Table table, List<RangeTest> tests) {
    double[] scores = new double[table.rows()];
    Arrays.fill(scores, 1);
    for (RangeTest test : tests) {
      double[] values = table.values(test.feature());
      double unit = unit(table, test.feature());
      for (int i = 0; i < scores.length; i++) {
        double inside = Math.min(values[i] - test.low(), test.high() - values[i]);
        double score =
            Double.isNaN(inside) ? 0 : Math.max(0, Math.min(1, 0.5 + 0.5 * inside / unit));
        scores[i] = Math.min(scores[i], score);
      }
    }
    return scores;
  }

  private static double unit(Table table, String feature) {
    double range = table.quantile(feature, 0.95) - table.quantile(feature, 0.05);
    return range > 0 ? 0.1 * range : 1;
  }

  public static boolean isDoubtful(double score) {
    return Math.abs(score - 0.5) < DOUBT;
  }
}
