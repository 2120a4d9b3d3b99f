package sharpkestrel.extract.classmap;

import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.raster.Window;

/** Gives each pixel the class that most pixels of the window about it have; its own where that is one of the commonest. */
public final class Majority {

  private static final int STRIP = 128;

  private Majority() {}

  /**
   * @param most the largest class
   * @param radius of the window; pixels without a class stay so and do not count
   */
  public static ScratchLabels of(LabelRaster classes, int most, int radius, Job job) {
    Grid grid = classes.grid();
    ScratchLabels out = new ScratchLabels(grid);
    int strips = Math.ceilDiv(grid.height(), STRIP);
    Parallel.run(strips, job, strip -> {
      Window rows = new Window(0, strip * STRIP, grid.width(), STRIP).intersect(grid.window());
      Window wide = rows.grown(radius);
      int[] from = new int[wide.area()];
      classes.read(wide, from);
      int[] to = new int[rows.area()];
      int[] counts = new int[most + 1];
      for (int y = 0; y < rows.height(); y++) {
        java.util.Arrays.fill(counts, 0);
        for (int x = -2 * radius; x < rows.width(); x++) {
          // the window moves along the row: a column comes in, one goes out
          for (int k = y; k <= y + 2 * radius; k++) {
            counts[from[k * wide.width() + x + 2 * radius]]++;
            if (x > 0) {
              counts[from[k * wide.width() + x - 1]]--;
            }
          }
          if (x >= 0) {
            int own = from[(y + radius) * wide.width() + x + radius];
            to[y * rows.width() + x] = own == 0 ? 0 : commonest(counts, own);
          }
        }
      }
      out.write(rows, to);
    });
    out.setMaxLabel(most);
    return out;
  }

  private static int commonest(int[] counts, int own) {
    int best = own;
    for (int k = 1; k < counts.length; k++) {
      best = counts[k] > counts[best] ? k : best;
    }
    return best;
  }
}
