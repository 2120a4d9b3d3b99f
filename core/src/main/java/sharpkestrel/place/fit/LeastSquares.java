package sharpkestrel.place.fit;

import org.ejml.data.DMatrixRMaj;
import org.ejml.dense.row.factory.LinearSolverFactory_DDRM;
import org.ejml.interfaces.linsol.LinearSolverDense;
import sharpkestrel.raster.RasterException;

/** Overdetermined linear systems, by Householder's QR decomposition. */
final class LeastSquares {

  /** Below this the unknowns are not told apart by the equations. */
  private static final double SINGULAR = 1e-10;

  private LeastSquares() {}

  /** The points do not determine what was to be fitted to them. */
  static final class Undetermined extends RasterException {
    private static final long serialVersionUID = 1;

    Undetermined(String message) {
      super(message);
    }
  }

  /**
   * @param rows (input) one equation each; all unknowns should be of about one size
   * @param right (input) one row for each equation, one column for each system of one left side
   * @return one row for each unknown
   * @throws Undetermined where the equations leave an unknown open
   */
  static double[][] solve(double[][] rows, double[][] right) {
    int unknowns = rows[0].length;
    if (rows.length < unknowns) {
      throw undetermined();
    }
    DMatrixRMaj a = new DMatrixRMaj(rows);
    LinearSolverDense<DMatrixRMaj> solver = LinearSolverFactory_DDRM.qr(rows.length, unknowns);
    if (!solver.setA(a) || !(solver.quality() > SINGULAR)) {
      throw undetermined();
    }
    DMatrixRMaj x = new DMatrixRMaj(unknowns, right[0].length);
    solver.solve(new DMatrixRMaj(right), x);
    double[][] result = new double[unknowns][right[0].length];
    for (int r = 0; r < unknowns; r++) {
      for (int c = 0; c < right[0].length; c++) {
        result[r][c] = x.get(r, c);
      }
    }
    return result;
  }

  private static Undetermined undetermined() {
    return new Undetermined(
        "The points do not determine the model: they are too few, fall together, or lie on one line. Add points away"
            + " from that line.");
  }
}
