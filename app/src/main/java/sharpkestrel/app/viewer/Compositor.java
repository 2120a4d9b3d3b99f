package sharpkestrel.app.viewer;

import java.util.Arrays;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.util.LinearComponentExtracter;
import sharpkestrel.app.model.ObjectStyle;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Window;

/**
 * Draws layers into one buffer of pixels.
 *
 * <p>Why our own: a scene graph of image nodes redraws and filters every node at each frame, and cannot look labels up
 * in a table. Here a frame is a copy of visible tile pixels by rows, nearest pixel, plus one pass over screen pixels
 * for objects: fill and border come from the label under the pixel and its neighbours, so a recolouring costs the same
 * as a repaint, whatever the number of objects.
 */
final class Compositor {

  static final int WELL = 0xff1d2023;
  private static final int LIGHT = 0xfffff4e6;
  private static final int HALO = 0x101214;
  private static final int HATCH = 12;
  private static final int HATCHED = 0xff8a5a4a;

  /** Where labels are still on their way: what lies there is not known, nor whether a border runs. */
  static final int UNKNOWN = -2;

  private int width;
  private int height;
  private int[] pixels = new int[0];
  private int[] rows = new int[0];
  private final ObjectBorders borders = new ObjectBorders();
  private ObjectStyle style = ObjectStyle.INITIAL;

  void begin(int newWidth, int newHeight) {
    if (newWidth * newHeight != pixels.length) {
      pixels = new int[newWidth * newHeight];
      rows = new int[newWidth * newHeight];
    }
    width = newWidth;
    height = newHeight;
    Arrays.fill(pixels, WELL);
  }

  /** How objects are drawn from now on. */
  void setStyle(ObjectStyle newStyle) {
    style = newStyle;
  }

  int[] pixels() {
    return pixels;
  }

  /** The level whose pixels are about as large as the screen's. */
  static int levelFor(double sourcePixelsPerScreenPixel, int levels) {
    int level = (int) Math.floor(Math.log(sourcePixelsPerScreenPixel) / Math.log(2) + 0.35);
    return Math.max(0, Math.min(levels - 1, level));
  }

  /**
   * Draws a raster where {@code from <= x < to} and {@code top <= y < bottom} on the screen.
   *
   * @return whether every tile was at hand at the wanted level
   */
  boolean drawRaster(ImageTiles tiles, Affine toPixels, int from, int top, int to, int bottom) {
    Grid full = tiles.raster().grid();
    int level = levelFor(toPixels.a(), tiles.raster().levels());
    Grid grid = full.atLevel(level);
    double scale = 1.0 / (1 << level);
    int x0 = Math.max(from, 0);
    int x1 = Math.min(to, width);
    int y0 = Math.max(top, 0);
    int y1 = Math.min(bottom, height);
    if (x0 >= x1 || y0 >= y1) {
      return true;
    }
    int[] cols = new int[x1 - x0];
    for (int x = x0; x < x1; x++) {
      double col = toPixels.x(x + 0.5, 0) * scale;
      cols[x - x0] = col >= 0 && col < grid.width() ? (int) col : -1;
    }
    int size = ImageTiles.SIZE;
    int firstTile = Integer.MAX_VALUE;
    int lastTile = -1;
    for (int col : cols) {
      if (col >= 0) {
        firstTile = Math.min(firstTile, col / size);
        lastTile = Math.max(lastTile, col / size);
      }
    }
    if (lastTile < 0) {
      return true;
    }
    int topRow = (int) Math.max(0, toPixels.y(0, y0 + 0.5) * scale);
    int bottomRow = (int) Math.min(grid.height() - 1.0, toPixels.y(0, y1 - 0.5) * scale);
    tiles.look(
        level,
        new Window(
            firstTile,
            topRow / size,
            lastTile - firstTile + 1,
            Math.max(1, bottomRow / size - topRow / size + 1)));
    boolean complete = true;
    int heldTile = Integer.MIN_VALUE;
    TileRef[] refs = new TileRef[lastTile - firstTile + 1];
    for (int y = y0; y < y1; y++) {
      double rowAt = toPixels.y(0, y + 0.5) * scale;
      if (rowAt < 0 || rowAt >= grid.height()) {
        continue;
      }
      int row = (int) rowAt;
      int ty = row / size;
      if (ty != heldTile) {
        heldTile = ty;
        for (int t = 0; t < refs.length; t++) {
          refs[t] = find(tiles, level, firstTile + t, ty);
          complete &= refs[t] != null && refs[t].level == level || refs[t] == FAILED;
        }
      }
      int out = y * width + x0;
      for (int i = 0; i < cols.length; i++) {
        int col = cols[i];
        if (col < 0) {
          continue;
        }
        TileRef ref = refs[col / size - firstTile];
        if (ref == null) {
          continue;
        }
        if (ref == FAILED) {
          hatch(out + i, x0 + i, y);
          continue;
        }
        int shift = ref.level - level;
        int argb =
            ref.pixels[((row >> shift) - ref.y * size) * size + (col >> shift) - ref.x * size];
        if (argb != 0) {
          pixels[out + i] = blend(pixels[out + i], argb);
        }
      }
    }
    return complete;
  }

