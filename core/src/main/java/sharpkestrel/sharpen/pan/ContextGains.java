package sharpkestrel.sharpen.pan;

import java.util.Arrays;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/**
 * Gain of each band by what surrounds a pixel: the slope of the band over the reduced panchromatic one in a window of the
 * multispectral scene (the context-based decision of Aiazzi et al. 2006). Where the window holds little contrast the slope
 * is drawn towards that of the whole scene, as noise has none of its own; it is kept from 0 to {@value #MOST} times that.
 */
final class ContextGains extends DerivedRaster {

  /** Half the side of the window in multispectral pixels. */
  private static final int RADIUS = 4;

  /** Share of the scene's variance that counts as no contrast. */
  private static final double STILL = 0.01;

  private static final float MOST = 3;

  private final Raster scene;
  private final Raster reduced;
  private final double[] gains;
  private final double still;

  /**
   * @param reduced the panchromatic band on the scene's grid
   * @param gains of the whole scene
   * @param variance of the reduced panchromatic band over the whole scene
   */
  ContextGains(Raster scene, Raster reduced, double[] gains, double variance) {
    super(
        scene.grid(),
        scene.bands().stream()
            .map(band -> new Band(
                "gain of " + band.name(), BandRole.OTHER, "", SampleType.FLOAT32, Double.NaN))
            .toList(),
        Attachments.NONE,
        Zoom.FULL_RESOLUTION);
    this.scene = scene;
    this.reduced = reduced;
    this.gains = gains;
    this.still = STILL * variance;
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    if (level > 0) {
      throw new RasterException("Gains have no reduced levels.");
    }
    Window wide = window.grown(RADIUS);
    float[] pan = reduced.read(0, wide, request)[0];
    float[][] bands = new float[target.length][];
    for (int b = 0; b < target.length; b++) {
      bands[b] = target[b] == null ? null : new float[wide.area()];
    }
    scene.read(0, wide, bands, request);
    for (int b = 0; b < target.length; b++) {
      if (target[b] != null) {
        slopes(bands[b], pan, wide.width(), window, gains[b], target[b]);
      }
    }
  }

  private void slopes(
      float[] band, float[] pan, int stride, Window window, double gain, float[] out) {
    int side = 2 * RADIUS + 1;
    int width = window.width();
    // sums over the columns of each window, row by row of the output, in one order wherever the
    // tile begins
    double[][] column = new double[5][stride];
    for (int y = 0; y < window.height(); y++) {
      for (double[] sums : column) {
        Arrays.fill(sums, 0);
      }
      for (int k = 0; k < side; k++) {
        int at = (y + k) * stride;
        for (int x = 0; x < stride; x++) {
          double p = pan[at + x];
          double v = band[at + x];
          if (!Double.isNaN(p + v)) {
            column[0][x]++;
            column[1][x] += p;
            column[2][x] += v;
            column[3][x] += p * p;
            column[4][x] += p * v;
          }
        }
      }
      for (int x = 0; x < width; x++) {
        double n = 0;
        double p = 0;
        double v = 0;
        double pp = 0;
        double pv = 0;
        for (int k = x; k < x + side; k++) {
          n += column[0][k];
          p += column[1][k];
          v += column[2][k];
          pp += column[3][k];
          pv += column[4][k];
        }
        double variance = Math.max(0, pp - p * p / n) / n;
        double covariance = (pv - p * v / n) / n;
        double slope = (covariance + still * gain) / (variance + still);
        double most = MOST * Math.abs(gain);
        out[y * width + x] = n == 0 ? Float.NaN : (float) Math.max(0, Math.min(most, slope));
      }
    }
  }
}
