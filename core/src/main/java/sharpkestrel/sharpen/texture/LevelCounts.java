package sharpkestrel.sharpen.texture;

import java.util.EnumSet;

/** Entropy of the grey levels in the window about each pixel. */
final class LevelCounts {

  private LevelCounts() {}

  /**
   * @param out (output) entropy with natural logarithms, for each pixel of the tile; NaN where a window holds nothing
   */
  static void entropy(LevelTile tile, int levels, float[] out) {
    int side = 2 * tile.radius() + 1;
    int columns = tile.rows()[0].length;
    NumberCounts counts = new NumberCounts(levels, columns, side, new LogTable(side * side));
    PairSums sums = new PairSums(tile, Displacement.NONE, EnumSet.of(PairSums.Term.ONE));
    double[] entropies = new double[tile.width()];
    for (int y = 0; y < tile.rows().length; y++) {
      counts.enter(tile.rows()[y]);
      int top = y - side + 1;
      if (top >= 0) {
        sums.next();
        counts.entropies(sums.of(PairSums.Term.ONE), 1, entropies);
        for (int x = 0; x < tile.width(); x++) {
          out[top * tile.width() + x] = (float) entropies[x];
        }
        counts.leave(tile.rows()[top]);
      }
    }
  }
}
