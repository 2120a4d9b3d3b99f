package sharpkestrel.app.viewer;

import java.util.Arrays;
import sharpkestrel.app.model.ObjectStyle;

/**
 * Borders of objects, light over a dark halo; that of the picked one, and cuts through what was one object, in a warm tone. What is near a border is marked first and blended once, so that lines are as
 * opaque as they are to be wherever they meet.
 */
final class ObjectBorders {

  private static final int LIGHT = 0x00fff4e6;
  private static final int CHOSEN = 0x00f0a37e;
  private static final int HALO = 0x00101214;
  private static final int HALO_ALPHA = 0xa0;
  /** Sides of objects in screen pixels at which borders have gone, and are whole. */
  private static final double FADED = 3;

  private static final double CLEAR = 8;
  /** How much larger those are for each pixel that borders are wider. */
  private static final double WIDER = 0.6;

  private static final int FULL = 255;

  private int width;
  private byte[] line = new byte[0];
  private byte[] halo = new byte[0];
  private byte[] chosen = new byte[0];

  /**
   * Draws into a part of the screen.
   *
   * @param pixels (modified) the screen, row by row
   * @param rows (input) for each of its pixels the object there, below 0 for none, {@link Compositor#UNKNOWN} where it is on its way
   */
  void draw(
      int[] pixels,
      int[] rows,
      int screenWidth,
      ObjectPaint paint,
      ObjectStyle style,
      double sourcePixelsPerScreenPixel,
      int x0,
      int y0,
      int x1,
      int y1) {
    if (line.length != pixels.length) {
      line = new byte[pixels.length];
      halo = new byte[pixels.length];
      chosen = new byte[pixels.length];
    }
    width = screenWidth;
    for (int y = y0; y < y1; y++) {
      for (byte[] marks : new byte[][] {line, halo, chosen}) {
        Arrays.fill(marks, y * width + x0, y * width + x1, (byte) 0);
      }
    }
    double room = sourcePixelsPerScreenPixel * (1 + WIDER * (style.width() - 1));
    float faint = (float) (FADED * room);
    float clear = (float) (CLEAR * room);
    boolean all = style.which() == ObjectStyle.Which.ALL;
    int s = style.which() == ObjectStyle.Which.NONE ? -1 : paint.selected();
    for (int y = y0; y < y1 - 1; y++) {
      for (int x = x0; x < x1 - 1; x++) {
        int i = y * width + x;
        int here = rows[i];
        int right = rows[i + 1];
        int below = rows[i + width];
        if (here == right && here == below) {
          continue;
        }
        if (here == Compositor.UNKNOWN
            || right == Compositor.UNKNOWN
            || below == Compositor.UNKNOWN) {
          continue;
        }
        boolean picked = s >= 0 && (here == s || right == s || below == s);
        if (picked || paint.isCut(here, right) || paint.isCut(here, below)) {
          mark(x, y, style.width() + 1, FULL, true, x0, y0, x1, y1);
        } else if (all) {
          float side =
              Math.min(side(paint, here), Math.min(side(paint, right), side(paint, below)));
          float strength = Math.min(1, (side - faint) / (clear - faint));
          if (side != Float.POSITIVE_INFINITY && strength > 0) {
            mark(x, y, style.width(), (int) (FULL * strength), false, x0, y0, x1, y1);
          }
        }
      }
    }
    for (int y = y0; y < y1; y++) {
      for (int i = y * width + x0; i < y * width + x1; i++) {
        if (line[i] != 0) {
          boolean picked = chosen[i] != 0;
          double opacity = picked ? 1 : style.opacity();
          blend(pixels, i, (int) ((line[i] & FULL) * opacity), picked ? CHOSEN : LIGHT);
        } else if (halo[i] != 0) {
          blend(pixels, i, (int) ((halo[i] & FULL) * HALO_ALPHA / FULL * style.opacity()), HALO);
        }
      }
    }
  }

  /** The side of an object whose border shows; infinite for others. */
  private static float side(ObjectPaint paint, int object) {
    return object >= 0 && paint.bordered()[object]
        ? paint.sides()[object]
        : Float.POSITIVE_INFINITY;
  }

  private void mark(
      int x, int y, int wide, int strength, boolean picked, int x0, int y0, int x1, int y1) {
    int before = (wide - 1) / 2;
    for (int dy = -before - 1; dy <= wide - before; dy++) {
      for (int dx = -before - 1; dx <= wide - before; dx++) {
        int px = x + dx;
        int py = y + dy;
        if (px < x0 || px >= x1 || py < y0 || py >= y1) {
          continue;
        }
        int i = py * width + px;
        boolean inLine = dx >= -before && dx < wide - before && dy >= -before && dy < wide - before;
        byte[] marks = inLine ? line : halo;
        marks[i] = (byte) Math.max(marks[i] & FULL, strength);
        if (picked && inLine) {
          chosen[i] = 1;
        }
      }
    }
  }

  private static void blend(int[] pixels, int i, int alpha, int colour) {
    if (alpha > 0) {
      pixels[i] = Compositor.blend(pixels[i], alpha << 24 | colour);
    }
  }
}
