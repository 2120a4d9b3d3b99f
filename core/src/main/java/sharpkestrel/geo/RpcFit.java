package sharpkestrel.geo;

import org.ejml.data.DMatrixRMaj;
import org.ejml.dense.row.factory.LinearSolverFactory_DDRM;

/**
 * Fits an RPC to another model of an image on a lattice of ground points: least squares of {@code numerator - image *
 * denominator}, with a little ridge because the terms are nearly dependent (Tao and Hu 2001, PE&RS 67(12), 1347-1357),
 * and tells how far it is off on points between those of the lattice.
 *
 * @param rms of the distance between RPC and model, pixels, at points it was not fitted to
 * @param worst of those distances
 */
public record RpcFit(Rpc rpc, double rms, double worst) {

  private static final int ACROSS = 17;
  private static final int LEVELS = 7;
  private static final double RIDGE = 1e-9;
  private static final int UNKNOWNS = 39;

  /** What an image shows. */
  public interface View {
    /**
     * @param height above the ellipsoid
     * @param degrees (output) longitude and latitude seen at an image place, at that height
     */
    void toGround(double col, double row, double height, double[] degrees);
  }

  /** Points of the ground with where they are seen. */
  private record Points(double[] degrees, double[] heights, double[] cols, double[] rows) {}

  /**
   * @param low ellipsoidal height from which, and {@code high} up to which, it holds
   */
  public static RpcFit of(View view, int width, int height, double low, double high) {
    Points points = lattice(view, width, height, low, high, ACROSS, LEVELS, 0.05);
    double[] lon = spread(points.degrees, 0, 2);
    double[] lat = spread(points.degrees, 1, 2);
    double[] up = spread(points.heights, 0, 1);
    double middleX = width / 2.0;
    double middleY = height / 2.0;
    double[][] terms = new double[points.heights.length][20];
    for (int i = 0; i < terms.length; i++) {
      Rpc.terms(
          (points.degrees[2 * i] - lon[0]) / lon[1],
          (points.degrees[2 * i + 1] - lat[0]) / lat[1],
          (points.heights[i] - up[0]) / up[1],
          terms[i]);
    }
    double[][] line = fit(terms, points.rows, middleY);
    double[][] sample = fit(terms, points.cols, middleX);
    // Files count from the centre of the first pixel.
    Rpc rpc = new Rpc(
        0,
        0.1,
        middleY - 0.5,
        middleX - 0.5,
        lat[0],
        lon[0],
        up[0],
        middleY,
        middleX,
        lat[1],
        lon[1],
        up[1],
        new double[][] {line[0], line[1], sample[0], sample[1]});
    return checked(rpc, lattice(view, width, height, low, high, 2 * ACROSS + 4, LEVELS - 1, 0));
  }

  private static RpcFit checked(Rpc rpc, Points points) {
    double[] image = new double[2];
    double squares = 0;
    double worst = 0;
    for (int i = 0; i < points.heights.length; i++) {
      rpc.toImage(points.degrees[2 * i], points.degrees[2 * i + 1], points.heights[i], image);
      double off = Math.hypot(image[0] - points.cols[i], image[1] - points.rows[i]);
      squares += off * off / points.heights.length;
      worst = Math.max(worst, off);
    }
    return new RpcFit(rpc, Math.sqrt(squares), worst);
  }

  private static Points lattice(
      View view,
      int width,
      int height,
      double low,
      double high,
      int across,
      int levels,
      double beyond) {
    int count = across * across * levels;
    Points points =
        new Points(new double[2 * count], new double[count], new double[count], new double[count]);
    double[] degrees = new double[2];
    int at = 0;
    for (int k = 0; k < levels; k++) {
      double h = low + (high - low) * k / (levels - 1);
      for (int j = 0; j < across; j++) {
        for (int i = 0; i < across; i++) {
          points.cols[at] = width * ((1 + 2 * beyond) * i / (across - 1) - beyond);
          points.rows[at] = height * ((1 + 2 * beyond) * j / (across - 1) - beyond);
          view.toGround(points.cols[at], points.rows[at], h, degrees);
          points.degrees[2 * at] = degrees[0];
          points.degrees[2 * at + 1] = degrees[1];
          points.heights[at++] = h;
        }
      }
    }
    return points;
  }

  private static double[] spread(double[] values, int from, int step) {
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    for (int i = from; i < values.length; i += step) {
      low = Math.min(low, values[i]);
      high = Math.max(high, values[i]);
    }
    return new double[] {(low + high) / 2, (high - low) / 2};
  }

  private static double[][] fit(double[][] terms, double[] image, double middle) {
    DMatrixRMaj normal = new DMatrixRMaj(UNKNOWNS, UNKNOWNS);
    DMatrixRMaj right = new DMatrixRMaj(UNKNOWNS, 1);
    double[] row = new double[UNKNOWNS];
    for (int i = 0; i < image.length; i++) {
      double y = (image[i] - middle) / middle;
      System.arraycopy(terms[i], 0, row, 0, 20);
      for (int k = 1; k < 20; k++) {
        row[19 + k] = -y * terms[i][k];
      }
      for (int r = 0; r < UNKNOWNS; r++) {
        for (int c = 0; c < UNKNOWNS; c++) {
          normal.add(r, c, row[r] * row[c]);
        }
        right.add(r, 0, row[r] * y);
      }
    }
    for (int r = 0; r < UNKNOWNS; r++) {
      normal.add(r, r, RIDGE * image.length);
    }
    var solver = LinearSolverFactory_DDRM.symmPosDef(UNKNOWNS);
    DMatrixRMaj x = new DMatrixRMaj(UNKNOWNS, 1);
    if (!solver.setA(normal)) {
      throw new IllegalStateException("With its ridge the matrix is positive definite");
    }
    solver.solve(right, x);
    double[][] result = new double[2][20];
    System.arraycopy(x.data, 0, result[0], 0, 20);
    result[1][0] = 1;
    System.arraycopy(x.data, 20, result[1], 1, 19);
    return result;
  }
}
