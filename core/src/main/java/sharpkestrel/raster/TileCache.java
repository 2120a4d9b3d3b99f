package sharpkestrel.raster;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicLong;

/** Planes of tiles kept up to a budget in bytes, the least useful dropped first; one for the whole process. */
public final class TileCache {

  /** A tile's plane: which raster, level, place and band. */
  public record Key(long raster, int level, int tileX, int tileY, int band) {}

  private static final AtomicLong NEXT_RASTER = new AtomicLong();
  private static final TileCache SHARED =
      new TileCache(Math.max(32L << 20, Runtime.getRuntime().maxMemory() / 4));

  private final Cache<Key, float[]> planes;
  private final long budget;

  public TileCache(long budgetBytes) {
    budget = budgetBytes;
    planes = Caffeine.newBuilder()
        .maximumWeight(budgetBytes)
        .weigher((Key key, float[] plane) -> 64 + 4 * plane.length)
        // Drops on the thread that puts: left to a pool, a burst of tiles outgrows the budget
        // first.
        .executor(Runnable::run)
        .build();
  }

  /** A quarter of the heap. */
  public static TileCache shared() {
    return SHARED;
  }

  /** A number no other raster's tiles are filed under. */
  public static long newRasterId() {
    return NEXT_RASTER.incrementAndGet();
  }

  public Optional<float[]> get(Key key) {
    return Optional.ofNullable(planes.getIfPresent(key));
  }

  public void put(Key key, float[] plane) {
    planes.put(key, plane);
  }

  public long budgetBytes() {
    return budget;
  }
}
