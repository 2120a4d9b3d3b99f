package sharpkestrel.sharpen.pan;

import java.util.Arrays;
import org.ejml.data.DMatrixRMaj;
import org.ejml.dense.row.factory.DecompositionFactory_DDRM;
import org.ejml.dense.row.factory.LinearSolverFactory_DDRM;
import org.ejml.interfaces.decomposition.EigenDecomposition_F64;
import org.ejml.interfaces.linsol.LinearSolverDense;
import sharpkestrel.raster.Covariances;

/** Means and covariances of the multispectral bands and the panchromatic one, which stands last. */
final class Moments {

  /** Added to the diagonal, as a share of the largest variance, so that bands that are copies of each other share. */
  private static final double RIDGE = 1e-9;

  private final int bands;
  private final Covariances sums;

  Moments(int bands) {
    this.bands = bands;
    sums = new Covariances(bands + 1);
  }

  /**
   * Adds pixels in which every band is valid.
   *
   * @param planes (input) one for each band
   * @param pan (input) likewise
   */
  void add(float[][] planes, float[] pan) {
    float[][] all = Arrays.copyOf(planes, bands + 1);
    all[bands] = pan;
    sums.add(all, null);
  }

  void add(Moments other) {
    sums.add(other.sums);
  }

  long count() {
    return sums.count();
  }

  int bands() {
    return bands;
  }

  double mean(int b) {
    return sums.mean(b);
  }

  double covariance(int b, int c) {
    return sums.of(b, c);
  }

  /** Covariance of a band with the weighted sum of bands. */
  double covariance(int b, double[] weights) {
    double with = 0;
    for (int c = 0; c < bands; c++) {
      with += weights[c] * covariance(b, c);
    }
    return with;
  }

  double mean(double[] weights) {
    double mean = 0;
    for (int b = 0; b < bands; b++) {
      mean += weights[b] * mean(b);
    }
    return mean;
  }

  double variance(double[] weights) {
    double variance = 0;
    for (int b = 0; b < bands; b++) {
      variance += weights[b] * covariance(b, weights);
    }
    return Math.max(0, variance);
  }

  /**
   * The weights whose sum of bands comes nearest to the panchromatic one, by least squares; kept from falling below 0 by
   * leaving the most negative band out and fitting again.
   */
  double[] weights() {
    boolean[] used = new boolean[bands];
    Arrays.fill(used, true);
    while (true) {
      double[] w = solve(used);
      int worst = -1;
      for (int b = 0; b < bands; b++) {
        if (w[b] < 0 && (worst < 0 || w[b] < w[worst])) {
          worst = b;
        }
      }
      if (worst < 0) {
        return w;
      }
      used[worst] = false;
    }
  }

  private double[] solve(boolean[] used) {
    double most = 0;
    for (int b = 0; b < bands; b++) {
      most = Math.max(most, covariance(b, b));
    }
    DMatrixRMaj left = new DMatrixRMaj(bands, bands);
    DMatrixRMaj right = new DMatrixRMaj(bands, 1);
    for (int b = 0; b < bands; b++) {
      for (int c = 0; c < bands; c++) {
        left.set(b, c, used[b] && used[c] ? covariance(b, c) : b == c ? most : 0);
      }
      left.add(b, b, RIDGE * most);
      right.set(b, 0, used[b] ? covariance(b, bands) : 0);
    }
    DMatrixRMaj x = new DMatrixRMaj(bands, 1);
    LinearSolverDense<DMatrixRMaj> solver = LinearSolverFactory_DDRM.symmPosDef(bands);
    if (most > 0 && solver.setA(left)) {
      solver.solve(right, x);
    }
    return x.getData();
  }

  /** The direction in which the bands vary most, of length 1, its sum above 0. */
  double[] principal() {
    DMatrixRMaj covariance = new DMatrixRMaj(bands, bands);
    for (int b = 0; b < bands; b++) {
      for (int c = 0; c < bands; c++) {
        covariance.set(b, c, covariance(b, c));
      }
    }
    EigenDecomposition_F64<DMatrixRMaj> eigen = DecompositionFactory_DDRM.eig(bands, true, true);
    eigen.decompose(covariance);
    int best = 0;
    for (int k = 1; k < bands; k++) {
      if (eigen.getEigenvalue(k).getReal() > eigen.getEigenvalue(best).getReal()) {
        best = k;
      }
    }
    double[] vector = eigen.getEigenVector(best).getData().clone();
    if (Arrays.stream(vector).sum() < 0) {
      Arrays.setAll(vector, k -> -vector[k]);
    }
    return vector;
  }
}
