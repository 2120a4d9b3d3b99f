package sharpkestrel.place.match;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/**
 * Places in a reference that can be found again: where edges run in more than one direction (the smaller eigenvalue of
 * the structure tensor; Förstner and Gülch 1987). Strong edges count no more than middling ones, lest bright roofs, which
 * lean, win over field corners, which do not.
 */
final class Spots {

  private static final int CELL = 8;

  private Spots() {}

  /** Asked of a place in pixels of the level. */
  interface Place {
    boolean test(int col, int row);
  }

  /**
   * The best spots of a window, the best first, none nearer to another than a patch.
   *
   * @param patch side of what will be matched, pixels of the level
   * @param most number of spots
   * @param seen whether a patch about a place lies in both rasters
   * @return column and row of each, pixels of the level
   */
  static List<int[]> in(
      Raster reference, int level, Window window, int patch, int most, Place seen) {
    float[] pixels = reference.read(level, window, Request.BACKGROUND)[0];
    int w = window.width();
    int h = window.height();
    int across = w / CELL;
    int down = h / CELL;
    int half = patch / 2 / CELL;
    if (across <= 2 * half || down <= 2 * half) {
      return List.of();
    }
    double[] xx = new double[across * down];
    double[] yy = new double[across * down];
    double[] xy = new double[across * down];
    tensor(pixels, w, across, down, xx, yy, xy);
    double[] best = new double[across * down];
    List<Integer> order = new ArrayList<>();
    for (int y = half; y < down - half; y++) {
      for (int x = half; x < across - half; x++) {
        double a = 0;
        double b = 0;
        double c = 0;
        for (int dy = -half; dy <= half; dy++) {
          for (int dx = -half; dx <= half; dx++) {
            int i = (y + dy) * across + x + dx;
            a += xx[i];
            b += yy[i];
            c += xy[i];
          }
        }
        int at = y * across + x;
        best[at] = (a + b) / 2 - Math.sqrt((a - b) * (a - b) / 4 + c * c);
        if (best[at] > 0) {
          order.add(at);
        }
      }
    }
    order.sort((p, q) -> Double.compare(best[q], best[p]));
    List<int[]> spots = new ArrayList<>();
    for (int at : order) {
      int col = window.x() + at % across * CELL + CELL / 2;
      int row = window.y() + at / across * CELL + CELL / 2;
      boolean free = spots.stream()
          .noneMatch(s -> Math.abs(s[0] - col) < patch && Math.abs(s[1] - row) < patch);
      if (free && seen.test(col, row)) {
        spots.add(new int[] {col, row});
        if (spots.size() == most) {
          break;
        }
      }
    }
    return spots;
  }

  /** Sums of the products of gradients over small cells; NaN where a cell has no data. */
  private static void tensor(
      float[] pixels, int w, int across, int down, double[] xx, double[] yy, double[] xy) {
    float[] lengths = new float[across * down * 4];
    int n = 0;
    for (int y = 1; y < down * CELL - 1; y += 4) {
      for (int x = 1; x < across * CELL - 1; x += 4) {
        int i = y * w + x;
        float g = Math.abs(pixels[i + 1] - pixels[i - 1]) + Math.abs(pixels[i + w] - pixels[i - w]);
        if (g >= 0 && n < lengths.length) {
          lengths[n++] = g;
        }
      }
    }
    Arrays.sort(lengths, 0, n);
    double enough = n == 0 ? 1 : Math.max(1e-6, 2 * lengths[n / 2]);
    for (int cy = 0; cy < down; cy++) {
      for (int cx = 0; cx < across; cx++) {
        int at = cy * across + cx;
        for (int y = Math.max(1, cy * CELL); y < Math.min(down * CELL - 1, (cy + 1) * CELL); y++) {
          for (int x = Math.max(1, cx * CELL);
              x < Math.min(across * CELL - 1, (cx + 1) * CELL);
              x++) {
            int i = y * w + x;
            double gx = pixels[i + 1] - pixels[i - 1];
            double gy = pixels[i + w] - pixels[i - w];
            double length = Math.hypot(gx, gy);
            double less = length > enough ? enough / length : 1;
            xx[at] += gx * gx * less * less;
            yy[at] += gy * gy * less * less;
            xy[at] += gx * gy * less * less;
          }
        }
      }
    }
  }
}
