package sharpkestrel.extract.learner;

/**
 * The classes of the nearest examples, each counting the more the nearer it is (Dudani 1976, IEEE Trans. SMC 6(4)); features are
 * standardised.
 *
 * @param rows of the examples, standardised
 * @param neighbours how many count
 */
public record NearestScorer(
    Standard standard, float[][] rows, int[] classOf, float[] weights, int classes, int neighbours)
    implements Scorer {

  static NearestScorer learn(Examples examples, int neighbours) {
    Standard standard = Standard.of(examples);
    float[][] rows = new float[examples.count()][examples.columns().length];
    float[] row = new float[examples.columns().length];
    for (int i = 0; i < rows.length; i++) {
      examples.row(i, row);
      standard.of(row, rows[i]);
    }
    return new NearestScorer(
        standard,
        rows,
        examples.classOf().clone(),
        examples.weights().clone(),
        examples.classes().size(),
        Math.min(neighbours, rows.length));
  }

  @Override
  public int features() {
    return standard.means().length;
  }

  @Override
  public void score(float[] row, float[] out) {
    float[] at = new float[features()];
    standard.of(row, at);
    float[] distances = new float[neighbours];
    int[] found = new int[neighbours];
    int count = nearest(at, found, distances);
    java.util.Arrays.fill(out, 0, classes, 0);
    double farthest = Math.sqrt(distances[count - 1]);
    double closest = Math.sqrt(distances[0]);
    double all = 0;
    for (int i = 0; i < count; i++) {
      double near =
          farthest > closest ? (farthest - Math.sqrt(distances[i])) / (farthest - closest) : 1;
      // the last counts a little too
      double counts = weights[found[i]] * (0.1 + 0.9 * near);
      out[classOf[found[i]]] += (float) counts;
      all += counts;
    }
    for (int k = 0; k < classes; k++) {
      out[k] /= (float) all;
    }
  }

  /** Fills in the nearest rows, the nearest first; ties go to the earlier one. */
  private int nearest(float[] at, int[] found, float[] distances) {
    int count = 0;
    for (int i = 0; i < rows.length; i++) {
      float limit = count < neighbours ? Float.POSITIVE_INFINITY : distances[count - 1];
      float[] row = rows[i];
      float sum = 0;
      for (int f = 0; f < row.length && sum < limit; f++) {
        float off = row[f] - at[f];
        sum += off * off;
      }
      if (sum < limit) {
        int place = count < neighbours ? count++ : count - 1;
        while (place > 0 && distances[place - 1] > sum) {
          distances[place] = distances[place - 1];
          found[place] = found[place - 1];
          place--;
        }
        distances[place] = sum;
        found[place] = i;
      }
    }
    return count;
  }
}
