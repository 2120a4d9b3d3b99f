package sharpkestrel.raster;

import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;

/**
 * Keeps the tiles of another raster. A tile wanted by two threads is computed by one of them while the other waits;
 * rasters form a graph without cycles, so the waiting cannot lock up.
 */
public final class CachedRaster extends RasterView {

  private record Pending(int level, int tileX, int tileY) {}

  private volatile Raster source;
  private final int tileSize;
  private final TileCache cache;
  private final long id = TileCache.newRasterId();
  private final ConcurrentHashMap<Pending, CountDownLatch> running = new ConcurrentHashMap<>();

  public CachedRaster(Raster source, int tileSize, TileCache cache) {
    this.source = source;
    this.tileSize = tileSize;
    this.cache = cache;
  }

  /** Tiles of 256 in the shared cache. */
  public static Raster of(Raster source) {
    return source instanceof CachedRaster || source instanceof MemoryRaster
        ? source
        : new CachedRaster(source, 256, TileCache.shared());
  }

  @Override
  public Raster source() {
    return source;
  }

  /** From now on reads the same pixels from elsewhere, such as from the file they were written to. */
  public void continueFrom(Raster samePixels) {
    if (!samePixels.grid().equals(source.grid())
        || samePixels.bands().size() != source.bands().size()) {
      throw new IllegalArgumentException("Other pixels cannot take the place of these");
    }
    source = samePixels;
  }

  /** Whether every tile of a window is at hand, so that reading it costs only copying. */
  public boolean holds(int level, Window window, boolean[] wanted) {
    Window inside = window.intersect(grid().atLevel(level).window());
    for (int ty = Math.floorDiv(inside.y(), tileSize); ty * tileSize < inside.bottom(); ty++) {
      for (int tx = Math.floorDiv(inside.x(), tileSize); tx * tileSize < inside.right(); tx++) {
        for (int b = 0; b < wanted.length; b++) {
          if (wanted[b] && cache.get(new TileCache.Key(id, level, tx, ty, b)).isEmpty()) {
            return false;
          }
        }
      }
    }
    return true;
  }

  @Override
  public Optional<LabelRaster> wholeNumbers() {
    return source.wholeNumbers();
  }

  @Override
  public void read(int level, Window window, float[][] target, Request request) {
    Grid at = grid().atLevel(level);
    Window inside = window.intersect(at.window());
    if (!inside.equals(window)) {
      Planes.fillNaN(target);
    }
    if (inside.isEmpty()) {
      return;
    }
    for (int ty = inside.y() / tileSize; ty * tileSize < inside.bottom(); ty++) {
      for (int tx = inside.x() / tileSize; tx * tileSize < inside.right(); tx++) {
        request.cancellation().check();
        Window tile =
            new Window(tx * tileSize, ty * tileSize, tileSize, tileSize).intersect(at.window());
        float[][] planes = tile(level, tx, ty, tile, target, request);
        for (int b = 0; b < target.length; b++) {
          if (target[b] != null) {
            Planes.copy(planes[b], tile, target[b], window);
          }
        }
      }
    }
  }

  private float[][] tile(
      int level, int tx, int ty, Window tile, float[][] wanted, Request request) {
    float[][] planes = new float[wanted.length][];
    Pending pending = new Pending(level, tx, ty);
    while (true) {
      float[][] missing = new float[wanted.length][];
      boolean complete = true;
      for (int b = 0; b < wanted.length; b++) {
        if (wanted[b] == null || planes[b] != null) {
          continue;
        }
        planes[b] = cache.get(new TileCache.Key(id, level, tx, ty, b)).orElse(null);
        if (planes[b] == null) {
          complete = false;
          missing[b] = new float[0];
        }
      }
      if (complete) {
        return planes;
      }
      CountDownLatch mine = new CountDownLatch(1);
      CountDownLatch other = running.putIfAbsent(pending, mine);
      if (other != null) {
        await(other, request);
        continue;
      }
      try {
        float[][] fresh = Planes.like(missing, tile.area());
        source.read(level, tile, fresh, request);
        for (int b = 0; b < fresh.length; b++) {
          if (fresh[b] != null) {
            planes[b] = fresh[b];
            cache.put(new TileCache.Key(id, level, tx, ty, b), fresh[b]);
          }
        }
      } finally {
        running.remove(pending, mine);
        mine.countDown();
      }
    }
  }

  private static void await(CountDownLatch other, Request request) {
    try {
      Objects.requireNonNull(other).await();
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
      throw new CancellationException("interrupted while waiting for a tile");
    }
    request.cancellation().check();
  }
}
