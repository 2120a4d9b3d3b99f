package sharpkestrel.raster;

/** Means and covariances of bands over pixels in which all of them are known. */
public final class Covariances {

  private final int bands;
  private long count;
  private final double[] sum;
  private final double[][] product;

  public Covariances(int bands) {
    this.bands = bands;
    sum = new double[bands];
    product = new double[bands][bands];
  }

  /**
   * Adds pixels.
   *
   * @param planes (input) one for each band; NaN is no-data
   * @param inside (input) which pixels count; null for all
   */
  public void add(float[][] planes, boolean[] inside) {
    double[] v = new double[bands];
    for (int i = 0; i < planes[0].length; i++) {
      boolean valid = inside == null || inside[i];
      for (int b = 0; b < bands && valid; b++) {
        v[b] = planes[b][i];
        valid = !Double.isNaN(v[b]);
      }
      if (!valid) {
        continue;
      }
      count++;
      for (int b = 0; b < bands; b++) {
        sum[b] += v[b];
        for (int c = b; c < bands; c++) {
          product[b][c] += v[b] * v[c];
        }
      }
    }
  }

  /** Adds what another has seen; in a fixed order of parts the sums do not depend on threads. */
  public void add(Covariances other) {
    count += other.count;
    for (int b = 0; b < bands; b++) {
      sum[b] += other.sum[b];
      for (int c = b; c < bands; c++) {
        product[b][c] += other.product[b][c];
      }
    }
  }

  public int bands() {
    return bands;
  }

  /** Pixels added. */
  public long count() {
    return count;
  }

  public double mean(int b) {
    return sum[b] / count;
  }

  /** Of the population. */
  public double of(int b, int c) {
    double p = b <= c ? product[b][c] : product[c][b];
    return p / count - mean(b) * mean(c);
  }
}
