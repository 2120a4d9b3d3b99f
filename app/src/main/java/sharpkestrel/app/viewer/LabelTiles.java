package sharpkestrel.app.viewer;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Window;

/** Labels for the screen: tiles of every 2^level-th pixel, read on a worker thread when first looked at. */
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
    long key = (long) level << 48 | (long) x << 24 | y;
    int[] tile = tiles.getIfPresent(key);
    if (tile == null && asked.add(key)) {
      ImageTiles.WORKERS.execute(() -> {
        try {
          tiles.put(key, make(level, x, y));
        } finally {
          asked.remove(key);
          arrived.run();
        }
      });
    }
    return tile;
  }

  private int[] make(int level, int x, int y) {
    int step = 1 << level;
    int[] tile = new int[SIZE * SIZE];
    int[] row = new int[SIZE * step];
    for (int r = 0; r < SIZE; r++) {
      int sourceY = (y * SIZE + r) * step + step / 2;
      if (sourceY >= labels.grid().height()) {
        break;
      }
      labels.read(new Window(x * SIZE * step, sourceY, SIZE * step, 1), row);
      for (int c = 0; c < SIZE; c++) {
        tile[r * SIZE + c] = row[c * step + step / 2];
      }
    }
    return tile;
  }
}
