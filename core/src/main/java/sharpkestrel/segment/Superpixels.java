package sharpkestrel.segment;

import java.util.concurrent.atomic.AtomicInteger;
import sharpkestrel.raster.DisjointSets;
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

  /** Numbers the 4-connected pieces of equal label in scan order, in two passes over the rows with sets of pieces that meet. */
  private static int number(ScratchLabels labels, Job job) {
    int width = labels.grid().width();
    int height = labels.grid().height();
    // piece 0 is no piece
    DisjointSets pieces = new DisjointSets(1);
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
        boolean left = x > 0 && row[x - 1] == label;
        boolean up = y > 0 && aboveLabel[x] == label;
        if (left && up) {
          piece[x] = pieces.unite(piece[x - 1], above[x]);
        } else {
          piece[x] = left ? piece[x - 1] : up ? above[x] : pieces.add();
        }
      }
      labels.write(line, piece);
      int[] swap = above;
      above = piece;
      piece = swap;
      swap = aboveLabel;
      aboveLabel = row;
      row = swap;
    }
    int[] number = new int[pieces.size()];
    int count = 0;
    // The first piece of a set is its lowest, so sets are met in the order of their first pixels.
    for (int i = 1; i < number.length; i++) {
      int root = pieces.root(i);
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
}