  private record TileRef(int level, int x, int y, int[] pixels) {}

  /** Stands for a tile that could not be made. */
  private static final TileRef FAILED = new TileRef(0, 0, 0, new int[0]);

  /** Where there is nothing to be had, so that nobody takes it for a dark place of the picture. */
  private void hatch(int i, int x, int y) {
    pixels[i] = (x + y) % HATCH < HATCH / 4 ? HATCHED : WELL;
  }

  /** The tile, asked for if it is not there, or the nearest coarser one that is. */
  private static TileRef find(ImageTiles tiles, int level, int x, int y) {
    if (tiles.isFailed(level, x, y)) {
      return FAILED;
    }
    int[] exact = tiles.get(level, x, y);
    if (exact != null) {
      return new TileRef(level, x, y, exact);
    }
    int levels = tiles.raster().levels();
    // A coarse stand-in first, so that something shows at once.
    int coarse = Math.min(levels - 1, level + 2);
    for (int up = level + 1; up < levels; up++) {
      int tx = x >> (up - level);
      int ty = y >> (up - level);
      int[] pixels = tiles.get(up, tx, ty);
      if (pixels != null) {
        tiles.ask(level, x, y);
        return new TileRef(up, tx, ty, pixels);
      }
    }
    if (coarse > level && tiles.hasStandIns()) {
      tiles.ask(levels - 1, x >> (levels - 1 - level), y >> (levels - 1 - level));
    }
    tiles.ask(level, x, y);
    return null;
  }

  /**
   * Draws objects over a part of the screen: fills, then borders light over a dark halo.
   *
   * @return whether all labels were at hand
   */
  boolean drawObjects(
      LabelTiles labels,
      ObjectPaint paint,
      Affine toPixels,
      int from,
      int top,
      int to,
      int bottom) {
    Grid grid = labels.labels().grid();
    int level = Math.max(0, levelFor(toPixels.a(), 12));
    int x0 = Math.max(from, 0);
    int x1 = Math.min(to, width);
    int y0 = Math.max(top, 0);
    int y1 = Math.min(bottom, height);
    int size = LabelTiles.SIZE;
    boolean complete = true;
    double scale = 1.0 / (1 << level);
    int[] cols = new int[Math.max(0, x1 - x0)];
    for (int x = x0; x < x1; x++) {
      double col = toPixels.x(x + 0.5, 0);
      cols[x - x0] = col < 0 || col >= grid.width() ? -1 : (int) (col * scale);
    }
    look(labels, level, cols, toPixels.y(0, y0 + 0.5) * scale, toPixels.y(0, y1 - 0.5) * scale);
    int[] rowOf = paint.rowOf();
    for (int y = y0; y < y1; y++) {
      double row = toPixels.y(0, y + 0.5);
      int base = y * width;
      if (row < 0 || row >= grid.height()) {
        Arrays.fill(rows, base + x0, base + x1, -1);
        continue;
      }
      int r = (int) (row * scale);
      int inTile = r % size * size;
      int tileX = -1;
      int[] tile = null;
      for (int x = x0; x < x1; x++) {
        int c = cols[x - x0];
        if (c >= 0 && c / size != tileX) {
          tileX = c / size;
          tile = labels.get(level, tileX, r / size);
          complete &= tile != null || labels.isFailed(level, tileX, r / size);
        }
        rows[base + x] = c < 0 ? -1 : tile == null ? UNKNOWN : rowOf[tile[inTile + c % size]];
      }
    }
    boolean random = style.fill() == ObjectStyle.Fill.RANDOM;
    for (int y = y0; y < y1; y++) {
      for (int i = y * width + x0; i < y * width + x1; i++) {
        int object = rows[i];
        int fill = object < 0 ? 0 : paint.fill()[object];
        if (fill == 0 && random && object >= 0) {
          fill = paint.random(object);
        }
        if (fill != 0) {
          pixels[i] = blend(pixels[i], withStrength(fill));
        }
      }
    }
    borders.draw(pixels, rows, width, paint, style, toPixels.a(), x0, y0, x1, y1);
    return complete;
  }

  /** A fill made weaker or stronger: at half strength as it is, at none unseen, at full opaque. */
  private int withStrength(int fill) {
    double strength = style.strength();
    if (strength == ObjectStyle.AS_MADE) {
      return fill;
    }
    int alpha = fill >>> 24;
    double changed = strength < ObjectStyle.AS_MADE
        ? alpha * strength / ObjectStyle.AS_MADE
        : alpha + (255 - alpha) * (strength - ObjectStyle.AS_MADE) / (1 - ObjectStyle.AS_MADE);
    return (int) Math.round(changed) << 24 | fill & 0x00ffffff;
  }

