package sharpkestrel.place.fit;

/** Polynomials of both coordinates, of degree 1 (six numbers) to 3 (twenty). */
final class PolynomialMap implements PlaneMap {

  private final int degree;
  private final Scaling scaling;
  private final double[][] coefficients;

  private PolynomialMap(int degree, Scaling scaling, double[][] coefficients) {
    this.degree = degree;
    this.scaling = scaling;
    this.coefficients = coefficients;
  }

  static int terms(int degree) {
    return (degree + 1) * (degree + 2) / 2;
  }

  /**
   * @param from (input) u and v of each point
   * @param to (input) x and y of each point
   */
  static PolynomialMap fit(int degree, double[][] from, double[][] to) {
    Scaling scaling = Scaling.of(from);
    double[][] rows = new double[from.length][terms(degree)];
    for (int i = 0; i < rows.length; i++) {
      fill(degree, scaling.u(from[i][0]), scaling.v(from[i][1]), rows[i]);
    }
    return new PolynomialMap(degree, scaling, LeastSquares.solve(rows, to));
  }

  private static void fill(int degree, double u, double v, double[] terms) {
    int at = 0;
    for (int total = 0; total <= degree; total++) {
      for (int k = 0; k <= total; k++) {
        terms[at++] = power(u, total - k) * power(v, k);
      }
    }
  }

  private static double power(double base, int exponent) {
    double result = 1;
    for (int k = 0; k < exponent; k++) {
      result *= base;
    }
    return result;
  }

  @Override
  public void apply(double u, double v, double[] xy) {
    double[] terms = new double[coefficients.length];
    fill(degree, scaling.u(u), scaling.v(v), terms);
    xy[0] = 0;
    xy[1] = 0;
    for (int k = 0; k < terms.length; k++) {
      xy[0] += coefficients[k][0] * terms[k];
      xy[1] += coefficients[k][1] * terms[k];
    }
  }
}
