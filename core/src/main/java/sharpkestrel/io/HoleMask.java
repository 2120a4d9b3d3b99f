package sharpkestrel.io;

import java.util.Arrays;
import sharpkestrel.raster.Grid;

/**
 * Which pixels of a level have no data, tile by tile as they pass: for samples without a number set aside for that. Written
 * as a mask of one bit a pixel where all bands have the same holes, of one bit a sample where not; not at all where there are
 * none.
 */
final class HoleMask {

  private final Grid grid;
  private final int side;
  private final int bands;
  private final byte[][] common;
  private final byte[][] each;
  private volatile boolean any;
  private volatile boolean differ;

  HoleMask(Grid grid, int side, int bands, int tiles) {
    this.grid = grid;
    this.side = side;
    this.bands = bands;
    common = new byte[tiles][];
    each = new byte[tiles][];
  }

  /**
   * @param planes (input) of a tile, NaN where there is no data
   */
  void add(int tile, int tileX, int tileY, float[][] planes) {
    int width = Math.min(side, grid.width() - tileX * side);
    int height = Math.min(side, grid.height() - tileY * side);
    byte[] shared = null;
    byte[] single = null;
    for (int y = 0; y < height; y++) {
      for (int x = 0; x < width; x++) {
        int holes = 0;
        for (float[] plane : planes) {
          holes += Float.isNaN(plane[y * side + x]) ? 1 : 0;
        }
        if (holes == 0) {
          continue;
        }
        if (shared == null) {
          shared = allValid(1);
          single = allValid(bands);
        }
        clear(shared, y * stride(1) * 8 + x);
        for (int b = 0; b < bands; b++) {
          if (Float.isNaN(planes[b][y * side + x])) {
            clear(single, y * stride(bands) * 8 + x * bands + b);
          }
        }
        differ |= holes < bands;
      }
    }
    if (shared != null) {
      any = true;
      common[tile] = Deflate.pack(shared, shared.length);
      each[tile] = bands == 1 ? common[tile] : Deflate.pack(single, single.length);
    }
  }

  private int stride(int samples) {
    return side * samples / 8;
  }

  private byte[] allValid(int samples) {
    byte[] bits = new byte[side * stride(samples)];
    Arrays.fill(bits, (byte) 0xff);
    return bits;
  }

  private static void clear(byte[] bits, int at) {
    bits[at >> 3] &= (byte) ~(0x80 >> (at & 7));
  }

  boolean isNeeded() {
    return any;
  }

  /**
   * The packed bits of each tile, those without holes being one and the same array.
   *
   * @param differing whether bands have holes of their own at any level
   */
  byte[][] tiles(boolean differing) {
    int samples = differing ? bands : 1;
    byte[] valid = Deflate.pack(allValid(samples), side * stride(samples));
    byte[][] packed = (differing ? each : common).clone();
    for (int i = 0; i < packed.length; i++) {
      packed[i] = packed[i] == null ? valid : packed[i];
    }
    return packed;
  }

  boolean differs() {
    return differ;
  }
}
