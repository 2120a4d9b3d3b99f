package sharpkestrel.app.tools.texture;

import java.util.ArrayList;
import java.util.List;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Window;
import sharpkestrel.sharpen.texture.Measure;

/**
 * All measures of texture in a part of a scene, and how much one tells of another.
 *
 * @param planes by measure, row by row
 * @param correlation between -1 and 1 by two measures; NaN where one does not vary
 */
public record TextureSamples(int width, int height, float[][] planes, double[][] correlation) {

  /** From this correlation on a measure tells hardly anything that another does not. */
  public static final double REDUNDANT = 0.95;

  /**
   * @param texture of all measures, in their order
   * @param window of its full-size pixels
   */
  public static TextureSamples of(Raster texture, Window window, Job job) {
    float[][] planes = texture.read(0, window, job.request());
    int n = planes.length;
    double[][] correlation = new double[n][n];
    for (int a = 0; a < n; a++) {
      correlation[a][a] = 1;
      for (int b = a + 1; b < n; b++) {
        correlation[a][b] = correlation[b][a] = correlation(planes[a], planes[b]);
      }
    }
    return new TextureSamples(window.width(), window.height(), planes, correlation);
  }

  /** Pearson's, over places where both have a value. */
  static double correlation(float[] x, float[] y) {
    double n = 0;
    double sx = 0;
    double sy = 0;
    double sxx = 0;
    double syy = 0;
    double sxy = 0;
    for (int i = 0; i < x.length; i++) {
      if (!Float.isNaN(x[i] + y[i])) {
        n++;
        sx += x[i];
        sy += y[i];
        sxx += (double) x[i] * x[i];
        syy += (double) y[i] * y[i];
        sxy += (double) x[i] * y[i];
      }
    }
    double vx = sxx / n - sx / n * (sx / n);
    double vy = syy / n - sy / n * (sy / n);
    double still = 1e-10;
    return vx > still * sxx / n && vy > still * syy / n
        ? (sxy / n - sx / n * (sy / n)) / Math.sqrt(vx * vy)
        : Double.NaN;
  }

  /** Measures, in their order, of which none tells what one before it does already. */
  public List<Measure> independent() {
    List<Measure> kept = new ArrayList<>();
    for (Measure measure : Measure.values()) {
      boolean tellsMore = true;
      for (Measure before : kept) {
        double r = correlation[before.ordinal()][measure.ordinal()];
        tellsMore &= !(Math.abs(r) >= REDUNDANT);
      }
      boolean varies =
          kept.isEmpty() || !Double.isNaN(correlation[kept.get(0).ordinal()][measure.ordinal()]);
      if (tellsMore && varies) {
        kept.add(measure);
      }
    }
    return kept;
  }
}
