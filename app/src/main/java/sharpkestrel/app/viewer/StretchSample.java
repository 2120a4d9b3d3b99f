package sharpkestrel.app.viewer;

import java.util.Arrays;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.StretchRule;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/**
 * Values of the three bands shown, from the scene or from what is in view, sorted once: the ends of any stretch, and the
 * histogram behind its handles, are then found at once.
 */
public final class StretchSample {

  private static final int MOST = 250_000;

  /** Pixels a side that a cached raster works out at a time. */
  private static final int TILE = 256;

  private final float[][] sorted;

  private StretchSample(float[][] sorted) {
    this.sorted = sorted;
  }

  /**
   * @param bands for red, green and blue
   * @param window of full-size pixels; the whole grid for the scene
   */
  static StretchSample of(Raster raster, int[] bands, Window window) {
    int level = 0;
    while ((long) (window.width() >> level) * (window.height() >> level) > MOST
        && level < raster.levels() - 1) {
      level++;
    }
    Grid grid = raster.grid().atLevel(level);
    Window part = new Window(
            window.x() >> level,
            window.y() >> level,
            Math.max(1, window.width() >> level),
            Math.max(1, window.height() >> level))
        .intersect(grid.window());
    float[][] sorted = new float[3][0];
    if (part.isEmpty()) {
      return new StretchSample(sorted);
    }
    float[][] planes = new float[raster.bands().size()][];
    for (int band : bands) {
      planes[band] = planes[band] == null ? new float[part.area()] : planes[band];
    }
    read(raster, level, part, planes);
    int[] distinct = Arrays.stream(bands).distinct().toArray();
    float[][] sortedBands = new float[planes.length][];
    Parallel.run(
        distinct.length, Job.QUIET, k -> sortedBands[distinct[k]] = sorted(planes[distinct[k]]));
    Arrays.setAll(sorted, c -> sortedBands[bands[c]]);
    return new StretchSample(sorted);
  }

  /** Reads tile by tile on every core: what is tried is worked out as it is read. */
  private static void read(Raster raster, int level, Window part, float[][] planes) {
    int left = Math.floorDiv(part.x(), TILE);
    int top = Math.floorDiv(part.y(), TILE);
    int across = Math.ceilDiv(part.right(), TILE) - left;
    int down = Math.ceilDiv(part.bottom(), TILE) - top;
    Parallel.run(across * down, Job.QUIET, k -> {
      Window tile = new Window((left + k % across) * TILE, (top + k / across) * TILE, TILE, TILE)
          .intersect(part);
      float[][] values = Planes.like(planes, tile.area());
      raster.read(level, tile, values, Request.BACKGROUND);
      for (int b = 0; b < planes.length; b++) {
        if (planes[b] != null) {
          Planes.copy(values[b], tile, planes[b], part);
        }
      }
    });
  }

  /** Values in ascending order, without those that are none. */
  private static float[] sorted(float[] plane) {
    float[] all = plane.clone();
    Arrays.sort(all);
    int n = all.length;
    while (n > 0 && Float.isNaN(all[n - 1])) {
      n--;
    }
    return Arrays.copyOf(all, n);
  }

  Stretch stretch(Look look) {
    StretchRule rule = look.stretch();
    float[] low = new float[3];
    float[] high = {1, 1, 1};
    for (int c = 0; c < 3; c++) {
      double[] ends = ends(rule, c);
      low[c] = (float) ends[0];
      high[c] = (float) ends[1];
    }
    if (rule.linked() && rule.kind() != StretchRule.Kind.BY_HAND) {
      float least = Math.min(low[0], Math.min(low[1], low[2]));
      float most = Math.max(high[0], Math.max(high[1], high[2]));
      Arrays.fill(low, least);
      Arrays.fill(high, most);
    }
    Stretch stretch = Stretch.of(low, high, rule.gamma());
    return look.ramp() ? stretch.asRamp(rule.gamma()) : stretch;
  }

  private double[] ends(StretchRule rule, int c) {
    float[] values = sorted[c];
    if (values.length == 0) {
      return new double[] {0, 1};
    }
    return switch (rule.kind()) {
      case PERCENT -> new double[] {quantile(c, rule.low() / 100), quantile(c, rule.high() / 100)};
      case RANGE -> new double[] {values[0], values[values.length - 1]};
      case DEVIATIONS -> {
        double sum = 0;
        double squares = 0;
        for (float v : values) {
          sum += v;
          squares += (double) v * v;
        }
        double mean = sum / values.length;
        double deviation = Math.sqrt(Math.max(0, squares / values.length - mean * mean));
        yield new double[] {mean - rule.low() * deviation, mean + rule.high() * deviation};
      }
      case BY_HAND -> new double[] {rule.ends().low()[c], rule.ends().high()[c]};
    };
  }

  /** The value under which a share of a channel's values lies; NaN where there are none. */
  public double quantile(int channel, double share) {
    float[] values = sorted[channel];
    return values.length == 0
        ? Double.NaN
        : values[(int) (Math.max(0, Math.min(1, share)) * (values.length - 1))];
  }

  /** How many of a channel's values fall in each of equal bins between two values. */
  public long[] histogram(int channel, double from, double to, int bins) {
    long[] counts = new long[bins];
    double scale = bins / Math.max(1e-12, to - from);
    for (float v : sorted[channel]) {
      int bin = (int) Math.floor((v - from) * scale);
      if (bin >= 0 && bin < bins) {
        counts[bin]++;
      }
    }
    return counts;
  }
}
