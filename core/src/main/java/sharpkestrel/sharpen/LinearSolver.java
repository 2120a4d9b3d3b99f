package sharpkestrel.sharpen;

/** Small dense linear systems by Gauss elimination with partial pivoting. */
final class LinearSolver {

  private LinearSolver() {}

  /**
   * @param a (modified) n rows of n coefficients and the right side
   * @return the solution; an unknown that the equations leave open is 0
   */
  static double[] solve(double[][] a) {
    int n = a.length;
    for (int column = 0; column < n; column++) {
      int pivot = column;
      for (int row = column + 1; row < n; row++) {
        if (Math.abs(a[row][column]) > Math.abs(a[pivot][column])) {
          pivot = row;
        }
      }
      double[] swap = a[pivot];
      a[pivot] = a[column];
      a[column] = swap;
      if (a[column][column] == 0) {
        continue;
      }
      for (int row = column + 1; row < n; row++) {
        double factor = a[row][column] / a[column][column];
        for (int k = column; k <= n; k++) {
          a[row][k] -= factor * a[column][k];
        }
      }
    }
    double[] x = new double[n];
    for (int row = n - 1; row >= 0; row--) {
      double rest = a[row][n];
      for (int k = row + 1; k < n; k++) {
        rest -= a[row][k] * x[k];
      }
      x[row] = a[row][row] == 0 ? 0 : rest / a[row][row];
    }
    return x;
  }
}