  /** Says which labels are in view, so that requests for others lapse. */
  private static void look(LabelTiles labels, int level, int[] cols, double top, double bottom) {
    int[] seen = Arrays.stream(cols).filter(col -> col >= 0).toArray();
    if (seen.length > 0) {
      int size = LabelTiles.SIZE;
      int left = seen[0] / size;
      int first = (int) Math.max(0, top) / size;
      int last = (int) Math.max(0, bottom) / size;
      labels.look(
          level,
          new Window(left, first, seen[seen.length - 1] / size - left + 1, last - first + 1));
    }
  }

  /** Draws outlines, halo first. */
  void drawOutlines(
      List<Geometry> outlines,
      Affine worldToScreen,
      int colour,
      int from,
      int top,
      int to,
      int bottom) {
    Affine screenToWorld = worldToScreen.inverse();
    Envelope view = new Envelope();
    view.expandToInclude(screenToWorld.x(from, top), screenToWorld.y(from, top));
    view.expandToInclude(screenToWorld.x(to, bottom), screenToWorld.y(to, bottom));
    for (int pass = 0; pass < 2; pass++) {
      for (Geometry geometry : outlines) {
        if (!view.intersects(geometry.getEnvelopeInternal())) {
          continue;
        }
        for (Object line : LinearComponentExtracter.getLines(geometry)) {
          Coordinate[] corners = ((LineString) line).getCoordinates();
          ring(corners, worldToScreen, pass, colour, from, top, to, bottom);
        }
      }
    }
  }

  private void ring(
      Coordinate[] ring, Affine map, int pass, int colour, int from, int top, int to, int bottom) {
    for (int i = 0; i + 1 < ring.length; i++) {
      double xa = map.x(ring[i].x, ring[i].y);
      double ya = map.y(ring[i].x, ring[i].y);
      double xb = map.x(ring[i + 1].x, ring[i + 1].y);
      double yb = map.y(ring[i + 1].x, ring[i + 1].y);
      int steps = (int) Math.ceil(Math.max(Math.abs(xb - xa), Math.abs(yb - ya)));
      if (steps > 20_000) {
        continue;
      }
      for (int s = 0; s <= steps; s++) {
        double t = steps == 0 ? 0 : (double) s / steps;
        int x = (int) Math.floor(xa + (xb - xa) * t);
        int y = (int) Math.floor(ya + (yb - ya) * t);
        if (pass == 0) {
          for (int dy = -1; dy <= 2; dy++) {
            for (int dx = -1; dx <= 2; dx++) {
              dot(x + dx, y + dy, 0x50000000 | HALO, from, top, to, bottom);
            }
          }
        } else {
          dot(x, y, colour, from, top, to, bottom);
          dot(x + 1, y, colour, from, top, to, bottom);
          dot(x, y + 1, colour, from, top, to, bottom);
        }
      }
    }
  }

  private void dot(int x, int y, int argb, int from, int top, int to, int bottom) {
    if (x >= Math.max(0, from)
        && x < Math.min(width, to)
        && y >= Math.max(0, top)
        && y < Math.min(height, bottom)) {
      int i = y * width + x;
      pixels[i] = blend(pixels[i], argb);
    }
  }

  /** Fills a rectangle. */
  void fill(int left, int top, int right, int bottom, int argb) {
    for (int y = Math.max(0, top); y < Math.min(height, bottom); y++) {
      for (int x = Math.max(0, left); x < Math.min(width, right); x++) {
        pixels[y * width + x] = argb;
      }
    }
  }

  /** A vertical line, for the swipe. */
  void drawLine(int x) {
    for (int y = 0; y < height; y++) {
      dot(x - 1, y, 0x90101214, 0, 0, width, height);
      dot(x, y, 0xffffffff, 0, 0, width, height);
      dot(x + 1, y, 0x90101214, 0, 0, width, height);
    }
  }

  /** A dashed frame, for the trial patch. */
  void drawFrame(int left, int top, int right, int bottom) {
    for (int x = left; x <= right; x++) {
      if ((x - left) % 10 < 6) {
        dot(x, top, LIGHT, 0, 0, width, height);
        dot(x, bottom, LIGHT, 0, 0, width, height);
      }
    }
    for (int y = top; y <= bottom; y++) {
      if ((y - top) % 10 < 6) {
        dot(left, y, LIGHT, 0, 0, width, height);
        dot(right, y, LIGHT, 0, 0, width, height);
      }
    }
  }

  static int blend(int below, int above) {
    int alpha = above >>> 24;
    if (alpha == 255) {
      return above;
    }
    int rest = 255 - alpha;
    int r = ((above >> 16 & 0xff) * alpha + (below >> 16 & 0xff) * rest) / 255;
    int g = ((above >> 8 & 0xff) * alpha + (below >> 8 & 0xff) * rest) / 255;
    int b = ((above & 0xff) * alpha + (below & 0xff) * rest) / 255;
    return 0xff000000 | r << 16 | g << 8 | b;
  }
}
