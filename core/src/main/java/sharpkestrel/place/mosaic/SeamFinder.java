package sharpkestrel.place.mosaic;

import java.util.Arrays;
import java.util.List;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;

/**
 * Chooses for every place which scene shows it, so that seams run where scenes differ least and around what is to be kept
 * whole: the cheapest labelling of a grid of cells by expanding one scene after the other with minimum cuts (Boykov, Veksler
 * and Zabih 2001, Fast approximate energy minimization via graph cuts, IEEE Trans. PAMI 23(11), 1222-1239; for seams Kwatra
 * et al. 2003, ACM Trans. Graphics 22(3), 277-286). All overlaps at a reduced level first; then, level by level, a band
 * about the seams only.
 */
final class SeamFinder {

  private static final int BAND = 4;
  private static final int SWEEPS = 4;
  private static final int MOST_CELLS = 64_000_000;

  private final List<Member> members;
  private final CellReader reader;
  private final Job job;

  SeamFinder(List<Member> members, CellReader reader, Job job) {
    this.members = members;
    this.reader = reader;
    this.job = job;
  }

  /** The number of the scene that shows each cell of a level; 0 for none. */
  record Labels(int level, Grid grid, byte[] of) {}

  Labels find() {
    Grid full = members.getFirst().raster().grid();
    int level = Overview.levelOf(full);
    int last = lastLevel(full);
    Labels labels = null;
    for (int l = Math.max(level, last); l >= last; l--) {
      job.progress("finding seams", Math.max(level, last) - l, Math.max(level, last) - last + 1L);
      labels = refine(labels, l, full.atLevel(l));
    }
    return labels;
  }

  /** Cells of two pixels or a metre, as far as there are not too many. */
  private static int lastLevel(Grid full) {
    int level = 0;
    while (full.atLevel(level).pixelSize() < 0.99 && level < 1
        || full.atLevel(level).pixels() > MOST_CELLS) {
      level++;
    }
    return level;
  }

  private Labels refine(Labels before, int level, Grid grid) {
    int width = grid.width();
    byte[] labels = new byte[Math.toIntExact(grid.pixels())];
    boolean[] free = null;
    if (before != null) {
      upsample(before, labels, grid);
      free = band(labels, width, grid.height());
    }
    SeamCells cells = reader.read(level, grid, free);
    if (before == null) {
      cells.lone().forEach(run -> Arrays.fill(labels, run[0], run[1], (byte) run[2]));
    }
    for (int i = 0; i < cells.count(); i++) {
      labels[cells.place(i)] = (byte) cells.first(i);
    }
    boolean changed = true;
    for (int sweep = 0; changed && sweep < SWEEPS; sweep++) {
      changed = false;
      for (Member member : members) {
        job.cancellation().check();
        changed |= new Expansion(cells, labels, member.number()).run();
      }
      // of two scenes one cut finds the best
      changed &= members.size() > 2;
    }
    return new Labels(level, grid, labels);
  }

  private static void upsample(Labels before, byte[] labels, Grid grid) {
    for (int y = 0; y < grid.height(); y++) {
      int from = (y / 2) * before.grid.width();
      for (int x = 0; x < grid.width(); x++) {
        labels[y * grid.width() + x] = before.of[from + x / 2];
      }
    }
  }

  /** Cells near those beside which another scene is shown. */
  private static boolean[] band(byte[] labels, int width, int height) {
    boolean[] band = new boolean[labels.length];
    for (int i = 0; i < labels.length; i++) {
      int x = i % width;
      boolean seam = labels[i] != 0
          && (x + 1 < width && labels[i + 1] != 0 && labels[i + 1] != labels[i]
              || i + width < labels.length
                  && labels[i + width] != 0
                  && labels[i + width] != labels[i]);
      if (seam) {
        int y = i / width;
        for (int row = Math.max(0, y - BAND); row <= Math.min(height - 1, y + BAND); row++) {
          Arrays.fill(
              band,
              row * width + Math.max(0, x - BAND),
              row * width + Math.min(width, x + BAND + 1),
              true);
        }
      }
    }
    return band;
  }
}
