package sharpkestrel.app.viewer;

import java.util.Arrays;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/** Coloured tiles of one raster under one look; the nearest coarser one stands in for a tile until it comes. */
final class ImageTiles extends Tiles<ImageTiles.Tile> {

  /** Values for red, green and blue, and their colours under the stretch they were last drawn with. */
  static final class Tile {
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

  private final Raster raster;
  private final int[] bands;
  private volatile Stretch stretch;
  private boolean standIns = true;

  ImageTiles(Raster raster, int[] bands, Stretch stretch, TileNews news) {
    super(news);
    this.raster = raster;
    this.bands = bands;
    this.stretch = stretch;
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

  /** The pixels of a tile, or null where it is not there. */
  int[] get(int level, int x, int y) {
    Tile tile = find(level, x, y);
    return tile == null ? null : tile.pixels(stretch);
  }

  @Override
  int bytes(Tile tile) {
    return tile.bytes();
  }

  @Override
  Tile make(int level, int x, int y, Request request) {
    Grid grid = raster.grid().atLevel(level);
    Window tile = new Window(x * SIZE, y * SIZE, SIZE, SIZE);
    Window inside = tile.intersect(grid.window());
    Tile made =
        new Tile(read(raster, bands, level, inside, request), inside.width(), inside.height());
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
