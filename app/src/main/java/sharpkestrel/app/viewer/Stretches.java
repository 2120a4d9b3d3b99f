package sharpkestrel.app.viewer;

import java.util.Arrays;
import sharpkestrel.app.model.Look;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/** Finds the ends of a stretch from the scene or from what is in view. */
final class Stretches {

  private Stretches() {}

  /**
   * @param window of full-size pixels; the whole grid for the scene
   */
  static Stretch of(Raster raster, int[] bands, Look look, Window window) {
    int level = 0;
    while ((long) (window.width() >> level) * (window.height() >> level) > 250_000
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
    float[] low = new float[3];
    float[] high = {1, 1, 1};
    if (!part.isEmpty()) {
      float[][] planes = new float[raster.bands().size()][];
      for (int band : bands) {
        planes[band] = planes[band] == null ? new float[part.area()] : planes[band];
      }
      raster.read(level, part, planes, Request.BACKGROUND);
      for (int c = 0; c < 3; c++) {
        float[] sorted = planes[bands[c]].clone();
        Arrays.sort(sorted);
        int n = sorted.length;
        while (n > 0 && Float.isNaN(sorted[n - 1])) {
          n--;
        }
        if (n > 0) {
          low[c] = sorted[(int) (look.low() / 100 * (n - 1))];
          high[c] = sorted[(int) (look.high() / 100 * (n - 1))];
        }
      }
    }
    return new Stretch(low, high);
  }
}
