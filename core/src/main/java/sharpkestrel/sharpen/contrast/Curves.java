package sharpkestrel.sharpen.contrast;

import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.TileCache;
import sharpkestrel.raster.Window;

/**
 * Contrast-limited equalisation, tile by tile (Pizer et al. 1987, CVGIP 39(3), 355-368; Zuiderveld 1994, Graphics Gems IV,
 * 474-485). Each tile's values are spread by its own histogram, cut off so that contrast is raised at most {@code limit}
 * times: a bin counts at most {@code limit - 1} times its even share, and what was cut off is shared out evenly. Between the
 * centres of tiles the four nearest curves are interpolated. Tiles start at the scene's first pixel.
 *
 * <p>Curves are kept in the tile cache. On a reduced level they come from a level on which a tile still has
 * {@value #LEAST} pixels a side, which is near to what the full one gives.
 */
final class Curves {

  private static final int LEAST = 32;

  private final Raster values;
  private final Tone tone;
  private final double limit;
  private final int side;
  private final long id = TileCache.newRasterId();

  /**
   * @param values one band, shadows lifted already
   * @param side of a tile in full-size pixels
   */
  Curves(Raster values, Tone tone, double limit, int side) {
    this.values = values;
    this.tone = tone;
    this.limit = limit;
    this.side = side;
  }

  /** The level from which the curves for another come. */
  private int source(int level) {
    int coarsest = (int) Math.floor(Math.log((double) side / LEAST) / Math.log(2));
    return Math.max(0, Math.min(Math.min(level, values.levels() - 1), coarsest));
  }

  /**
   * Curves of neighbouring tiles of a row; those that are not at hand are made from one strip of the scene.
   *
   * @param curves (output) from tile {@code firstX} on
   */
  private void row(int level, int firstX, int tileY, float[][] curves, Request request) {
    int from = source(level);
    int first = -1;
    int last = -1;
    for (int k = 0; k < curves.length; k++) {
      curves[k] = TileCache.shared().get(key(from, firstX + k, tileY)).orElse(null);
      if (curves[k] == null) {
        first = first < 0 ? k : first;
        last = k;
      }
    }
    if (first < 0) {
      return;
    }
    Window left = tile(from, firstX + first, tileY);
    int right = tile(from, firstX + last, tileY).right();
    Window strip = new Window(left.x(), left.y(), right - left.x(), left.height());
    float[] plane = values.read(from, strip, request)[0];
    for (int k = first; k <= last; k++) {
      if (curves[k] == null) {
        int[] counts = new int[tone.bins()];
        count(plane, strip, tile(from, firstX + k, tileY), counts);
        curves[k] = ofHistogram(counts);
        TileCache.shared().put(key(from, firstX + k, tileY), curves[k]);
      }
    }
  }

  private TileCache.Key key(int level, int tileX, int tileY) {
    return new TileCache.Key(id, level, tileX, tileY, 0);
  }

  /** The last tile of a row or column is whole, too: it begins before the end of the one beside it. */
  private Window tile(int level, int tileX, int tileY) {
    Window whole = values.grid().atLevel(level).window();
    double step = side / (double) (1 << level);
    int size = (int) Math.max(1, Math.round(step));
    int x = (int) Math.max(0, Math.min(Math.round(tileX * step), whole.width() - size));
    int y = (int) Math.max(0, Math.min(Math.round(tileY * step), whole.height() - size));
    return new Window(x, y, size, size).intersect(whole);
  }

  private void count(float[] plane, Window strip, Window tile, int[] counts) {
    float low = (float) tone.low();
    float high = (float) tone.high();
    float scale = (float) (tone.bins() / (tone.high() - tone.low()));
    int last = counts.length - 1;
    for (int y = tile.y() - strip.y(); y < tile.bottom() - strip.y(); y++) {
      int from = y * strip.width() + tile.x() - strip.x();
      for (int i = from; i < from + tile.width(); i++) {
        float v = plane[i];
        if (v >= low && v < high) {
          counts[Math.min(last, (int) ((v - low) * scale))]++;
        }
      }
    }
  }

