package sharpkestrel.sharpen.texture;

/** Entropy of the grey levels in the window about each pixel. */
final class LevelCounts {

  private LevelCounts() {}

  /**
   * @param out (output) entropy with natural logarithms, for each pixel of the tile; NaN where a window holds nothing
   */
  static void entropy(LevelTile tile, int levels, float[] out) {
    int side = 2 * tile.radius() + 1;
    int columns = tile.rows()[0].length;
    WindowCounts counts =
        new WindowCounts(new int[] {levels}, new int[] {1}, columns, side, side * side);
    double[][] entropies = new double[1][tile.width()];
    for (int y = 0; y < side - 1; y++) {
      count(tile.rows()[y], 1, counts);
    }
    for (int y = 0; y < tile.height(); y++) {
      count(tile.rows()[y + side - 1], 1, counts);
      counts.entropies(entropies);
      for (int x = 0; x < tile.width(); x++) {
        out[y * tile.width() + x] = (float) entropies[0][x];
      }
      count(tile.rows()[y], -1, counts);
    }
  }

  private static void count(int[] row, int step, WindowCounts counts) {
    for (int x = 0; x < row.length; x++) {
      if (row[x] != Levels.NONE) {
        counts.total(x, step);
        counts.count(0, x, row[x], step);
      }
    }
  }
}
