package sharpkestrel.sharpen.profile;

import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Point;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Covariances;
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
      Covariances sums = new Covariances(bands);
      sums.add(scene.read(0, new Window(x, y, 1, 1), job.request()), null);
      return of(name, sums);
    }
    PolygonFill fill = new PolygonFill(place, grid);
    Window under = fill.bounds(0).intersect(grid.window());
    int strips = under.isEmpty() ? 0 : Math.ceilDiv(under.height(), ROWS);
    Covariances[] parts = new Covariances[strips];
    Parallel.run(strips, job, i -> {
      Window strip =
          new Window(under.x(), under.y() + i * ROWS, under.width(), ROWS).intersect(under);
      parts[i] = new Covariances(bands);
      parts[i].add(scene.read(0, strip, job.request()), fill.fill(0, strip));
    });
    Covariances sums = new Covariances(bands);
    for (Covariances part : parts) {
      sums.add(part);
    }
    return of(name, sums);
  }

  private static Profile of(String name, Covariances sums) {
    if (sums.count() == 0) {
      throw new RasterException(
          "'" + name
              + "' holds no pixel with data in every band of this scene. Choose another place, or another scene.");
    }
    int bands = sums.bands();
    double[] mean = new double[bands];
    double[][] covariance = new double[bands][bands];
    for (int b = 0; b < bands; b++) {
      mean[b] = sums.mean(b);
      for (int c = 0; c < bands; c++) {
        covariance[b][c] = sums.of(b, c);
      }
    }
    return new Profile(name, sums.count(), mean, covariance);
  }
}
