package sharpkestrel.place.mosaic;

import java.util.List;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Window;

/**
 * All scenes of a block at a level at which they fit the memory: what balance and seams are first worked out on.
 *
 * @param windows where each member lies, in pixels of the level
 * @param planes by member and band, of its window
 */
record Overview(int level, Grid grid, List<Window> windows, List<float[][]> planes) {

  private static final int MOST_PIXELS = 1_500_000;
  private static final int STRIP = 128;

  /** The most reduced level that is needed. */
  static int levelOf(Grid grid) {
    int level = 0;
    while (grid.atLevel(level).pixels() > MOST_PIXELS) {
      level++;
    }
    return level;
  }

  static Overview of(List<Member> members, Grid grid, Job job) {
    int level = levelOf(grid);
    List<Window> windows = members.stream().map(m -> m.where(level)).toList();
    List<float[][]> planes = members.stream()
        .map(m -> new float[m.raster().bands().size()][m.where(level).area()])
        .toList();
    for (int m = 0; m < members.size(); m++) {
      Member member = members.get(m);
      Window window = windows.get(m);
      float[][] into = planes.get(m);
      int strips = Math.ceilDiv(window.height(), STRIP);
      int number = m;
      Parallel.run(strips, job, s -> {
        Window strip =
            new Window(window.x(), window.y() + s * STRIP, window.width(), STRIP).intersect(window);
        float[][] part = Planes.like(into, strip.area());
        member.read(level, strip, part, job.request());
        for (int b = 0; b < into.length; b++) {
          Planes.copy(part[b], strip, into[b], window);
        }
        job.progress(
            "looking at the scenes", number * 100L + 100L * s / strips, members.size() * 100L);
      });
    }
    return new Overview(level, grid.atLevel(level), windows, planes);
  }

  int members() {
    return windows.size();
  }

  int bands() {
    return planes.getFirst().length;
  }

  /** Where two members may both have pixels. */
  Window common(int one, int two) {
    return windows.get(one).intersect(windows.get(two));
  }

  /** Place of a pixel in a member's planes. */
  int at(int member, int x, int y) {
    Window w = windows.get(member);
    return (y - w.y()) * w.width() + x - w.x();
  }

  /** Whether a member has all bands at a place in its planes. */
  boolean isValid(int member, int at) {
    for (float[] plane : planes.get(member)) {
      if (Float.isNaN(plane[at])) {
        return false;
      }
    }
    return true;
  }

  /**
   * Medians of two members in square blocks of their overlap, from its first pixel on.
   *
   * @param x of the blocks' middles, from -1 to 1 over the grid, as {@code y}
   * @param ofOne by band and block; NaN where fewer than half of its pixels are known in both, as {@code ofTwo}
   */
  record Blocks(int across, int down, double[] x, double[] y, float[][] ofOne, float[][] ofTwo) {

    int count() {
      return across * down;
    }

    boolean isKnown(int block) {
      return !Float.isNaN(ofOne[0][block]);
    }
  }

  /**
   * @param side of a block, pixels
   */
  Blocks blocks(int one, int two, int side) {
    Window common = common(one, two);
    int across = common.width() / side;
    int down = common.height() / side;
    Blocks blocks = new Blocks(
        across,
        down,
        new double[across * down],
        new double[across * down],
        new float[bands()][across * down],
        new float[bands()][across * down]);
    int[] atOne = new int[side * side];
    int[] atTwo = new int[side * side];
    float[] values = new float[side * side];
    for (int k = 0; k < blocks.count(); k++) {
      Window block =
          new Window(common.x() + k % across * side, common.y() + k / across * side, side, side);
      blocks.x[k] = 2 * (block.x() + side / 2.0) / grid.width() - 1;
      blocks.y[k] = 2 * (block.y() + side / 2.0) / grid.height() - 1;
      int count = known(one, two, block, atOne, atTwo);
      for (int b = 0; b < bands(); b++) {
        boolean enough = 2 * count >= side * side;
        blocks.ofOne[b][k] = enough ? median(one, b, atOne, count, values) : Float.NaN;
        blocks.ofTwo[b][k] = enough ? median(two, b, atTwo, count, values) : Float.NaN;
      }
    }
    return blocks;
  }

  private float median(int member, int band, int[] at, int count, float[] values) {
    float[] plane = planes.get(member)[band];
    for (int i = 0; i < count; i++) {
      values[i] = plane[at[i]];
    }
    return (float) Tones.median(values, count);
  }

  /** Places of the pixels of a window that two members have. */
  private int known(int one, int two, Window window, int[] atOne, int[] atTwo) {
    int count = 0;
    for (int y = window.y(); y < window.bottom(); y++) {
      for (int x = window.x(); x < window.right(); x++) {
        int first = at(one, x, y);
        int second = at(two, x, y);
        if (isValid(one, first) && isValid(two, second)) {
          atOne[count] = first;
          atTwo[count++] = second;
        }
      }
    }
    return count;
  }
}
