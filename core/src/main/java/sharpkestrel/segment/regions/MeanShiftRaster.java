package sharpkestrel.segment.regions;

import java.util.Arrays;
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
 * hundredth of the ball.
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
    float[] colours = interleaved(planes, bands, wide.area());
    float[] at = new float[bands];
    float[] sums = new float[bands];
    for (int y = 0; y < window.height(); y++) {
      request.cancellation().check();
      for (int x = 0; x < window.width(); x++) {
        int from = (y + window.y() - wide.y()) * wide.width() + x + window.x() - wide.x();
        climb(colours, wide, from, bands, at, sums);
        for (int b = 0; b < bands; b++) {
          if (target[b] != null) {
            target[b][y * window.width() + x] = scales[b] > 0 ? at[b] / scales[b] : planes[b][from];
          }
        }
      }
    }
  }

  private float[] interleaved(float[][] planes, int bands, int pixels) {
    float[] colours = new float[pixels * bands];
    for (int b = 0; b < bands; b++) {
      for (int i = 0; i < pixels; i++) {
        colours[i * bands + b] = planes[b][i] * scales[b];
      }
    }
    return colours;
  }

  /**
   * @param at (output) the colour that the pixel ends at; NaN where it has no data
   * @param sums (modified) room for one number a band
   */
  private void climb(float[] colours, Window wide, int from, int bands, float[] at, float[] sums) {
    int width = wide.width();
    int x = from % width;
    int y = from / width;
    for (int b = 0; b < bands; b++) {
      at[b] = colours[from * bands + b];
      if (Float.isNaN(at[b])) {
        Arrays.fill(at, Float.NaN);
        return;
      }
    }
    float middleX = x;
    float middleY = y;
    for (int i = 0; i < iterations; i++) {
      int cx = Math.round(middleX);
      int cy = Math.round(middleY);
      int left = Math.max(0, cx - radius);
      int right = Math.min(width - 1, cx + radius);
      int top = Math.max(0, cy - radius);
      int bottom = Math.min(wide.height() - 1, cy + radius);
      int count = 0;
      long sumX = 0;
      long sumY = 0;
      Arrays.fill(sums, 0);
      for (int v = top; v <= bottom; v++) {
        int row = v * width;
        int inRow = 0;
        for (int u = left; u <= right; u++) {
          int k = (row + u) * bands;
          float distance = 0;
          for (int b = 0; b < bands; b++) {
            float d = colours[k + b] - at[b];
            distance += d * d;
          }
          // no-data is NaN and never near
          if (distance <= 1) {
            inRow++;
            sumX += u;
            for (int b = 0; b < bands; b++) {
              sums[b] += colours[k + b];
            }
          }
        }
        count += inRow;
        sumY += (long) inRow * v;
      }
      if (count == 0) {
        return;
      }
      float newX = (float) sumX / count;
      float newY = (float) sumY / count;
      float moved = 0;
      for (int b = 0; b < bands; b++) {
        float colour = sums[b] / count;
        moved += (colour - at[b]) * (colour - at[b]);
        at[b] = colour;
      }
      boolean still = Math.abs(newX - middleX) < 0.5f && Math.abs(newY - middleY) < 0.5f;
      middleX = newX;
      middleY = newY;
      if (still && moved < 1e-4f) {
        return;
      }
    }
  }
}
