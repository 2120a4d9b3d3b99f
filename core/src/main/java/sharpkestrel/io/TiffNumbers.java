package sharpkestrel.io;

import java.util.Arrays;
import java.util.Optional;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/** A single band of whole numbers, which never pass through float; no-data and what is hidden is 0. */
final class TiffNumbers implements LabelRaster {

  private static final int STRIP = 4 << 20;

  private final Grid grid;
  private final TiffImage image;
  private final double noData;
  private final Optional<Raster> valid;

  TiffNumbers(Grid grid, TiffImage image, double noData, Optional<Raster> valid) {
    this.grid = grid;
    this.image = image;
    this.noData = noData;
    this.valid = valid;
  }

  @Override
  public Grid grid() {
    return grid;
  }

  @Override
  public void read(Window window, int[] target) {
    Arrays.fill(target, 0);
    Window inside = window.intersect(grid.window());
    if (inside.isEmpty()) {
      return;
    }
    for (int by = inside.y() / image.blockHeight; by * image.blockHeight < inside.bottom(); by++) {
      for (int bx = inside.x() / image.blockWidth; bx * image.blockWidth < inside.right(); bx++) {
        Window block = image.blockWindow(bx, by);
        int[] values = image.decodeInts(bx, by, noData);
        Window common = block.intersect(inside);
        for (int y = common.y(); y < common.bottom(); y++) {
          System.arraycopy(
              values,
              (y - block.y()) * block.width() + common.x() - block.x(),
              target,
              (y - window.y()) * window.width() + common.x() - window.x(),
              common.width());
        }
      }
    }
    valid.ifPresent(mask -> hide(mask, inside, window, target));
  }

  private static void hide(Raster mask, Window inside, Window window, int[] target) {
    float[] flags = mask.read(0, inside, Request.BACKGROUND)[0];
    for (int i = 0; i < flags.length; i++) {
      if (Float.isNaN(flags[i])) {
        int y = inside.y() + i / inside.width() - window.y();
        int x = inside.x() + i % inside.width() - window.x();
        target[y * window.width() + x] = 0;
      }
    }
  }

  /** As unsigned numbers may be larger than an int, the largest is that of those which are read as positive. */
  @Override
  public int maxLabel() {
    int max = 0;
    int rows = Math.max(1, Math.min(grid.height(), STRIP / grid.width()));
    for (int y = 0; y < grid.height(); y += rows) {
      Window strip = new Window(0, y, grid.width(), rows).intersect(grid.window());
      int[] values = new int[strip.area()];
      read(strip, values);
      for (int value : values) {
        max = Math.max(max, value);
      }
    }
    return max;
  }
}
