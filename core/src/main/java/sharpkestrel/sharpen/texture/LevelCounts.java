package sharpkestrel.sharpen.texture;

import java.util.Arrays;

/** Entropy of the grey levels in a window that slides along a row, kept up as columns leave and enter. */
final class LevelCounts {

  private static final double UNIT = 0x1p32;

  private LevelCounts() {}

  /**
   * @param out (output) entropy with natural logarithms, for each pixel of the tile; NaN where a window holds nothing
   */
  static void entropy(LevelTile tile, int levels, float[] out) {
    int side = 2 * tile.radius() + 1;
    long[] steps = new long[side * side + 1];
    for (int n = 0; n < steps.length; n++) {
      double now = n > 0 ? n * Math.log(n) : 0;
      steps[n] = Math.round(UNIT * ((n + 1) * Math.log(n + 1) - now));
    }
    int[] counts = new int[levels];
    for (int y = 0; y < tile.height(); y++) {
      Arrays.fill(counts, 0);
      int total = 0;
      long logs = 0;
      for (int x = 0; x < tile.rows()[0].length; x++) {
        for (int k = y; k < y + side; k++) {
          int level = tile.rows()[k][x];
          if (level != Levels.NONE) {
            logs += steps[counts[level]++];
            total++;
          }
        }
        int at = x - side + 1;
        if (at < 0) {
          continue;
        }
        out[y * tile.width() + at] =
            total == 0 ? Float.NaN : (float) Math.max(0, Math.log(total) - logs / UNIT / total);
        for (int k = y; k < y + side; k++) {
          int level = tile.rows()[k][at];
          if (level != Levels.NONE) {
            logs -= steps[--counts[level]];
            total--;
          }
        }
      }
    }
  }
}
