package sharpkestrel.segment.regions;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Window;

/**
 * Full-size values of a raster, from which medians are told at a fraction of the time that all of them take: every other
 * pixel of every other row of blocks that lie evenly over it. Reduced levels of a lazy and of a written raster differ; these
 * do not. Of bands of which the blocks meet no values, all of the scene is looked through.
 */
final class ValueSample {

  private static final int BLOCK = 256;
  private static final int BLOCKS = 8;

  /** Band by band, ascending. */
  private final float[][] values;

  private ValueSample(float[][] values) {
    this.values = values;
  }

  static ValueSample of(Raster raster, Job job) {
    float[][] values = new float[raster.bands().size()][];
    take(raster, blocks(raster.grid()), values, job);
    for (int b = 0; b < values.length; b++) {
      values[b] = values[b].length == 0 ? null : values[b];
    }
    if (Arrays.asList(values).contains(null)) {
      take(raster, tiles(raster.grid(), job.tileSize()), values, job);
    }
    return new ValueSample(values);
  }

  /** Blocks over a scene, as many as there is room for, at most {@value #BLOCKS} each way. */
  static List<Window> blocks(Grid grid) {
    int across = Math.min(BLOCKS, Math.ceilDiv(grid.width(), BLOCK));
    int down = Math.min(BLOCKS, Math.ceilDiv(grid.height(), BLOCK));
    List<Window> blocks = new ArrayList<>();
    for (int i = 0; i < across * down; i++) {
      blocks.add(new Window(
              (int) ((long) grid.width() * (i % across) / across),
              (int) ((long) grid.height() * (i / across) / down),
              BLOCK,
              BLOCK)
          .intersect(grid.window()));
    }
    return blocks;
  }

  private static List<Window> tiles(Grid grid, int size) {
    List<Window> tiles = new ArrayList<>();
    for (int y = 0; y < grid.height(); y += size) {
      for (int x = 0; x < grid.width(); x += size) {
        tiles.add(new Window(x, y, size, size).intersect(grid.window()));
      }
    }
    return tiles;
  }

  /**
   * @param values (modified) by band; those that are null are taken
   */
  private static void take(Raster raster, List<Window> windows, float[][] values, Job job) {
    float[][][] found = new float[windows.size()][][];
    Parallel.run(windows.size(), job, w -> found[w] = thinned(raster, windows.get(w), values, job));
    for (int b = 0; b < values.length; b++) {
      if (values[b] != null) {
        continue;
      }
      int total = 0;
      for (float[][] window : found) {
        total += window[b].length;
      }
      values[b] = new float[total];
      int at = 0;
      for (float[][] window : found) {
        System.arraycopy(window[b], 0, values[b], at, window[b].length);
        at += window[b].length;
      }
      Arrays.sort(values[b]);
    }
  }

  /** Every other value of every other row of the bands that are still null. */
  private static float[][] thinned(Raster raster, Window window, float[][] values, Job job) {
    float[][] planes = new float[values.length][];
    for (int b = 0; b < planes.length; b++) {
      planes[b] = values[b] == null ? new float[window.area()] : null;
    }
    raster.read(0, window, planes, job.request());
    for (int b = 0; b < planes.length; b++) {
      planes[b] = planes[b] == null ? null : thinned(planes[b], window);
    }
    return planes;
  }

  private static float[] thinned(float[] plane, Window window) {
    float[] kept = new float[Math.ceilDiv(window.width(), 2) * Math.ceilDiv(window.height(), 2)];
    int n = 0;
    for (int y = 0; y < window.height(); y += 2) {
      for (int x = 0; x < window.width(); x += 2) {
        float v = plane[y * window.width() + x];
        if (!Float.isNaN(v)) {
          kept[n++] = v;
        }
      }
    }
    return Arrays.copyOf(kept, n);
  }

  boolean hasValues(int band) {
    return values[band].length > 0;
  }

  /** The value below which a share of the band's values lies. */
  double quantile(int band, double share) {
    return values[band][(int) (share * (values[band].length - 1))];
  }
}
