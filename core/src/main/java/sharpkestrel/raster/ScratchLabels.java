package sharpkestrel.raster;

import java.io.IOException;
import java.lang.foreign.Arena;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

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
    try {
      Path file = Files.createTempFile("kestrel-labels", ".bin");
      try (FileChannel channel =
          FileChannel.open(file, StandardOpenOption.READ, StandardOpenOption.WRITE)) {
        bytes = channel.map(FileChannel.MapMode.READ_WRITE, 0, 4 * grid.pixels(), Arena.ofAuto());
      } finally {
        Files.deleteIfExists(file);
      }
    } catch (IOException failed) {
      throw new RasterException(
          "No room for the labels of "
              + grid.width()
              + " x "
              + grid.height()
              + " pixels in "
              + System.getProperty("java.io.tmpdir")
              + ": "
              + failed.getMessage()
              + ". Free some space there.",
          failed);
    }
  }

  /** The whole numbers of a raster's first band; its no-data is 0. */
  public static ScratchLabels of(Raster numbers, Job job) {
    ScratchLabels labels = new ScratchLabels(numbers.grid());
    int width = numbers.grid().width();
    int most = 0;
    for (int top = 0; top < numbers.grid().height(); top += ROWS) {
      Window rows = new Window(0, top, width, ROWS).intersect(numbers.grid().window());
      float[] plane = numbers.read(0, rows, job.request())[0];
      int[] values = new int[rows.area()];
      for (int i = 0; i < values.length; i++) {
        values[i] = Float.isNaN(plane[i]) ? 0 : (int) plane[i];
        most = Math.max(most, values[i]);
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
