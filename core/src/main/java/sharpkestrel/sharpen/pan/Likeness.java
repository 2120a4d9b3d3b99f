package sharpkestrel.sharpen.pan;

/**
 * How alike two blocks of pixels are: the universal quality index of one band (Wang and Bovik 2002, IEEE Signal Processing
 * Letters 9(3), 81-84) and of all bands at once as hypercomplex numbers (Q2n: Garzelli and Nencini 2009, IEEE GRSL 6(4),
 * 662-665). 1 for the same, less for a loss of correlation, a bias, or another contrast.
 */
final class Likeness {

  private Likeness() {}

  /**
   * @return from -1 to 1; 1 for two constants of the same value, 0 where only one is constant
   */
  static double q(float[] x, float[] y, int count) {
    double sx = 0;
    double sy = 0;
    double sxx = 0;
    double syy = 0;
    double sxy = 0;
    for (int i = 0; i < count; i++) {
      sx += x[i];
      sy += y[i];
      sxx += (double) x[i] * x[i];
      syy += (double) y[i] * y[i];
      sxy += (double) x[i] * y[i];
    }
    double mx = sx / count;
    double my = sy / count;
    double vx = Math.max(0, sxx / count - mx * mx);
    double vy = Math.max(0, syy / count - my * my);
    double cov = sxy / count - mx * my;
    double level = mx * mx + my * my;
    double closeness = level > 0 ? 2 * mx * my / level : 1;
    double spread = vx + vy;
    return spread > 1e-12 * level ? 2 * cov / spread * closeness : closeness;
  }

  /** All bands as one hypercomplex number, their count filled up with zeros to a power of two. */
  static double q2n(float[][] x, float[][] y, int count) {
    int bands = x.length;
    int size = Integer.highestOneBit(Math.max(1, 2 * bands - 1));
    double[] mx = new double[size];
    double[] my = new double[size];
    double[][] xy = new double[bands][bands];
    double squareX = 0;
    double squareY = 0;
    for (int a = 0; a < bands; a++) {
      for (int i = 0; i < count; i++) {
        mx[a] += x[a][i] / (double) count;
        my[a] += y[a][i] / (double) count;
        squareX += (double) x[a][i] * x[a][i] / count;
        squareY += (double) y[a][i] * y[a][i] / count;
      }
      for (int b = 0; b < bands; b++) {
        double sum = 0;
        for (int i = 0; i < count; i++) {
          sum += (double) x[a][i] * y[b][i];
        }
        xy[a][b] = sum / count;
      }
    }
    // E[x y*] - E[x] E[y]*, component by component
    double[] covariance = new double[size];
    for (int a = 0; a < bands; a++) {
      for (int b = 0; b < bands; b++) {
        double conjugate = b == 0 ? 1 : -1;
        covariance[a ^ b] += sign(a, b, size) * conjugate * (xy[a][b] - mx[a] * my[b]);
      }
    }
    double levelX = length(mx);
    double levelY = length(my);
    double vx = Math.max(0, squareX - levelX * levelX);
    double vy = Math.max(0, squareY - levelY * levelY);
    double level = levelX * levelX + levelY * levelY;
    double closeness = level > 0 ? 2 * levelX * levelY / level : 1;
    double spread = vx + vy;
    return spread > 1e-12 * level ? 2 * length(covariance) / spread * closeness : closeness;
  }

  private static double length(double[] v) {
    double sum = 0;
    for (double each : v) {
      sum += each * each;
    }
    return Math.sqrt(sum);
  }

  /** The sign of the product of two units of the Cayley-Dickson algebra; its place is {@code a ^ b}. */
  static int sign(int a, int b, int size) {
    if (size == 1) {
      return 1;
    }
    int half = size / 2;
    int low = half - 1;
    boolean highA = a >= half;
    boolean highB = b >= half;
    // (p, q)(r, s) = (p r - s* q, s p + q r*)
    if (!highA && !highB) {
      return sign(a, b, half);
    }
    if (!highA) {
      return sign(b & low, a, half);
    }
    if (!highB) {
      return conjugated(b) * sign(a & low, b, half);
    }
    return -conjugated(b & low) * sign(b & low, a & low, half);
  }

  private static int conjugated(int unit) {
    return unit == 0 ? 1 : -1;
  }
}