  /** Values at the middle of bins of one number each, else at the edges of bins. */
  private float[] ofHistogram(int[] counts) {
    int bins = counts.length;
    float[] curve = new float[tone.each() ? bins : bins + 1];
    long total = 0;
    for (int count : counts) {
      total += count;
    }
    if (total == 0) {
      double step = (tone.high() - tone.low()) / bins;
      for (int b = 0; b < curve.length; b++) {
        curve[b] = (float) (tone.low() + step * (tone.each() ? b + 0.5 : b));
      }
      return curve;
    }
    double most = (limit - 1) * total / bins;
    int floor = (int) Math.min(most, Integer.MAX_VALUE);
    int over = 0;
    long under = 0;
    for (int count : counts) {
      over += count > floor ? 1 : 0;
      under += count > floor ? 0 : count;
    }
    // what was cut off is shared out evenly
    double share = (total - under - over * most) / bins;
    double scale = (tone.high() - tone.low()) / total;
    over = 0;
    under = 0;
    for (int b = 0; b < bins; b++) {
      boolean cut = counts[b] > floor;
      double before = under + over * most + b * share;
      double height = (cut ? most : counts[b]) + share;
      curve[b] = (float) (tone.low() + scale * (tone.each() ? before + height / 2 : before));
      over += cut ? 1 : 0;
      under += cut ? 0 : counts[b];
    }
    if (!tone.each()) {
      curve[bins] = (float) tone.high();
    }
    return curve;
  }

  /**
   * Maps a window's values in place; those beyond the ends stay as they are.
   *
   * @param plane (modified) the window's values, row by row
   */
  void apply(int level, Window window, float[] plane, Request request) {
    double pixel = (1 << level) / (double) side;
    int across = Math.ceilDiv(values.grid().width(), side);
    int down = Math.ceilDiv(values.grid().height(), side);
    float[] row = new float[window.width()];
    int[] left = new int[window.width()];
    float[] right = new float[window.width()];
    for (int x = 0; x < window.width(); x++) {
      double at = (window.x() + x + 0.5) * pixel - 0.5;
      left[x] = (int) Math.floor(at);
      right[x] = (float) (at - left[x]);
    }
    int firstX = clamped(left[0], across);
    int lastX = clamped(left[left.length - 1] + 1, across);
    float[][] above = new float[lastX - firstX + 1][];
    float[][] under = new float[above.length][];
    int row0 = Integer.MIN_VALUE;
    for (int y = 0; y < window.height(); y++) {
      request.cancellation().check();
      double at = (window.y() + y + 0.5) * pixel - 0.5;
      int upper = (int) Math.floor(at);
      float below = (float) (at - upper);
      if (upper != row0) {
        row0 = upper;
        row(level, firstX, clamped(upper, down), above, request);
        row(level, firstX, clamped(upper + 1, down), under, request);
      }
      System.arraycopy(plane, y * row.length, row, 0, row.length);
      for (int from = 0; from < row.length; ) {
        int to = from + 1;
        while (to < row.length && left[to] == left[from]) {
          to++;
        }
        int x0 = clamped(left[from], across) - firstX;
        int x1 = clamped(left[from] + 1, across) - firstX;
        if (tone.each()) {
          mapEach(row, from, to, right, below, above[x0], above[x1], under[x0], under[x1]);
        } else {
          map(row, from, to, right, below, above[x0], above[x1], under[x0], under[x1]);
        }
        from = to;
      }
      System.arraycopy(row, 0, plane, y * row.length, row.length);
    }
  }

  private static int clamped(int tile, int count) {
    return Math.max(0, Math.min(count - 1, tile));
  }

  private void mapEach(
      float[] row,
      int from,
      int to,
      float[] right,
      float below,
      float[] a,
      float[] b,
      float[] c,
      float[] d) {
    float low = (float) tone.low();
    float high = (float) tone.high();
    for (int x = from; x < to; x++) {
      float v = row[x];
      if (v >= low && v < high) {
        int i = (int) (v - low);
        float above = a[i] + (b[i] - a[i]) * right[x];
        float under = c[i] + (d[i] - c[i]) * right[x];
        row[x] = above + (under - above) * below;
      }
    }
  }

  private void map(
      float[] row,
      int from,
      int to,
      float[] right,
      float below,
      float[] a,
      float[] b,
      float[] c,
      float[] d) {
    float low = (float) tone.low();
    float high = (float) tone.high();
    float scale = (float) (tone.bins() / (tone.high() - tone.low()));
    int last = tone.bins() - 1;
    for (int x = from; x < to; x++) {
      float v = row[x];
      if (v >= low && v < high) {
        float t = (v - low) * scale;
        int i = Math.min(last, (int) t);
        float f = t - i;
        float r = right[x];
        float first = a[i] + (b[i] - a[i]) * r;
        float second = a[i + 1] + (b[i + 1] - a[i + 1]) * r;
        float third = c[i] + (d[i] - c[i]) * r;
        float fourth = c[i + 1] + (d[i + 1] - c[i + 1]) * r;
        float start = first + (third - first) * below;
        float end = second + (fourth - second) * below;
        row[x] = start + (end - start) * f;
      }
    }
  }
}
