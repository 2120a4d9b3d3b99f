package sharpkestrel.extract.learner;

import java.util.Arrays;

/**
 * The class under whose normal distribution a row is most likely (Richards and Jia 2006, Remote Sensing Digital Image Analysis, 4th ed.,
 * section 8.2). Covariances are drawn towards that of all classes together, the more so the fewer samples a class has, and
 * those towards their diagonal (Friedman 1989, JASA 84), so that a class with as few samples as features still has one.
 *
 * @param means of each class, standardised
 * @param factors for each class the lower triangle of the inverse of its covariance's Cholesky factor, row by row
 * @param offsets for each class the logarithm of its prior less half of that of its covariance's determinant
 * @param farthest squared distance beyond which from every class nothing is said; infinite for none
 */
public record LikelihoodScorer(
    Standard standard, float[][] means, float[][] factors, float[] offsets, double farthest)
    implements Scorer {

  /** Share of its diagonal that a covariance is drawn to. */
  private static final double DIAGONAL = 0.02;

  private static final double LEAST_VARIANCE = 1e-3;

  /**
   * @param priors of the classes, adding up to 1; empty for the shares of the examples' weights
   */
  static LikelihoodScorer learn(Examples examples, double[] priors, double farthest) {
    Standard standard = Standard.of(examples);
    int d = examples.columns().length;
    int classes = examples.classes().size();
    double[][] sums = new double[classes][d];
    double[] weights = new double[classes];
    double[] counts = new double[classes];
    float[][] rows = new float[examples.count()][d];
    float[] row = new float[d];
    for (int i = 0; i < rows.length; i++) {
      examples.row(i, row);
      standard.of(row, rows[i]);
      int k = examples.classOf()[i];
      weights[k] += examples.weights()[i];
      counts[k]++;
      for (int f = 0; f < d; f++) {
        sums[k][f] += (double) examples.weights()[i] * rows[i][f];
      }
    }
    float[][] means = new float[classes][d];
    for (int k = 0; k < classes; k++) {
      for (int f = 0; f < d; f++) {
        means[k][f] = (float) (weights[k] > 0 ? sums[k][f] / weights[k] : 0);
      }
    }
    double[][][] covariances = new double[classes][d][d];
    double[][] pooled = new double[d][d];
    double all = Arrays.stream(weights).sum();
    for (int i = 0; i < rows.length; i++) {
      int k = examples.classOf()[i];
      for (int a = 0; a < d; a++) {
        double off = rows[i][a] - means[k][a];
        for (int b = 0; b <= a; b++) {
          double part = examples.weights()[i] * off * (rows[i][b] - means[k][b]);
          covariances[k][a][b] += part / weights[k];
          pooled[a][b] += part / all;
        }
      }
    }
    float[][] factors = new float[classes][];
    float[] offsets = new float[classes];
    for (int k = 0; k < classes; k++) {
      double towards = (d + 1) / (counts[k] + d + 1);
      for (int a = 0; a < d; a++) {
        for (int b = 0; b <= a; b++) {
          double mixed = (1 - towards) * covariances[k][a][b] + towards * pooled[a][b];
          covariances[k][a][b] = a == b ? mixed + LEAST_VARIANCE : (1 - DIAGONAL) * mixed;
        }
      }
      double prior = priors.length > 0 ? priors[k] : weights[k] / all;
      double[] determinant = new double[1];
      factors[k] = inverseFactor(covariances[k], determinant);
      offsets[k] = weights[k] > 0
          ? (float) (Math.log(Math.max(prior, 1e-9)) - 0.5 * determinant[0])
          : Float.NEGATIVE_INFINITY;
    }
    return new LikelihoodScorer(standard, means, factors, offsets, farthest);
  }

  /**
   * @param covariance (modified) the lower triangle of a positive definite matrix
   * @param determinant (output) its logarithm
   */
  private static float[] inverseFactor(double[][] covariance, double[] determinant) {
    int d = covariance.length;
    for (int a = 0; a < d; a++) {
      for (int b = 0; b <= a; b++) {
        double sum = covariance[a][b];
        for (int c = 0; c < b; c++) {
          sum -= covariance[a][c] * covariance[b][c];
        }
        covariance[a][b] = a == b ? Math.sqrt(Math.max(sum, 1e-12)) : sum / covariance[b][b];
      }
      determinant[0] += 2 * Math.log(covariance[a][a]);
    }
    float[] inverse = new float[d * (d + 1) / 2];
    for (int column = 0; column < d; column++) {
      double[] solved = new double[d];
      for (int a = column; a < d; a++) {
        double sum = a == column ? 1 : 0;
        for (int c = column; c < a; c++) {
          sum -= covariance[a][c] * solved[c];
        }
        solved[a] = sum / covariance[a][a];
        inverse[a * (a + 1) / 2 + column] = (float) solved[a];
      }
    }
    return inverse;
  }

  /** The same that says nothing beyond a distance. */
  LikelihoodScorer within(double distance) {
    return new LikelihoodScorer(standard, means, factors, offsets, distance * distance);
  }

  @Override
  public int classes() {
    return means.length;
  }

  @Override
  public int features() {
    return standard.means().length;
  }

  @Override
  public void score(float[] row, float[] out) {
    int d = features();
    float[] at = new float[d];
    standard.of(row, at);
    double[] logs = new double[means.length];
    double most = Double.NEGATIVE_INFINITY;
    double nearest = Double.POSITIVE_INFINITY;
    for (int k = 0; k < logs.length; k++) {
      double distance = distance(at, k);
      nearest = Math.min(nearest, distance);
      logs[k] = offsets[k] - 0.5 * distance;
      most = Math.max(most, logs[k]);
    }
    double all = 0;
    for (int k = 0; k < logs.length; k++) {
      logs[k] = Math.exp(logs[k] - most);
      all += logs[k];
    }
    for (int k = 0; k < logs.length; k++) {
      out[k] = nearest > farthest ? 0 : (float) (logs[k] / all);
    }
  }

  /** Squared Mahalanobis distance from a class. */
  private double distance(float[] at, int ofClass) {
    float[] mean = means[ofClass];
    float[] factor = factors[ofClass];
    double sum = 0;
    int place = 0;
    for (int a = 0; a < mean.length; a++) {
      double part = 0;
      for (int b = 0; b <= a; b++) {
        part += factor[place++] * (at[b] - mean[b]);
      }
      sum += part * part;
    }
    return sum;
  }
}
