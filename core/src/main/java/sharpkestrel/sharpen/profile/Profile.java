package sharpkestrel.sharpen.profile;

import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Point;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.PolygonFill;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Window;

/**
 * What a place shows in each band.
 *
 * @param name for people
 * @param pixels that have data in every band
 * @param mean of each band; NaN where there are no pixels
 * @param covariance of the bands, of the population
 */
public record Profile(String name, long pixels, double[] mean, double[][] covariance) {

  private static final int ROWS = 256;

  /** Standard deviation of a band. */
  public double spread(int band) {
    return Math.sqrt(Math.max(0, covariance[band][band]));
  }

  /**
   * Of the pixels whose centres lie within polygons, or of the one under a point.
   *
   * @param place in the scene's coordinates
   * @throws RasterException where no pixel with data lies there
   */
  public static Profile of(String name, Raster scene, Geometry place, Job job) {
    Grid grid = scene.grid();
    int bands = scene.bands().size();
    if (place instanceof Point point) {
      Affine toPixel = grid.affine().inverse();
      int x = (int) Math.floor(toPixel.x(point.getX(), point.getY()));
      int y = (int) Math.floor(toPixel.y(point.getX(), point.getY()));
      Sums sums = new Sums(bands);
      sums.add(scene.read(0, new Window(x, y, 1, 1), job.request()), null);
      return sums.toProfile(name);
    }
    PolygonFill fill = new PolygonFill(place, grid);
    Window under = fill.bounds(0).intersect(grid.window());
    int strips = under.isEmpty() ? 0 : Math.ceilDiv(under.height(), ROWS);
    Sums[] parts = new Sums[strips];
    Parallel.run(strips, job, i -> {
      Window strip =
          new Window(under.x(), under.y() + i * ROWS, under.width(), ROWS).intersect(under);
      parts[i] = new Sums(bands);
      parts[i].add(scene.read(0, strip, job.request()), fill.fill(0, strip));
    });
    Sums sums = new Sums(bands);
    for (Sums part : parts) {
      sums.add(part);
    }
    return sums.toProfile(name);
  }

  private static final class Sums {
    private final int bands;
    private long count;
    private final double[] sum;
    private final double[][] product;

    Sums(int bands) {
      this.bands = bands;
      sum = new double[bands];
      product = new double[bands][bands];
    }

    void add(float[][] planes, boolean[] inside) {
      double[] v = new double[bands];
      for (int i = 0; i < planes[0].length; i++) {
        boolean valid = inside == null || inside[i];
        for (int b = 0; b < bands && valid; b++) {
          v[b] = planes[b][i];
          valid = !Double.isNaN(v[b]);
        }
        if (!valid) {
          continue;
        }
        count++;
        for (int b = 0; b < bands; b++) {
          sum[b] += v[b];
          for (int c = b; c < bands; c++) {
            product[b][c] += v[b] * v[c];
          }
        }
      }
    }

    void add(Sums other) {
      count += other.count;
      for (int b = 0; b < bands; b++) {
        sum[b] += other.sum[b];
        for (int c = b; c < bands; c++) {
          product[b][c] += other.product[b][c];
        }
      }
    }

    Profile toProfile(String name) {
      if (count == 0) {
        throw new RasterException(
            "'" + name
                + "' holds no pixel with data in every band of this scene. Choose another place, or another scene.");
      }
      double[] mean = new double[bands];
      double[][] covariance = new double[bands][bands];
      for (int b = 0; b < bands; b++) {
        mean[b] = sum[b] / count;
        for (int c = 0; c < bands; c++) {
          double p = b <= c ? product[b][c] : product[c][b];
          covariance[b][c] = p / count - sum[b] / count * (sum[c] / count);
        }
      }
      return new Profile(name, count, mean, covariance);
    }
  }
}
