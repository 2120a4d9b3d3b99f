package sharpkestrel.demo.sensor;

import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.Rpc;
import sharpkestrel.raster.CrsName;

/**
 * Fits an RPC to a sensor on a lattice of ground points: least squares of {@code numerator - image * denominator}, with
 * a little ridge because the terms are nearly dependent (Tao and Hu 2001, PE&RS 67(12), 1347-1357), and tells how far it
 * is off on points between those of the lattice.
 *
 * @param rms of the distance between RPC and sensor, pixels, at points it was not fitted to
 * @param worst of those distances
 */
public record RpcFit(Rpc rpc, double rms, double worst) {

  private static final int ACROSS = 17;
  private static final int LEVELS = 7;
  private static final double RIDGE = 1e-9;

  /** Points of the ground with where they are seen. */
  private record Points(double[] degrees, double[] heights, double[] cols, double[] rows) {}

  /**
   * @param crs of the sensor's east and north
   * @param low ellipsoidal height from which, and {@code high} up to which, it holds
   */
  public static RpcFit of(Sensor sensor, CrsName crs, double low, double high) {
    Points points = lattice(sensor, crs, low, high, ACROSS, LEVELS, 0.05);
    double[] lon = spread(points.degrees, 0, 2);
    double[] lat = spread(points.degrees, 1, 2);
    double[] height = spread(points.heights, 0, 1);
    double middleX = sensor.width() / 2.0;
    double middleY = sensor.height() / 2.0;
    double[][] terms = new double[points.heights.length][20];
    for (int i = 0; i < terms.length; i++) {
      Rpc.terms(
          (points.degrees[2 * i] - lon[0]) / lon[1],
          (points.degrees[2 * i + 1] - lat[0]) / lat[1],
          (points.heights[i] - height[0]) / height[1],
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
        height[0],
        middleY,
        middleX,
        lat[1],
        lon[1],
        height[1],
        new double[][] {line[0], line[1], sample[0], sample[1]});
    return checked(rpc, lattice(sensor, crs, low, high, 2 * ACROSS + 4, LEVELS - 1, 0));
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
      Sensor sensor, CrsName crs, double low, double high, int across, int levels, double beyond) {
    int count = across * across * levels;
    Points points =
        new Points(new double[2 * count], new double[count], new double[count], new double[count]);
    double[] ray = new double[4];
    int at = 0;
    for (int k = 0; k < levels; k++) {
      double h = low + (high - low) * k / (levels - 1);
      for (int j = 0; j < across; j++) {
        for (int i = 0; i < across; i++) {
          points.cols[at] = sensor.width() * ((1 + 2 * beyond) * i / (across - 1) - beyond);
          points.rows[at] = sensor.height() * ((1 + 2 * beyond) * j / (across - 1) - beyond);
          sensor.ray(points.cols[at], points.rows[at], ray);
          points.degrees[2 * at] = ray[0] + h * ray[2];
          points.degrees[2 * at + 1] = ray[1] + h * ray[3];
          points.heights[at++] = h;
        }
      }
    }
    CoordinateMap toDegrees = Crs.of(crs).to(Crs.of(Crs.WGS84));
    toDegrees.apply(points.degrees, count);
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
