package sharpkestrel.segment.regions;

import sharpkestrel.raster.Band;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Statistics;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/**
 * A scene filtered by mean shift (Comaniciu and Meer 2002, IEEE Trans. PAMI 24(5), 603-619): each pixel climbs, in place and
 * colour together, to the middle of what is alike around it, and takes the colour it ends at. Kernels are flat: a square of
 * {@code 2 radius + 1} pixels, and a ball in colour, bands each over their spread.
 *
 * <p>A pixel moves at most the radius in each of a set number of iterations, so what it can see is bounded, and every
 * pixel climbs by itself: the result does not depend on tiles. It stops early where it moves less than half a pixel and a
 * twentieth of the ball.
 */
public final class MeanShiftRaster extends DerivedRaster {

  private final Raster scene;
  private final int radius;
  private final float[] scales;
  private final int iterations;

  private MeanShiftRaster(Raster scene, int radius, float[] scales, int iterations) {
    super(
        scene.grid(),
        scene.bands().stream()
            .map(b -> new Band(b.name(), b.role(), b.unit(), SampleType.FLOAT32, Double.NaN))
            .toList(),
        scene.attachments(),
        Zoom.FULL_RESOLUTION);
    this.scene = scene;
    this.radius = radius;
    this.scales = scales;
    this.iterations = iterations;
  }

  /**
   * @param radius half-width of the square in pixels
   * @param range half-width of the ball in colour, in hundredths of the spread of the scene's values (from the first to the last
   *     hundredth of the pixels)
   */
  public static MeanShiftRaster of(
      Raster scene, int radius, double range, int iterations, Job job) {
    Statistics[] statistics = Statistics.of(scene, 0, job);
    float[] scales = new float[statistics.length];
    boolean any = false;
    for (int b = 0; b < scales.length; b++) {
      if (statistics[b].valid() > 0) {
        double spread =
            statistics[b].histogram().quantile(0.99) - statistics[b].histogram().quantile(0.01);
        scales[b] = (float) (spread > 0 ? 100 / (range * spread) : 0);
        any = true;
      }
    }
    if (!any) {
      throw new RasterException(
          "There is nothing to segment: every pixel of the scene is no-data. Choose another scene or area.");
    }
    return new MeanShiftRaster(scene, radius, scales, iterations);
  }

  /** How many balls a unit of each band is across. */
  float[] scales() {
    return scales;
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    if (level != 0) {
      scene.read(level, window, target, request);
      return;
    }
    Window wide = window.grown((iterations + 1) * radius).intersect(grid().window());
    int bands = scales.length;
    float[][] planes = scene.read(0, wide, request);
    Climb climb = new Climb(planes, scales, wide, radius, iterations);
    int left = window.x() - wide.x();
    int top = window.y() - wide.y();
    for (int y = 0; y < window.height(); y++) {
      request.cancellation().check();
      for (int x = 0; x < window.width(); x++) {
        boolean valid = climb.from(left + x, top + y);
        int from = (top + y) * wide.width() + left + x;
        for (int b = 0; b < bands; b++) {
          if (target[b] != null) {
            target[b][y * window.width() + x] = !valid
                ? Float.NaN
                : scales[b] > 0 ? (float) (climb.at(b) / scales[b]) : planes[b][from];
          }
        }
      }
    }
  }
}
