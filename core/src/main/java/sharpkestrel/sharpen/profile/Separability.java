package sharpkestrel.sharpen.profile;

import org.ejml.data.DMatrixRMaj;
import org.ejml.dense.row.CommonOps_DDRM;

/**
 * How well two profiles can be told apart, taken to be normally distributed: the Jeffries-Matusita distance and the
 * transformed divergence (Swain and Davis 1978, Remote Sensing: The Quantitative Approach, chapter 3; Swain and King 1973),
 * both from 0, the same, to 2, apart for all that can be told.
 */
public final class Separability {

  /** Added to variances, as a share of the mean of both spreads: a place of few or equal pixels has none of its own. */
  private static final double RIDGE = 1e-4;

  private Separability() {}

  /**
   * @param bands places of the bands to tell by
   * @param grain variance of rounding, which no profile is without; 1/12 for whole numbers
   */
  public static double jeffriesMatusita(Profile one, Profile two, int[] bands, double grain) {
    DMatrixRMaj a = covariance(one, two, bands, grain);
    DMatrixRMaj b = covariance(two, one, bands, grain);
    DMatrixRMaj middle = new DMatrixRMaj(bands.length, bands.length);
    CommonOps_DDRM.add(0.5, a, 0.5, b, middle);
    DMatrixRMaj inverse = new DMatrixRMaj(middle);
    CommonOps_DDRM.invert(inverse);
    double mahalanobis = quadratic(inverse, difference(one, two, bands));
    double spreads = Math.log(CommonOps_DDRM.det(middle))
        - 0.5 * (Math.log(CommonOps_DDRM.det(a)) + Math.log(CommonOps_DDRM.det(b)));
    double bhattacharyya = mahalanobis / 8 + spreads / 2;
    return 2 * (1 - Math.exp(-Math.max(0, bhattacharyya)));
  }

  /** See {@link #jeffriesMatusita}. */
  public static double transformedDivergence(Profile one, Profile two, int[] bands, double grain) {
    DMatrixRMaj a = covariance(one, two, bands, grain);
    DMatrixRMaj b = covariance(two, one, bands, grain);
    DMatrixRMaj inverseA = new DMatrixRMaj(a);
    DMatrixRMaj inverseB = new DMatrixRMaj(b);
    CommonOps_DDRM.invert(inverseA);
    CommonOps_DDRM.invert(inverseB);
    int n = bands.length;
    DMatrixRMaj between = new DMatrixRMaj(n, n);
    DMatrixRMaj inverses = new DMatrixRMaj(n, n);
    DMatrixRMaj product = new DMatrixRMaj(n, n);
    CommonOps_DDRM.subtract(a, b, between);
    CommonOps_DDRM.subtract(inverseB, inverseA, inverses);
    CommonOps_DDRM.mult(between, inverses, product);
    DMatrixRMaj sum = new DMatrixRMaj(n, n);
    CommonOps_DDRM.add(inverseA, inverseB, sum);
    double divergence =
        0.5 * CommonOps_DDRM.trace(product) + 0.5 * quadratic(sum, difference(one, two, bands));
    return 2 * (1 - Math.exp(-Math.max(0, divergence) / 8));
  }

  private static double[] difference(Profile one, Profile two, int[] bands) {
    double[] d = new double[bands.length];
    for (int k = 0; k < d.length; k++) {
      d[k] = one.mean()[bands[k]] - two.mean()[bands[k]];
    }
    return d;
  }

  private static double quadratic(DMatrixRMaj m, double[] v) {
    double sum = 0;
    for (int r = 0; r < v.length; r++) {
      for (int c = 0; c < v.length; c++) {
        sum += v[r] * m.get(r, c) * v[c];
      }
    }
    return sum;
  }

  private static DMatrixRMaj covariance(Profile own, Profile other, int[] bands, double grain) {
    DMatrixRMaj m = new DMatrixRMaj(bands.length, bands.length);
    for (int r = 0; r < bands.length; r++) {
      for (int c = 0; c < bands.length; c++) {
        m.set(r, c, own.covariance()[bands[r]][bands[c]]);
      }
      double both = own.covariance()[bands[r]][bands[r]] + other.covariance()[bands[r]][bands[r]];
      double level = Math.abs(own.mean()[bands[r]]) + Math.abs(other.mean()[bands[r]]);
      m.add(r, r, Math.max(grain, RIDGE * both / 2) + 1e-12 * level * level + 1e-30);
    }
    return m;
  }
}
