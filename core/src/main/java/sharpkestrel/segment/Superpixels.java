package sharpkestrel.segment;

import java.util.Arrays;
import java.util.concurrent.atomic.AtomicInteger;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Window;

/**
 * Superpixels of a whole scene, in blocks of {@value #BLOCK} pixels from its origin.
 *
 * <p>Seeds lie on one grid for the scene, and each block grows with a halo in which its neighbours' seeds grow too.
 * A region on a block line is thus grown alike from both sides and stays one region: blocks leave no lines. What the
 * two sides decide differently falls apart into connected pieces, which become superpixels of their own; these are
 * small and the tree merges them first.
 */
final class Superpixels {

  static final int BLOCK = 1024;
  private static final int HALO_IN_SPACINGS = 4;

  private Superpixels() {}

  /**
   * @param labels (output) 1 to the returned count in order of each superpixel's first pixel; 0 for no-data
   * @return how many there are
   */
  static int make(
      FeatureSpace space, int spacing, double compactness, ScratchLabels labels, Job job) {
    Grid grid = labels.grid();
    int across = Math.ceilDiv(grid.width(), BLOCK);
    int down = Math.ceilDiv(grid.height(), BLOCK);
    int seedsAcross = Math.ceilDiv(grid.width(), spacing);
    int seedsDown = Math.ceilDiv(grid.height(), spacing);
    if ((long) seedsAcross * seedsDown > Integer.MAX_VALUE - 16) {
      throw new RasterException(
          "The scene needs more superpixels than can be numbered; make them larger.");
    }
    AtomicInteger done = new AtomicInteger();
    Parallel.run(across * down, job, i -> {
      Window core =
          new Window(i % across * BLOCK, i / across * BLOCK, BLOCK, BLOCK).intersect(grid.window());
      Window window = core.grown(HALO_IN_SPACINGS * spacing);
      float[] features = space.read(window, job.request());
      int[] grown = new int[window.area()];
      new SuperpixelBlock(window, spacing, space.dimensions(), features, compactness)
          .run(seedsAcross, seedsDown, grown);
      int[] own = new int[core.area()];
      for (int y = 0; y < core.height(); y++) {
        System.arraycopy(
            grown,
            (y + core.y() - window.y()) * window.width() + core.x() - window.x(),
            own,
            y * core.width(),
            core.width());
      }
      labels.write(core, own);
      job.progress("Growing superpixels", done.incrementAndGet(), (long) across * down);
    });
    return number(labels, job);
  }

  /** Numbers the 4-connected pieces of equal label in scan order, in two passes over the rows with union-find. */
  private static int number(ScratchLabels labels, Job job) {
    int width = labels.grid().width();
    int height = labels.grid().height();
    int[] parent = new int[1 << 16];
    int pieces = 1;
    int[] above = new int[width];
    int[] aboveLabel = new int[width];
    int[] row = new int[width];
    int[] piece = new int[width];
    for (int y = 0; y < height; y++) {
      job.cancellation().check();
      Window line = new Window(0, y, width, 1);
      labels.read(line, row);
      for (int x = 0; x < width; x++) {
        int label = row[x];
        if (label == 0) {
          piece[x] = 0;
          continue;
        }
        int mine = 0;
        if (x > 0 && row[x - 1] == label) {
          mine = find(parent, piece[x - 1]);
        }
        if (y > 0 && aboveLabel[x] == label) {
          int up = find(parent, above[x]);
          if (mine == 0) {
            mine = up;
          } else if (mine != up) {
            int low = Math.min(mine, up);
            parent[Math.max(mine, up)] = low;
            mine = low;
          }
        }
        if (mine == 0) {
          if (pieces == parent.length) {
            parent = Arrays.copyOf(parent, 2 * pieces);
          }
          parent[pieces] = pieces;
          mine = pieces++;
        }
        piece[x] = mine;
      }
      labels.write(line, piece);
      int[] swap = above;
      above = piece;
      piece = swap;
      swap = aboveLabel;
      aboveLabel = row;
      row = swap;
    }
    int[] number = new int[pieces];
    int count = 0;
    // The first piece of a set is its lowest, so sets are met in the order of their first pixels.
    for (int i = 1; i < pieces; i++) {
      int root = find(parent, i);
      number[i] = root == i ? ++count : number[root];
    }
    for (int y = 0; y < height; y++) {
      Window line = new Window(0, y, width, 1);
      labels.read(line, row);
      for (int x = 0; x < width; x++) {
        row[x] = number[row[x]];
      }
      labels.write(line, row);
    }
    labels.setMaxLabel(count);
    return count;
  }

  private static int find(int[] parent, int i) {
    int root = i;
    while (parent[root] != root) {
      parent[root] = parent[parent[root]];
      root = parent[root];
    }
    return root;
  }
}
