package sharpkestrel.app.viewer;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.Arrays;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import sharpkestrel.app.model.Background;
import sharpkestrel.raster.Cancellation;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/**
 * Coloured tiles of one raster under one look. A tile that is not at hand is asked for on a worker thread, and the
 * nearest coarser one stands in for it until it comes.
 */
final class ImageTiles {

  static final int SIZE = 256;

  private record Key(int level, int x, int y) {}

  /** Values for red, green and blue, and their colours under the stretch they were last drawn with. */
  private static final class Tile {
    private final float[][] planes;
    private final int width;
    private final int height;
    private int[] pixels = new int[SIZE * SIZE];
    private Stretch of;

    Tile(float[][] planes, int width, int height) {
      this.planes = planes;
      this.width = width;
      this.height = height;
    }

    synchronized int[] pixels(Stretch stretch) {
      if (of != stretch) {
        // others may still be drawing the colours before
        int[] fresh = new int[SIZE * SIZE];
        stretch.colour(planes, width, height, fresh, SIZE);
        pixels = fresh;
        of = stretch;
      }
      return pixels;
    }

    int bytes() {
      int distinct = planes[0] == planes[1] ? 1 : 3;
      return 4 * (pixels.length + distinct * planes[0].length);
    }
  }

  /** Threads that make tiles of pictures and of labels. */
  static final ExecutorService WORKERS = Executors.newFixedThreadPool(
      Math.max(1, Runtime.getRuntime().availableProcessors()), Background.threads("kestrel-tile"));

  private final Raster raster;
  private final int[] bands;
  private volatile Stretch stretch;
  private final Runnable arrived;
  private final Cancellation cancellation = new Cancellation();
  private final Cache<Key, Tile> tiles = Caffeine.newBuilder()
      .maximumWeight(Math.min(256L << 20, Runtime.getRuntime().maxMemory() / 8))
      .weigher((Key k, Tile tile) -> tile.bytes())
      .build();
  private final Set<Key> asked = ConcurrentHashMap.newKeySet();
  private volatile Window wantedTiles = new Window(0, 0, 0, 0);
  private volatile int wantedLevel;
  private boolean standIns = true;

  ImageTiles(Raster raster, int[] bands, Stretch stretch, Runnable arrived) {
    this.raster = raster;
    this.bands = bands;
    this.stretch = stretch;
    this.arrived = arrived;
  }

  /**
   * No coarse tile of the whole raster is made to stand in: where a part is looked at that something else is drawn under, the
   * rest need not be worked out.
   */
  ImageTiles withoutStandIns() {
    standIns = false;
    return this;
  }

  boolean hasStandIns() {
    return standIns;
  }

  Raster raster() {
    return raster;
  }

  /** No more tiles are wanted of this. */
  void close() {
    cancellation.cancel();
  }

  /** Says what is looked at, so that requests for other places lapse. */
  void look(int level, Window tileRange) {
    wantedLevel = level;
    wantedTiles = tileRange;
  }

  /** Bands for red, green and blue. */
  int[] bands() {
    return bands;
  }

  /** From now on colours values another way; what is shown follows as it is drawn. */
  void setStretch(Stretch newStretch) {
    stretch = newStretch;
  }

  Stretch stretch() {
    return stretch;
  }

  /** The pixels of a tile, or null while it is on its way. */
  int[] get(int level, int x, int y) {
    Tile tile = tiles.getIfPresent(new Key(level, x, y));
    return tile == null ? null : tile.pixels(stretch);
  }

  boolean isComplete() {
    return asked.isEmpty();
  }

  void ask(int level, int x, int y) {
    Key key = new Key(level, x, y);
    if (!asked.add(key)) {
      return;
    }
    WORKERS.execute(() -> {
      try {
        boolean still = level != wantedLevel || wantedTiles.contains(new Window(x, y, 1, 1));
        if (still && !cancellation.isCancelled()) {
          tiles.put(key, make(level, x, y));
        }
      } catch (RuntimeException cancelledOrBroken) {
        if (!cancellation.isCancelled()) {
          tiles.put(key, new Tile(new float[3][0], 0, 0));
        }
      } finally {
        asked.remove(key);
        arrived.run();
      }
    });
  }

  private Tile make(int level, int x, int y) {
    Grid grid = raster.grid().atLevel(level);
    Window tile = new Window(x * SIZE, y * SIZE, SIZE, SIZE);
    Window inside = tile.intersect(grid.window());
    Tile made = new Tile(
        read(raster, bands, level, inside, new Request(true, cancellation)),
        inside.width(),
        inside.height());
    made.pixels(stretch);
    return made;
  }

  /** The planes for red, green and blue of a window; one and the same where they show one band. */
  static float[][] read(Raster raster, int[] bands, int level, Window window, Request request) {
    float[][] planes = new float[raster.bands().size()][];
    for (int band : bands) {
      planes[band] = planes[band] == null ? new float[window.area()] : planes[band];
    }
    raster.read(level, window, planes, request);
    return new float[][] {planes[bands[0]], planes[bands[1]], planes[bands[2]]};
  }

  /** Draws a picture of the whole raster, at most so many pixels wide, for thumbnails; runs on the caller's thread. */
  static int[] thumbnail(Raster raster, int[] bands, Stretch stretch, int width, int height) {
    int level = raster.levels() - 1;
    Grid grid = raster.grid().atLevel(level);
    int[] coloured = new int[grid.window().area()];
    stretch.colour(
        read(raster, bands, level, grid.window(), Request.BACKGROUND),
        grid.width(),
        grid.height(),
        coloured,
        grid.width());
    int[] pixels = new int[width * height];
    Arrays.fill(pixels, 0xff1d2023);
    // the middle of the raster fills the picture
    double step = Math.min((double) grid.width() / width, (double) grid.height() / height);
    double x0 = (grid.width() - step * width) / 2;
    double y0 = (grid.height() - step * height) / 2;
    for (int y = 0; y < height; y++) {
      for (int x = 0; x < width; x++) {
        int argb = coloured[
            (int) Math.min(grid.height() - 1.0, y0 + (y + 0.5) * step) * grid.width()
                + (int) Math.min(grid.width() - 1.0, x0 + (x + 0.5) * step)];
        pixels[y * width + x] = argb == 0 ? pixels[y * width + x] : argb;
      }
    }
    return pixels;
  }
}
