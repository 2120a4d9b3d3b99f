package sharpkestrel.app.viewer;

import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/**
 * Labels for the screen in a pyramid by majority, its tiles made when first looked at.
 *
 * <p>A pixel of a reduced level has the label that is most frequent among the four below it, the first of them where
 * none is. Tiles are made of those below them, down to the pixels, so that a thin object neither flickers nor vanishes
 * by where it happens to be sampled.
 */
final class LabelTiles extends Tiles<int[]> {

  private final LabelRaster labels;

  LabelTiles(LabelRaster labels, TileNews news) {
    super(news);
    this.labels = labels;
  }

  LabelRaster labels() {
    return labels;
  }

  /** The labels of a tile, or null where it is not there; it is on its way then, or cannot be had. */
  int[] get(int level, int x, int y) {
    int[] tile = find(level, x, y);
    if (tile == null) {
      ask(level, x, y);
    }
    return tile;
  }

  @Override
  int bytes(int[] tile) {
    return Integer.BYTES * tile.length;
  }

  @Override
  int[] make(int level, int x, int y, Request request) {
    int[] kept = find(level, x, y);
    if (kept != null) {
      return kept;
    }
    request.cancellation().check();
    return level == 0 ? pixels(x, y) : reduced(level, x, y, request);
  }

  private int[] pixels(int x, int y) {
    int[] tile = new int[SIZE * SIZE];
    labels.read(new Window(x * SIZE, y * SIZE, SIZE, SIZE), tile);
    return tile;
  }

  private int[] reduced(int level, int x, int y, Request request) {
    int[] tile = new int[SIZE * SIZE];
    int half = SIZE / 2;
    int across = labels.grid().atLevel(level - 1).width();
    int down = labels.grid().atLevel(level - 1).height();
    for (int quarter = 0; quarter < 4; quarter++) {
      int belowX = 2 * x + quarter % 2;
      int belowY = 2 * y + quarter / 2;
      if (belowX * SIZE >= across || belowY * SIZE >= down) {
        continue;
      }
      int[] below = make(level - 1, belowX, belowY, request);
      for (int r = 0; r < half; r++) {
        int out = (quarter / 2 * half + r) * SIZE + quarter % 2 * half;
        for (int c = 0; c < half; c++) {
          int i = 2 * r * SIZE + 2 * c;
          tile[out + c] = majority(below[i], below[i + 1], below[i + SIZE], below[i + SIZE + 1]);
        }
      }
    }
    return tile;
  }

  /** The most frequent of four; where two pairs tie, or all differ, the first. */
  static int majority(int a, int b, int c, int d) {
    if (a == b || a == c || a == d) {
      return a;
    }
    return b == c || b == d ? b : c == d ? c : a;
  }
}
