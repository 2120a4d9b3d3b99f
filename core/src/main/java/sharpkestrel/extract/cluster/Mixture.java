package sharpkestrel.extract.cluster;

import java.util.Arrays;
import java.util.SplittableRandom;
import org.ejml.data.DMatrixRMaj;
import org.ejml.dense.row.CommonOps_DDRM;
import org.ejml.dense.row.factory.DecompositionFactory_DDRM;
import org.ejml.interfaces.decomposition.CholeskyDecomposition_F64;
import sharpkestrel.raster.Job;

/**
 * Normal distributions that together made the rows, found by expectation and maximisation (Dempster, Laird and Rubin 1977, JRSS B 39(1),
 * 1-38); their number is that with the least Bayesian information criterion (Schwarz 1978, Ann. Stat. 6(2), 461-464).
 *
 * @param weights of the distributions, adding up to 1
 * @param means one after another
 * @param factors of each the inverse of its covariance's Cholesky factor, row by row
 * @param offsets of each the logarithm of its weight less half of that of its determinant
 */
record Mixture(double[] weights, double[] means, double[][] factors, double[] offsets)
    implements Clusters.Rule {

  /** Added to variances, in those of all rows, so that no distribution shrinks to a point. */
  private static final double LEAST_VARIANCE = 1e-4;

  private static final double STILL = 1e-6;
  private static final int STARTS = 4;
  private static final int SETTLING = 10;
  private static final int LEAST_ROUNDS = 50;

  /** Rows that are looked at for it, at the most. */
  static final int MOST_ROWS = 20_000;

  static Mixture of(float[] rows, int d, ClusterSettings settings, Job job) {
    Mixture best = null;
    double least = Double.POSITIVE_INFINITY;
    for (int k = settings.atLeast(); k <= settings.atMost(); k++) {
      job.progress(
          "Fitting distributions",
          k - settings.atLeast(),
          settings.atMost() + 1 - settings.atLeast());
      Fit fit = fit(rows, d, k, settings, job);
      if (fit.criterion < least) {
        least = fit.criterion;
        best = fit.mixture;
      }
    }
    return best;
  }

  private record Fit(Mixture mixture, double likelihood, double criterion) {}

  /** The likeliest of several starts: one from clusters that have settled, the others from drawn middles alone. */
  private static Fit fit(float[] rows, int d, int k, ClusterSettings settings, Job job) {
    Fit best = null;
    for (int start = 0; start < STARTS && (start == 0 || k > 1); start++) {
      Centres begin = new Centres(rows, d);
      begin.begin(k, new SplittableRandom(settings.seed() + 1000L * start + k));
      begin.settle(start == 0 ? SETTLING : 1, 0.01, job);
      Fit fit = fit(rows, d, begin, settings, job);
      best = best == null || fit.likelihood > best.likelihood ? fit : best;
    }
    return best;
  }

  private static Fit fit(float[] rows, int d, Centres begin, ClusterSettings settings, Job job) {
    int n = begin.rows();
    int found = begin.count();
    double[][] share = new double[found][n];
    for (int i = 0; i < n; i++) {
      share[begin.nearest[i]][i] = 1;
    }
    Mixture mixture = maximise(rows, d, share);
    double before = Double.NEGATIVE_INFINITY;
    double likelihood = before;
    for (int round = 0; round < Math.max(LEAST_ROUNDS, settings.iterations()); round++) {
      job.cancellation().check();
      likelihood = mixture.expect(rows, d, share);
      if (likelihood - before < STILL * Math.abs(likelihood)) {
        break;
      }
      before = likelihood;
      mixture = maximise(rows, d, share);
    }
    double parameters = found * (1 + d + d * (d + 1) / 2.0) - 1;
    return new Fit(mixture, likelihood, parameters * Math.log(n) - 2 * likelihood);
  }

  /**
   * @param share (output) by distribution and row
   * @return logarithm of the likelihood of all rows
   */
  private double expect(float[] rows, int d, double[][] share) {
    int n = rows.length / d;
    double all = 0;
    double[] logs = new double[weights.length];
    float[] row = new float[d];
    for (int i = 0; i < n; i++) {
      System.arraycopy(rows, i * d, row, 0, d);
      logs(row, logs);
      double most = Arrays.stream(logs).max().orElse(0);
      double sum = 0;
      for (double each : logs) {
        sum += Math.exp(each - most);
      }
      for (int c = 0; c < logs.length; c++) {
        share[c][i] = Math.exp(logs[c] - most) / sum;
      }
      all += most + Math.log(sum) - 0.5 * d * Math.log(2 * Math.PI);
    }
    return all;
  }

  private static Mixture maximise(float[] rows, int d, double[][] share) {
    int n = rows.length / d;
    int k = share.length;
    double[] weights = new double[k];
    double[] means = new double[k * d];
    double[][] factors = new double[k][];
    double[] offsets = new double[k];
    for (int c = 0; c < k; c++) {
      double weight = 1e-9;
      for (int i = 0; i < n; i++) {
        weight += share[c][i];
        for (int f = 0; f < d; f++) {
          means[c * d + f] += share[c][i] * rows[i * d + f];
        }
      }
      for (int f = 0; f < d; f++) {
        means[c * d + f] /= weight;
      }
      DMatrixRMaj covariance = new DMatrixRMaj(d, d);
      double[] off = new double[d];
      for (int i = 0; i < n; i++) {
        double s = share[c][i];
        if (s < 1e-9) {
          continue;
        }
        for (int f = 0; f < d; f++) {
          off[f] = rows[i * d + f] - means[c * d + f];
        }
        for (int a = 0; a < d; a++) {
          for (int b = 0; b <= a; b++) {
            covariance.data[a * d + b] += s * off[a] * off[b] / weight;
          }
        }
      }
      for (int a = 0; a < d; a++) {
        covariance.data[a * d + a] += LEAST_VARIANCE;
        for (int b = 0; b < a; b++) {
          covariance.data[b * d + a] = covariance.data[a * d + b];
        }
      }
      weights[c] = weight / n;
      offsets[c] = Math.log(weights[c]) - 0.5 * invert(covariance);
      factors[c] = covariance.data.clone();
    }
    return new Mixture(weights, means, factors, offsets);
  }

  /**
   * @param covariance (modified) becomes the inverse of its lower Cholesky factor
   * @return logarithm of its determinant
   */
  private static double invert(DMatrixRMaj covariance) {
    CholeskyDecomposition_F64<DMatrixRMaj> cholesky =
        DecompositionFactory_DDRM.chol(covariance.numRows, true);
    if (!cholesky.decompose(covariance.copy())) {
      // rounding alone: what is left is the diagonal
      for (int a = 0; a < covariance.numRows; a++) {
        for (int b = 0; b < covariance.numRows; b++) {
          covariance.set(a, b, a == b ? covariance.get(a, a) : 0);
        }
      }
      cholesky.decompose(covariance.copy());
    }
    DMatrixRMaj lower = cholesky.getT(null);
    double determinant = 0;
    for (int a = 0; a < lower.numRows; a++) {
      determinant += 2 * Math.log(lower.get(a, a));
    }
    CommonOps_DDRM.invert(lower, covariance);
    return determinant;
  }

  private void logs(float[] row, double[] logs) {
    int d = row.length;
    for (int c = 0; c < logs.length; c++) {
      double sum = 0;
      for (int a = 0; a < d; a++) {
        double part = 0;
        for (int b = 0; b <= a; b++) {
          part += factors[c][a * d + b] * (row[b] - means[c * d + b]);
        }
        sum += part * part;
      }
      logs[c] = offsets[c] - 0.5 * sum;
    }
  }

  @Override
  public int count() {
    return weights.length;
  }

  @Override
  public int of(float[] row) {
    double[] logs = new double[weights.length];
    logs(row, logs);
    int best = 0;
    for (int c = 1; c < logs.length; c++) {
      best = logs[c] > logs[best] ? c : best;
    }
    return best;
  }

  @Override
  public float[] middle(int cluster, int d) {
    float[] middle = new float[d];
    for (int f = 0; f < d; f++) {
      middle[f] = (float) means[cluster * d + f];
    }
    return middle;
  }
}
