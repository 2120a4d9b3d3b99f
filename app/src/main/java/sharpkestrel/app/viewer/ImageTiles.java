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
  private static final int CURVE = 1023;
  /** Screen brightness by share of the stretch: a power of 0.65 opens the shadows without losing bright roofs. */
  private static final int[] TONE = new int[CURVE + 1];

  static {
    for (int i = 0; i <= CURVE; i++) {
      TONE[i] = (int) Math.round(255 * Math.pow((double) i / CURVE, 0.65));
    }
  }

  private record Key(int level, int x, int y) {}

  /** Threads that make tiles of pictures and of labels. */
  static final ExecutorService WORKERS = Executors.newFixedThreadPool(
      Math.max(1, Runtime.getRuntime().availableProcessors()), Background.threads("kestrel-tile"));

  private final Raster raster;
  private final int[] bands;
  private final Stretch stretch;
  private final Runnable arrived;
  private final Cancellation cancellation = new Cancellation();
  private final Cache<Key, int[]> tiles = Caffeine.newBuilder()
      .maximumWeight(96L << 20)
      .weigher((Key k, int[] v) -> 4 * v.length)
      .build();
  private final Set<Key> asked = ConcurrentHashMap.newKeySet();
  private volatile Window wantedTiles = new Window(0, 0, 0, 0);
  private volatile int wantedLevel;

  ImageTiles(Raster raster, int[] bands, Stretch stretch, Runnable arrived) {
    this.raster = raster;
    this.bands = bands;
    this.stretch = stretch;
    this.arrived = arrived;
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

  /** The pixels of a tile, or null while it is on its way. */
  int[] get(int level, int x, int y) {
    return tiles.getIfPresent(new Key(level, x, y));
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
          tiles.put(key, new int[SIZE * SIZE]);
        }
      } finally {
        asked.remove(key);
        arrived.run();
      }
    });
  }

  private int[] make(int level, int x, int y) {
    Grid grid = raster.grid().atLevel(level);
    Window tile = new Window(x * SIZE, y * SIZE, SIZE, SIZE);
    Window inside = tile.intersect(grid.window());
    float[][] planes = new float[raster.bands().size()][];
    for (int band : bands) {
      planes[band] = planes[band] == null ? new float[inside.area()] : planes[band];
    }
    raster.read(level, inside, planes, new Request(true, cancellation));
    int[] pixels = new int[SIZE * SIZE];
    colour(planes, bands, stretch, inside.width(), inside.height(), pixels, SIZE);
    return pixels;
  }

  /**
   * Stretches three bands to the screen.
   *
   * @param planes (input) by band; those of {@code bands} are there
   * @param pixels (output) ARGB, rows of {@code across}; no-data is 0
   */
  static void colour(
      float[][] planes,
      int[] bands,
      Stretch stretch,
      int width,
      int height,
      int[] pixels,
      int across) {
    float[] scale = new float[3];
    for (int c = 0; c < 3; c++) {
      scale[c] = CURVE / Math.max(1e-12f, stretch.high()[c] - stretch.low()[c]);
    }
    for (int row = 0; row < height; row++) {
      for (int col = 0; col < width; col++) {
        int i = row * width + col;
        int argb = 0xff000000;
        boolean valid = true;
        for (int c = 0; c < 3; c++) {
          float v = planes[bands[c]][i];
          valid &= !Float.isNaN(v);
          int share = (int) ((v - stretch.low()[c]) * scale[c]);
          argb |= TONE[Math.max(0, Math.min(CURVE, share))] << (16 - 8 * c);
        }
        pixels[row * across + col] = valid ? argb : 0;
      }
    }
  }

  /** Draws a picture of the whole raster, at most so many pixels wide, for thumbnails; runs on the caller's thread. */
  static int[] thumbnail(Raster raster, int[] bands, Stretch stretch, int width, int height) {
    int level = raster.levels() - 1;
    Grid grid = raster.grid().atLevel(level);
    float[][] planes = new float[raster.bands().size()][];
    for (int band : bands) {
      planes[band] = planes[band] == null ? new float[grid.window().area()] : planes[band];
    }
    raster.read(level, grid.window(), planes, Request.BACKGROUND);
    int[] pixels = new int[width * height];
    Arrays.fill(pixels, 0xff1d2023);
    // the middle of the raster fills the picture
    double step = Math.min((double) grid.width() / width, (double) grid.height() / height);
    double x0 = (grid.width() - step * width) / 2;
    double y0 = (grid.height() - step * height) / 2;
    for (int y = 0; y < height; y++) {
      for (int x = 0; x < width; x++) {
        int i = (int) Math.min(grid.height() - 1.0, y0 + (y + 0.5) * step) * grid.width()
            + (int) Math.min(grid.width() - 1.0, x0 + (x + 0.5) * step);
        int argb = 0xff000000;
        for (int c = 0; c < 3; c++) {
          float v = planes[bands[c]][i];
          float share = (v - stretch.low()[c])
              / Math.max(1e-12f, stretch.high()[c] - stretch.low()[c]);
          argb |= Float.isNaN(v)
              ? 0
              : TONE[(int) (CURVE * Math.max(0, Math.min(1, share)))] << (16 - 8 * c);
        }
        pixels[y * width + x] = argb;
      }
    }
    return pixels;
  }
}
