package sharpkestrel.app.viewer;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Window;

/**
 * Labels for the screen in a pyramid by majority, its tiles made on a worker thread when first looked at.
 *
 * <p>A pixel of a reduced level has the label that is most frequent among the four below it, the first of them where
 * none is. Tiles are made of those below them, down to the pixels, so that a thin object neither flickers nor vanishes
 * by where it happens to be sampled.
 */
final class LabelTiles {

  static final int SIZE = 256;

  private final LabelRaster labels;
  private final Cache<Long, int[]> tiles =
      Caffeine.newBuilder().maximumSize(160).build();

  private final Set<Long> asked = ConcurrentHashMap.newKeySet();
  private final Runnable arrived;

  /**
   * @param arrived told of every tile that has come
   */
  LabelTiles(LabelRaster labels, Runnable arrived) {
    this.labels = labels;
    this.arrived = arrived;
  }

  LabelRaster labels() {
    return labels;
  }

  /** The labels of a tile, or null while it is on its way. */
  int[] get(int level, int x, int y) {
    long key = key(level, x, y);
    int[] tile = tiles.getIfPresent(key);
    if (tile == null && asked.add(key)) {
      ImageTiles.WORKERS.execute(() -> {
        try {
          made(level, x, y);
        } finally {
          asked.remove(key);
          arrived.run();
        }
      });
    }
    return tile;
  }

  private static long key(int level, int x, int y) {
    return (long) level << 48 | (long) x << 24 | y;
  }

  private int[] made(int level, int x, int y) {
    long key = key(level, x, y);
    int[] tile = tiles.getIfPresent(key);
    if (tile == null) {
      tile = level == 0 ? pixels(x, y) : reduced(level, x, y);
      tiles.put(key, tile);
    }
    return tile;
  }

  private int[] pixels(int x, int y) {
    int[] tile = new int[SIZE * SIZE];
    labels.read(new Window(x * SIZE, y * SIZE, SIZE, SIZE), tile);
    return tile;
  }

  private int[] reduced(int level, int x, int y) {
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
      int[] below = made(level - 1, belowX, belowY);
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
