package sharpkestrel.raster;

import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;

/**
 * Labels on disk, mapped, row by row; read and written in bulk only. The file has no name once it is mapped, so it
 * goes when nothing refers to it.
 */
public final class ScratchLabels implements LabelRaster {

  /** Rows of a file's tile, so that each tile is unpacked once. */
  private static final int ROWS = 512;

  private static final ValueLayout.OfInt INT = ValueLayout.JAVA_INT_UNALIGNED;

  private final Grid grid;
  private final MemorySegment bytes;
  private volatile int maxLabel;

  public ScratchLabels(Grid grid) {
    this.grid = grid;
    bytes = Scratch.map(
        "labels",
        4 * grid.pixels(),
        "the labels of " + grid.width() + " x " + grid.height() + " pixels");
  }

  /**
   * A copy of numbers that lie elsewhere, with the largest of them.
   *
   * @throws RasterException for numbers above 2^31
   */
  public static ScratchLabels of(LabelRaster numbers, Job job) {
    ScratchLabels labels = new ScratchLabels(numbers.grid());
    int width = numbers.grid().width();
    int most = 0;
    for (int top = 0; top < numbers.grid().height(); top += ROWS) {
      job.cancellation().check();
      Window rows = new Window(0, top, width, ROWS).intersect(numbers.grid().window());
      int[] values = new int[rows.area()];
      numbers.read(rows, values);
      for (int value : values) {
        if (value < 0) {
          throw new RasterException("An object has the number " + Integer.toUnsignedString(value)
              + "; at most " + Integer.MAX_VALUE + " are told apart.");
        }
        most = Math.max(most, value);
      }
      labels.write(rows, values);
    }
    labels.setMaxLabel(most);
    return labels;
  }

  @Override
  public Grid grid() {
    return grid;
  }

  @Override
  public void read(Window window, int[] target) {
    Window inside = window.intersect(grid.window());
    if (!inside.equals(window)) {
      java.util.Arrays.fill(target, 0);
    }
    for (int y = inside.y(); y < inside.bottom(); y++) {
      MemorySegment.copy(
          bytes,
          INT,
          4 * ((long) y * grid.width() + inside.x()),
          target,
          (y - window.y()) * window.width() + inside.x() - window.x(),
          inside.width());
    }
  }

  /** Stores the part of a window that lies in the grid. */
  public void write(Window window, int[] source) {
    Window inside = window.intersect(grid.window());
    for (int y = inside.y(); y < inside.bottom(); y++) {
      MemorySegment.copy(
          source,
          (y - window.y()) * window.width() + inside.x() - window.x(),
          bytes,
          INT,
          4 * ((long) y * grid.width() + inside.x()),
          inside.width());
    }
  }

  public void setMaxLabel(int max) {
    maxLabel = max;
  }

  @Override
  public int maxLabel() {
    return maxLabel;
  }
}
