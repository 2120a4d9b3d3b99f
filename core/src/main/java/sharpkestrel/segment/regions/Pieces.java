package sharpkestrel.segment.regions;

import sharpkestrel.raster.DisjointSets;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.raster.Window;

/** Numbers what hangs together side by side, in two passes over the rows with sets of pieces that meet. */
public final class Pieces {

  /** Bit of a pixel that belongs to some piece. */
  static final byte VALID = 1;

  /** Bit of a pixel that hangs together with the one on its left. */
  static final byte LEFT = 2;

  /** Bit of a pixel that hangs together with the one above. */
  static final byte UP = 4;

  /** What hangs together, row by row from the top. */
  interface Rows {
    /**
     * @param flags (output) {@link #VALID}, {@link #LEFT} and {@link #UP} of each pixel of row {@code y}
     */
    void read(int y, byte[] flags);
  }

  private Pieces() {}

  /**
   * Numbers the pieces of equal label.
   *
   * @param labels (modified) 1 to the returned count in order of each piece's first pixel; 0 stays 0
   */
  public static int ofEqual(ScratchLabels labels, Job job) {
    int width = labels.grid().width();
    int[][] rows = new int[2][width];
    return of(labels, job, (y, flags) -> {
      int[] row = rows[y & 1];
      int[] above = rows[1 - (y & 1)];
      labels.read(new Window(0, y, width, 1), row);
      for (int x = 0; x < width; x++) {
        int label = row[x];
        flags[x] = (byte)
            (label == 0
                ? 0
                : VALID
                    | (x > 0 && row[x - 1] == label ? LEFT : 0)
                    | (y > 0 && above[x] == label ? UP : 0));
      }
    });
  }

  /**
   * @param labels (output) 1 to the returned count in order of each piece's first pixel; 0 where not valid
   */
  static int of(ScratchLabels labels, Job job, Rows rows) {
    int width = labels.grid().width();
    int height = labels.grid().height();
    // piece 0 is no piece
    DisjointSets pieces = new DisjointSets(1);
    int[] above = new int[width];
    int[] piece = new int[width];
    byte[] flags = new byte[width];
    for (int y = 0; y < height; y++) {
      job.cancellation().check();
      rows.read(y, flags);
      for (int x = 0; x < width; x++) {
        boolean left = (flags[x] & LEFT) != 0;
        boolean up = (flags[x] & UP) != 0;
        if ((flags[x] & VALID) == 0) {
          piece[x] = 0;
        } else if (left && up) {
          piece[x] = pieces.unite(piece[x - 1], above[x]);
        } else {
          piece[x] = left ? piece[x - 1] : up ? above[x] : pieces.add();
        }
      }
      labels.write(new Window(0, y, width, 1), piece);
      int[] swap = above;
      above = piece;
      piece = swap;
    }
    return renumber(labels, pieces, job);
  }

  /**
   * Gives each set of numbers one number, 1 to the returned count in order of the sets' lowest.
   *
   * @param labels (modified) numbers in the sets, 0 for none
   */
  static int renumber(ScratchLabels labels, DisjointSets sets, Job job) {
    int[] number = new int[sets.size()];
    int count = 0;
    // The first of a set is its lowest, so sets are met in the order of their first pixels.
    for (int i = 1; i < number.length; i++) {
      int root = sets.root(i);
      number[i] = root == i ? ++count : number[root];
    }
    int width = labels.grid().width();
    int[] row = new int[width];
    for (int y = 0; y < labels.grid().height(); y++) {
      job.cancellation().check();
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
