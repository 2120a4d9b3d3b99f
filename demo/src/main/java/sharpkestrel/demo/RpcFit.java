package sharpkestrel.demo;

import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.Rpc;
import sharpkestrel.raster.CrsName;

/**
 * Fits an RPC to the camera on a lattice of ground points: least squares of {@code numerator - image * denominator},
 * with a little ridge because the terms are nearly dependent (Tao and Hu 2001, PE&RS 67(12), 1347-1357).
 */
final class RpcFit {

  static final CrsName GRID_CRS = CrsName.epsg(32630);
  private static final int ACROSS = 15;
  private static final int LEVELS = 7;
  private static final double RIDGE = 1e-9;

  private RpcFit() {}

  static Rpc of(World world) {
    double low = World.UNDULATION - 5;
    double high = World.UNDULATION + world.terrain().highest() + 40;
    int count = ACROSS * ACROSS * LEVELS;
    double[] ground = new double[2 * count];
    double[] heights = new double[count];
    double[] cols = new double[count];
    double[] rows = new double[count];
    double[] ray = new double[4];
    int n = 0;
    for (int k = 0; k < LEVELS; k++) {
      double h = low + (high - low) * k / (LEVELS - 1);
      for (int j = 0; j < ACROSS; j++) {
        for (int i = 0; i < ACROSS; i++) {
          cols[n] = world.size() * (1.1 * i / (ACROSS - 1) - 0.05);
          rows[n] = world.size() * (1.1 * j / (ACROSS - 1) - 0.05);
          world.camera().ray(cols[n], rows[n], ray);
          ground[2 * n] = ray[0] + h * ray[2];
          ground[2 * n + 1] = ray[1] + h * ray[3];
          heights[n++] = h;
        }
      }
    }
    CoordinateMap toDegrees = Crs.of(GRID_CRS).to(Crs.of(Crs.WGS84));
    toDegrees.apply(ground, count);
    double[] lon = spread(ground, 0, 2);
    double[] lat = spread(ground, 1, 2);
    double[] height = spread(heights, 0, 1);
    double middle = world.size() / 2.0;
    double[][] terms = new double[count][20];
    for (int i = 0; i < count; i++) {
      Rpc.terms(
          (ground[2 * i] - lon[0]) / lon[1],
          (ground[2 * i + 1] - lat[0]) / lat[1],
          (heights[i] - height[0]) / height[1],
          terms[i]);
    }
    double[][] line = fit(terms, rows, middle);
    double[][] sample = fit(terms, cols, middle);
    // Files count from the centre of the first pixel.
    return new Rpc(
        0,
        0.1,
        middle - 0.5,
        middle - 0.5,
        lat[0],
        lon[0],
        height[0],
        middle,
        middle,
        lat[1],
        lon[1],
        height[1],
        new double[][] {line[0], line[1], sample[0], sample[1]});
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
    int unknowns = 39;
    double[][] a = new double[unknowns][unknowns + 1];
    double[] row = new double[unknowns];
    for (int i = 0; i < image.length; i++) {
      double y = (image[i] - middle) / middle;
      for (int k = 0; k < 20; k++) {
        row[k] = terms[i][k];
      }
      for (int k = 1; k < 20; k++) {
        row[19 + k] = -y * terms[i][k];
      }
      for (int r = 0; r < unknowns; r++) {
        for (int c = 0; c < unknowns; c++) {
          a[r][c] += row[r] * row[c];
        }
        a[r][unknowns] += row[r] * y;
      }
    }
    for (int r = 0; r < unknowns; r++) {
      a[r][r] += RIDGE * image.length;
    }
    double[] x = solve(a);
    double[][] result = new double[2][20];
    System.arraycopy(x, 0, result[0], 0, 20);
    result[1][0] = 1;
    System.arraycopy(x, 20, result[1], 1, 19);
    return result;
  }

  /** Cholesky: the matrix is symmetric and, with its ridge, positive definite. */
  private static double[] solve(double[][] a) {
    int n = a.length;
    double[][] l = new double[n][n];
    for (int i = 0; i < n; i++) {
      for (int j = 0; j <= i; j++) {
        double sum = a[i][j];
        for (int k = 0; k < j; k++) {
          sum -= l[i][k] * l[j][k];
        }
        l[i][j] = i == j ? Math.sqrt(sum) : sum / l[j][j];
      }
    }
    double[] y = new double[n];
    for (int i = 0; i < n; i++) {
      double sum = a[i][n];
      for (int k = 0; k < i; k++) {
        sum -= l[i][k] * y[k];
      }
      y[i] = sum / l[i][i];
    }
    double[] x = new double[n];
    for (int i = n - 1; i >= 0; i--) {
      double sum = y[i];
      for (int k = i + 1; k < n; k++) {
        sum -= l[k][i] * x[k];
      }
      x[i] = sum / l[i][i];
    }
    return x;
  }
}
