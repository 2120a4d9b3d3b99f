package sharpkestrel.place.fit;

import org.ejml.data.DMatrixRMaj;
import org.ejml.dense.row.CommonOps_DDRM;

/**
 * A thin-plate spline (Duchon 1977; Bookstein 1989, IEEE PAMI 11(6)): passes through every point and bends as little as
 * it can between them. What it would say of a point that is left out follows from the same matrix (Rippa 1999, Advances
 * in Computational Mathematics 11).
 */
final class SplineMap implements PlaneMap {

  private final Scaling scaling;
  private final double[][] nodes;
  private final DMatrixRMaj weights;
  private final double[][] leftOut;

  private SplineMap(Scaling scaling, double[][] nodes, DMatrixRMaj weights, double[][] leftOut) {
    this.scaling = scaling;
    this.nodes = nodes;
    this.weights = weights;
    this.leftOut = leftOut;
  }

  static SplineMap fit(double[][] from, double[][] to) {
    Scaling scaling = Scaling.of(from);
    int n = from.length;
    double[][] nodes = new double[n][];
    for (int i = 0; i < n; i++) {
      nodes[i] = new double[] {scaling.u(from[i][0]), scaling.v(from[i][1])};
    }
    // refuses what lies on one line, in the same words as other models
    PolynomialMap.fit(1, from, to);
    DMatrixRMaj a = new DMatrixRMaj(n + 3, n + 3);
    DMatrixRMaj right = new DMatrixRMaj(n + 3, 2);
    for (int i = 0; i < n; i++) {
      for (int j = 0; j < n; j++) {
        a.set(i, j, bend(nodes[i], nodes[j][0], nodes[j][1]));
      }
      double[] plane = {1, nodes[i][0], nodes[i][1]};
      for (int k = 0; k < 3; k++) {
        a.set(i, n + k, plane[k]);
        a.set(n + k, i, plane[k]);
      }
      right.set(i, 0, to[i][0]);
      right.set(i, 1, to[i][1]);
    }
    DMatrixRMaj inverse = new DMatrixRMaj(n + 3, n + 3);
    if (!CommonOps_DDRM.invert(a, inverse)) {
      throw new LeastSquares.Undetermined(
          "Two points fall together, so no spline passes through both. Switch one of them off.");
    }
    DMatrixRMaj weights = new DMatrixRMaj(n + 3, 2);
    CommonOps_DDRM.mult(inverse, right, weights);
    double[][] leftOut = new double[n][2];
    for (int i = 0; i < n; i++) {
      for (int k = 0; k < 2; k++) {
        leftOut[i][k] = -weights.get(i, k) / inverse.get(i, i);
      }
    }
    return new SplineMap(scaling, nodes, weights, leftOut);
  }

  /** r² log r. */
  private static double bend(double[] node, double u, double v) {
    double squared = (node[0] - u) * (node[0] - u) + (node[1] - v) * (node[1] - v);
    return squared == 0 ? 0 : 0.5 * squared * Math.log(squared);
  }

  /** What it would be off by in x and y at each point, had it not known that point. */
  double[][] leftOut() {
    return leftOut;
  }

  @Override
  public void apply(double u, double v, double[] xy) {
    double a = scaling.u(u);
    double b = scaling.v(v);
    int n = nodes.length;
    double x = weights.get(n, 0) + weights.get(n + 1, 0) * a + weights.get(n + 2, 0) * b;
    double y = weights.get(n, 1) + weights.get(n + 1, 1) * a + weights.get(n + 2, 1) * b;
    for (int i = 0; i < n; i++) {
      double bend = bend(nodes[i], a, b);
      x += weights.get(i, 0) * bend;
      y += weights.get(i, 1) * bend;
    }
    xy[0] = x;
    xy[1] = y;
  }
}
