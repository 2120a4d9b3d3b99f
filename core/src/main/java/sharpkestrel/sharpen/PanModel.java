package sharpkestrel.sharpen;

import java.util.Arrays;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Resampling;
import sharpkestrel.raster.Window;

/**
 * How the panchromatic band relates to the others: weights and constant of the intensity, and for each band the gain
 * with which detail is added ({@code cov(band, intensity) / var(intensity)}).
 */
record PanModel(double[] weights, double constant, double[] gains) {

  /** Fits at the multispectral pixels, the panchromatic ones averaged under each; every pixel takes part. */
  static PanModel fit(
      Raster pan,
      int panBand,
      Raster multispectral,
      double[] given,
      Pansharpen.Method method,
      Job job) {
    int n = multispectral.bands().size();
    if (given.length > 0 && method == Pansharpen.Method.BROVEY) {
      return new PanModel(given, 0, new double[n]);
    }
    double ratio = multispectral.grid().pixelSize() / pan.grid().pixelSize();
    int panLevel = (int) Math.max(0, Math.round(Math.log(ratio) / Math.log(2)));
    Moments sums = new Moments(n + 1);
    Grid grid = multispectral.grid();
    Affine toPan = pan.grid().affine().scaled(1L << panLevel).inverse().after(grid.affine());
    int rows = 256;
    int strips = Math.ceilDiv(grid.height(), rows);
    Moments[] parts = new Moments[strips];
    Parallel.run(strips, job, i -> {
      Window window = new Window(0, i * rows, grid.width(), rows).intersect(grid.window());
      float[][] planes = multispectral.read(0, window, job.request());
      float[] panPlane = panUnder(pan, panBand, panLevel, toPan, window, job);
      parts[i] = new Moments(n + 1);
      parts[i].add(planes, panPlane);
    });
    for (Moments part : parts) {
      sums.add(part);
    }
    if (sums.count < 16L * (n + 1)) {
      throw new RasterException("Only "
          + sums.count
          + " pixels have both panchromatic and multispectral data: too few to relate them. Check that the"
          + " scenes overlap where they have data.");
    }
    double[] weights = given.length > 0 ? given : sums.weights();
    double constant = given.length > 0 ? 0 : sums.constant(weights);
    return new PanModel(weights, constant, sums.gains(weights));
  }

  private static float[] panUnder(
      Raster pan, int panBand, int panLevel, Affine toPan, Window window, Job job) {
    int count = window.area();
    double[] xs = new double[count];
    double[] ys = new double[count];
    for (int i = 0; i < count; i++) {
      double col = window.x() + i % window.width() + 0.5;
      double row = window.y() + Math.floorDiv(i, window.width()) + 0.5;
      xs[i] = toPan.x(col, row);
      ys[i] = toPan.y(col, row);
    }
    Window source = Window.under(
        xs, ys, count, Resampling.BILINEAR.reach(), pan.grid().atLevel(panLevel).window());
    float[][] out = {new float[count]};
    if (source.isEmpty()) {
      Arrays.fill(out[0], Float.NaN);
      return out[0];
    }
    float[][] target = new float[pan.bands().size()][];
    target[panBand] = new float[source.area()];
    Planes.readReduced(pan, panLevel, source, target, job.request());
    for (int i = 0; i < count; i++) {
      xs[i] -= source.x();
      ys[i] -= source.y();
    }
    Resampling.BILINEAR.sample(
        new float[][] {target[panBand]}, source.width(), source.height(), xs, ys, count, out);
    return out[0];
  }

  /** Sums of products of the bands and the panchromatic one (last), in a fixed order. */
  private static final class Moments {
    private final int size;
    private long count;
    private final double[] sum;
    private final double[][] product;

    Moments(int size) {
      this.size = size;
      sum = new double[size];
      product = new double[size][size];
    }

    void add(float[][] planes, float[] pan) {
      double[] v = new double[size];
      for (int i = 0; i < pan.length; i++) {
        boolean valid = !Float.isNaN(pan[i]);
        for (int b = 0; b < size - 1; b++) {
          v[b] = planes[b][i];
          valid &= !Float.isNaN(planes[b][i]);
        }
        if (!valid) {
          continue;
        }
        v[size - 1] = pan[i];
        count++;
        for (int b = 0; b < size; b++) {
          sum[b] += v[b];
          for (int c = b; c < size; c++) {
            product[b][c] += v[b] * v[c];
          }
        }
      }
    }

    void add(Moments other) {
      count += other.count;
      for (int b = 0; b < size; b++) {
        sum[b] += other.sum[b];
        for (int c = b; c < size; c++) {
          product[b][c] += other.product[b][c];
        }
      }
    }

    private double covariance(int b, int c) {
      double p = b <= c ? product[b][c] : product[c][b];
      return p / count - sum[b] / count * (sum[c] / count);
    }

    /** Least squares with weights kept from falling below 0 by leaving the most negative band out and refitting. */
    double[] weights() {
      int n = size - 1;
      boolean[] used = new boolean[n];
      Arrays.fill(used, true);
      while (true) {
        double[] w = solve(used);
        int worst = -1;
        for (int b = 0; b < n; b++) {
          if (w[b] < 0 && (worst < 0 || w[b] < w[worst])) {
            worst = b;
          }
        }
        if (worst < 0) {
          return w;
        }
        used[worst] = false;
      }
    }

    private double[] solve(boolean[] used) {
      int n = size - 1;
      double[][] a = new double[n][n + 1];
      double ridge = 0;
      for (int b = 0; b < n; b++) {
        ridge = Math.max(ridge, covariance(b, b));
      }
      for (int b = 0; b < n; b++) {
        for (int c = 0; c < n; c++) {
          a[b][c] = used[b] && used[c] ? covariance(b, c) : b == c ? 1 : 0;
        }
        a[b][b] += 1e-9 * ridge;
        a[b][n] = used[b] ? covariance(b, n) : 0;
      }
      return LinearSolver.solve(a);
    }

    double constant(double[] w) {
      double c = sum[size - 1] / count;
      for (int b = 0; b < w.length; b++) {
        c -= w[b] * sum[b] / count;
      }
      return c;
    }

    double[] gains(double[] w) {
      double variance = 0;
      for (int b = 0; b < w.length; b++) {
        for (int c = 0; c < w.length; c++) {
          variance += w[b] * w[c] * covariance(b, c);
        }
      }
      double[] g = new double[w.length];
      for (int b = 0; b < w.length; b++) {
        double with = 0;
        for (int c = 0; c < w.length; c++) {
          with += w[c] * covariance(b, c);
        }
        g[b] = variance > 0 ? with / variance : 0;
      }
      return g;
    }
  }
}
