package sharpkestrel.app.viewer;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import sharpkestrel.app.work.Lanes;
import sharpkestrel.raster.Cancellation;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/**
 * Tiles of one layer of a picture. One that is not at hand is asked for in the view lane, the newest first; what is not looked
 * at any more by then is not made. All layers share one budget of bytes. A tile that could not be made is remembered as such
 * until somebody tries again.
 *
 * @param <T> what a tile holds
 */
abstract class Tiles<T> {

  static final int SIZE = 256;

  /** Bytes that tiles of all layers together may take, where the heap is large enough. */
  static final long BUDGET = Math.min(256L << 20, Runtime.getRuntime().maxMemory() / 8);

  /** A number for each layer, so that what is kept of it does not keep it. */
  private record Key(long layer, int level, int x, int y) {}

  private static final AtomicLong LAYERS = new AtomicLong();

  /** A tile, or that there is none to be had. */
  private record Kept(Object tile, int bytes) {
    static final Kept FAILED = new Kept(null, 1);
  }

  private static final Cache<Key, Kept> KEPT = Caffeine.newBuilder()
      .maximumWeight(BUDGET)
      .weigher((Key key, Kept kept) -> kept.bytes)
      .build();

  private final long number = LAYERS.incrementAndGet();
  private final TileNews news;
  private final Cancellation cancellation = new Cancellation();
  private final Set<Key> asked = ConcurrentHashMap.newKeySet();
  private volatile Window wanted = new Window(0, 0, 0, 0);
  /** The level that is looked at; below 0 before anything is. */
  private volatile int wantedLevel = -1;

  private volatile boolean failed;

  Tiles(TileNews news) {
    this.news = news;
  }

  /**
   * Makes a tile; on a thread of the view lane.
   *
   * @throws RuntimeException where it cannot be had
   */
  abstract T make(int level, int x, int y, Request request);

  /** Bytes that a tile takes. */
  abstract int bytes(T tile);

  /** Says what is looked at, so that requests for other places of that level lapse. */
  void look(int level, Window tileRange) {
    wantedLevel = level;
    wanted = tileRange;
  }

  /** A tile, or null where it is not there: on its way, not asked for, or not to be had. */
  @SuppressWarnings("unchecked")
  final T find(int level, int x, int y) {
    Kept kept = KEPT.getIfPresent(new Key(number, level, x, y));
    return kept == null ? null : (T) kept.tile;
  }

  /** Whether a tile could not be made. */
  final boolean isFailed(int level, int x, int y) {
    return failed && KEPT.getIfPresent(new Key(number, level, x, y)) == Kept.FAILED;
  }

  /** Keeps a tile that was made on the way to another. */
  final void keep(int level, int x, int y, T tile) {
    if (!cancellation.isCancelled()) {
      KEPT.put(new Key(number, level, x, y), new Kept(tile, bytes(tile)));
    }
  }

  /** Whether nothing is on its way. */
  final boolean isComplete() {
    return asked.isEmpty();
  }

  /** Asks for a tile, unless it is on its way or is known not to be had. */
  final void ask(int level, int x, int y) {
    Key key = new Key(number, level, x, y);
    if (cancellation.isCancelled() || isFailed(level, x, y) || !asked.add(key)) {
      return;
    }
    Lanes.view().makeTile(() -> isWanted(key), () -> make(key), () -> done(key));
  }

  private boolean isWanted(Key key) {
    boolean seen = key.level != wantedLevel || wanted.contains(new Window(key.x, key.y, 1, 1));
    return seen && !cancellation.isCancelled();
  }

  private void make(Key key) {
    try {
      keep(key.level, key.x, key.y, make(key.level, key.x, key.y, new Request(true, cancellation)));
    } catch (RuntimeException | OutOfMemoryError broken) {
      if (!cancellation.isCancelled()) {
        KEPT.put(key, Kept.FAILED);
        boolean first = !failed;
        failed = true;
        if (first) {
          news.failed(this, String.valueOf(broken.getMessage()));
        }
      }
    } finally {
      done(key);
    }
  }

  private void done(Key key) {
    asked.remove(key);
    news.arrived();
  }

  /** Forgets which tiles could not be made, so that they are asked for again when they are looked at. */
  void tryAgain() {
    failed = false;
    KEPT.asMap()
        .entrySet()
        .removeIf(e -> e.getKey().layer == number && e.getValue() == Kept.FAILED);
    news.arrived();
  }

  /** No more tiles are wanted of this; those that are kept are let go. */
  void close() {
    cancellation.cancel();
    KEPT.asMap().keySet().removeIf(key -> key.layer == number);
  }

  /** Bytes that the tiles of all layers take now. */
  static long bytesKept() {
    KEPT.cleanUp();
    return KEPT.policy().eviction().orElseThrow().weightedSize().orElseThrow();
  }
}
