package sharpkestrel.segment.regions;

import java.util.concurrent.atomic.AtomicInteger;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.raster.Window;

/**
 * Superpixels of a whole scene, in blocks of {@value #BLOCK} pixels from its origin.
 *
 * <p>Seeds lie on one grid for the scene, and each block grows with a halo in which its neighbours' seeds grow too.
 * A region on a block line is thus grown alike from both sides and stays one region: blocks leave no lines. What the
 * two sides decide differently falls apart into connected pieces, which become superpixels of their own; these are
 * small and the tree merges them first.
 */
public final class Superpixels {

  static final int BLOCK = 256;
  private static final int HALO_IN_SPACINGS = 4;

  private Superpixels() {}

  /**
   * @param labels (output) 1 to the returned count in order of each superpixel's first pixel; 0 for no-data
   * @return how many there are
   */
  public static int make(
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
      float[] features = space.readSpectral(window, job.request());
      int[] grown = new int[window.area()];
      new SuperpixelBlock(window, spacing, space.spectralDimensions(), features, compactness)
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
    return Pieces.ofEqual(labels, job);
  }
}
