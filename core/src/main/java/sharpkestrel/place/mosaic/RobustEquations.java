package sharpkestrel.place.mosaic;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.ejml.data.DMatrixRMaj;
import org.ejml.dense.row.factory.LinearSolverFactory_DDRM;
import org.ejml.interfaces.linsol.LinearSolverDense;
import sharpkestrel.raster.RasterException;

/** Normal equations of a robust fit: what fits badly counts less (Tukey's biweight). */
final class RobustEquations {
  private static final double TUKEY = 4.685;
  private static final double TO_SIGMA = 1.4826;

  private final int unknowns;
  private final List<double[]> rows = new ArrayList<>();
  private final List<Double> right = new ArrayList<>();

  RobustEquations(int unknowns) {
    this.unknowns = unknowns;
  }

  /** An equation that asks for nothing yet. */
  double[] row() {
    return new double[unknowns];
  }

  void add(double[] row, double value) {
    rows.add(row);
    right.add(value);
  }

  double[] solve(int passes) {
    double[] weights = new double[rows.size()];
    Arrays.fill(weights, 1);
    double[] x = solved(weights);
    for (int pass = 0; pass < passes; pass++) {
      float[] off = new float[weights.length];
      for (int i = 0; i < off.length; i++) {
        off[i] = (float) Math.abs(residual(i, x));
      }
      double limit = TUKEY * TO_SIGMA * Tones.median(off, off.length);
      if (!(limit > 0)) {
        return x;
      }
      for (int i = 0; i < off.length; i++) {
        double u = off[i] / limit;
        weights[i] = u < 1 ? (1 - u * u) * (1 - u * u) : 0;
      }
      x = solved(weights);
    }
    return x;
  }

  private double residual(int i, double[] x) {
    double sum = -right.get(i);
    double[] row = rows.get(i);
    for (int k = 0; k < unknowns; k++) {
      sum += row[k] * x[k];
    }
    return sum;
  }

  private double[] solved(double[] weights) {
    DMatrixRMaj normal = new DMatrixRMaj(unknowns, unknowns);
    DMatrixRMaj side = new DMatrixRMaj(unknowns, 1);
    for (int i = 0; i < weights.length; i++) {
      double[] row = rows.get(i);
      for (int k = 0; k < unknowns; k++) {
        double weighted = weights[i] * row[k];
        if (weighted != 0) {
          for (int j = 0; j < unknowns; j++) {
            normal.add(k, j, weighted * row[j]);
          }
          side.add(k, 0, weighted * right.get(i));
        }
      }
    }
    LinearSolverDense<DMatrixRMaj> solver = LinearSolverFactory_DDRM.symmPosDef(unknowns);
    if (!solver.setA(normal)) {
      throw new RasterException(
          "The overlaps are too alike in tone to balance the scenes by. Choose no balance, or leave the trend out.");
    }
    DMatrixRMaj x = new DMatrixRMaj(unknowns, 1);
    solver.solve(side, x);
    return x.getData().clone();
  }
}
