package sharpkestrel.place.mosaic;

import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterView;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/**
 * A raster without the black around it: where no number is set aside for no-data, pixels that are 0 in all bands and hang
 * together with its border are taken for none. Zeros inside of the scene stay.
 */
public final class Collar extends RasterView {

  /** Pixels of the level on which the collar is followed. */
  private static final int MOST_CELLS = 1_000_000;

  private static final int STRIP = 128;

  private final Raster source;
  private final boolean[] collar;
  private final int level;
  private final Grid cells;

  private Collar(Raster source, boolean[] collar, int level, Grid cells) {
    this.source = source;
    this.collar = collar;
    this.level = level;
    this.cells = cells;
  }

  /** The raster itself where it has no collar. */
  public static Raster without(Raster raster, Job job) {
    boolean setAside = raster.bands().stream()
        .anyMatch(b -> !Double.isNaN(b.noData()) || !b.type().isWhole());
    if (setAside || !hasBlackCorner(raster, job)) {
      return raster;
    }
    int level = 0;
    while (raster.grid().atLevel(level).pixels() > MOST_CELLS) {
      level++;
    }
    Grid cells = raster.grid().atLevel(level);
    boolean[] black = black(raster, level, cells, job);
    boolean[] reached = fromBorder(black, cells.width(), cells.height());
    return new Collar(raster, grown(reached, cells.width(), cells.height()), level, cells);
  }

  private static boolean hasBlackCorner(Raster raster, Job job) {
    for (int corner = 0; corner < 4; corner++) {
      int x = (corner & 1) * (raster.grid().width() - 1);
      int y = (corner >> 1) * (raster.grid().height() - 1);
      float[][] pixel = raster.read(0, new Window(x, y, 1, 1), job.request());
      if (isBlack(pixel, 0)) {
        return true;
      }
    }
    return false;
  }

  private static boolean isBlack(float[][] planes, int i) {
    for (float[] plane : planes) {
      if (plane[i] != 0) {
        return false;
      }
    }
    return true;
  }

  private static boolean[] black(Raster raster, int level, Grid cells, Job job) {
    boolean[] black = new boolean[(int) cells.pixels()];
    Parallel.run(Math.ceilDiv(cells.height(), STRIP), job, s -> {
      Window strip = new Window(0, s * STRIP, cells.width(), STRIP).intersect(cells.window());
      float[][] planes = raster.read(level, strip, job.request());
      for (int i = 0; i < strip.area(); i++) {
        black[strip.y() * cells.width() + i] = isBlack(planes, i);
      }
    });
    return black;
  }

  private static boolean[] fromBorder(boolean[] black, int width, int height) {
    boolean[] reached = new boolean[black.length];
    int[] stack = new int[black.length];
    int count = 0;
    for (int i = 0; i < black.length; i++) {
      int x = i % width;
      int y = i / width;
      if (black[i] && (x == 0 || y == 0 || x == width - 1 || y == height - 1)) {
        reached[i] = true;
        stack[count++] = i;
      }
    }
    while (count > 0) {
      int i = stack[--count];
      int x = i % width;
      int[] beside = {
        x > 0 ? i - 1 : i, x + 1 < width ? i + 1 : i, i - width, i + width,
      };
      for (int j : beside) {
        if (j >= 0 && j < black.length && black[j] && !reached[j]) {
          reached[j] = true;
          stack[count++] = j;
        }
      }
    }
    return reached;
  }

  /** With the cells about it, in which the scene's edge runs. */
  private static boolean[] grown(boolean[] reached, int width, int height) {
    boolean[] grown = new boolean[reached.length];
    for (int i = 0; i < reached.length; i++) {
      if (reached[i]) {
        for (int y = Math.max(0, i / width - 1); y <= Math.min(height - 1, i / width + 1); y++) {
          for (int x = Math.max(0, i % width - 1); x <= Math.min(width - 1, i % width + 1); x++) {
            grown[y * width + x] = true;
          }
        }
      }
    }
    return grown;
  }

  @Override
  protected Raster source() {
    return source;
  }

  @Override
  public void read(int at, Window window, float[][] target, Request request) {
    float[][] all = new float[target.length][];
    for (int b = 0; b < target.length; b++) {
      all[b] = target[b] != null ? target[b] : new float[window.area()];
    }
    source.read(at, window, all, request);
    double toCell = Math.pow(2, at - level);
    for (int i = 0; i < window.area(); i++) {
      if (isBlack(all, i)) {
        int x = (int) ((window.x() + i % window.width() + 0.5) * toCell);
        int y = (int) ((window.y() + i / window.width() + 0.5) * toCell);
        boolean inside = x >= 0 && y >= 0 && x < cells.width() && y < cells.height();
        if (inside && collar[y * cells.width() + x]) {
          for (float[] plane : all) {
            plane[i] = Float.NaN;
          }
        }
      }
    }
  }
}
