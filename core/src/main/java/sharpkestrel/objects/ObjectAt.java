package sharpkestrel.objects;

import java.util.Arrays;
import java.util.Optional;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Tracer;
import sharpkestrel.raster.Window;

/** The object under a place, found from its pixels outwards, however many others there are. */
public final class ObjectAt {

  private static final int FIRST_SIDE = 128;

  private ObjectAt() {}

  /**
   * @param rowOf for each label the row of its object; below 0 for none
   * @return the exact border, in ground coordinates, of what hangs together of the object there; empty where there is none
   */
  public static Optional<Geometry> outline(LabelRaster labels, int[] rowOf, int col, int row) {
    Window whole = labels.grid().window();
    if (!whole.contains(new Window(col, row, 1, 1))) {
      return Optional.empty();
    }
    Window window = new Window(col - FIRST_SIDE / 2, row - FIRST_SIDE / 2, FIRST_SIDE, FIRST_SIDE)
        .intersect(whole);
    while (true) {
      int[] pixels = new int[window.area()];
      labels.read(window, pixels);
      int at = (row - window.y()) * window.width() + col - window.x();
      int object = rowOf[pixels[at]];
      if (object < 0) {
        return Optional.empty();
      }
      boolean[] mask = new boolean[pixels.length];
      Window needed = flood(pixelsOf(object, pixels, rowOf), at, window, mask).intersect(whole);
      if (needed.equals(window)) {
        Geometry traced =
            Tracer.trace(mask, window.width(), window.height(), window.x(), window.y());
        return Optional.of(ObjectGeometry.toGround(labels.grid().affine()).transform(traced));
      }
      window = needed;
    }
  }

  /** Which pixels belong to an object; neighbours along a row mostly have the same label. */
  private static boolean[] pixelsOf(int object, int[] labels, int[] rowOf) {
    boolean[] own = new boolean[labels.length];
    int label = labels[0];
    boolean is = rowOf[label] == object;
    for (int i = 0; i < labels.length; i++) {
      if (labels[i] != label) {
        label = labels[i];
        is = rowOf[label] == object;
      }
      own[i] = is;
    }
    return own;
  }

  /**
   * Marks what hangs together with a pixel, a run of a row at a time.
   *
   * @param mask (output) as large as the window
   * @return the window, twice as wide or high towards each of its sides that the object reaches
   */
  private static Window flood(boolean[] own, int start, Window window, boolean[] mask) {
    int width = window.width();
    int[] waiting = new int[64];
    int count = 1;
    waiting[0] = start;
    int least = width;
    int most = 0;
    int top = window.height();
    int bottom = 0;
    while (count > 0) {
      int at = waiting[--count];
      if (mask[at]) {
        continue;
      }
      int y = at / width;
      int left = at;
      int right = at;
      while (left > y * width && own[left - 1]) {
        left--;
      }
      while (right < (y + 1) * width - 1 && own[right + 1]) {
        right++;
      }
      Arrays.fill(mask, left, right + 1, true);
      least = Math.min(least, left - y * width);
      most = Math.max(most, right - y * width);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
      for (int next = y - 1; next <= y + 1; next += 2) {
        if (next < 0 || next >= window.height()) {
          continue;
        }
        int shift = (next - y) * width;
        for (int i = left + shift; i <= right + shift; i++) {
          boolean begins = i == left + shift || !own[i - 1];
          if (begins && own[i] && !mask[i]) {
            waiting = count == waiting.length ? Arrays.copyOf(waiting, 2 * count) : waiting;
            waiting[count++] = i;
          }
        }
      }
    }
    int west = least == 0 ? width : 0;
    int east = most == width - 1 ? width : 0;
    int north = top == 0 ? window.height() : 0;
    int south = bottom == window.height() - 1 ? window.height() : 0;
    return new Window(
        window.x() - west,
        window.y() - north,
        west + width + east,
        north + window.height() + south);
  }
}
