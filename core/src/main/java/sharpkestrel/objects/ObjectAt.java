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
    for (int side = FIRST_SIDE; ; side *= 2) {
      Window window = new Window(col - side / 2, row - side / 2, side, side).intersect(whole);
      int[] pixels = new int[window.area()];
      labels.read(window, pixels);
      int at = (row - window.y()) * window.width() + col - window.x();
      int object = rowOf[pixels[at]];
      if (object < 0) {
        return Optional.empty();
      }
      boolean[] mask = new boolean[pixels.length];
      boolean cutOff = flood(pixels, rowOf, object, at, window, whole, mask);
      if (!cutOff || window.equals(whole)) {
        Geometry traced =
            Tracer.trace(mask, window.width(), window.height(), window.x(), window.y());
        return Optional.of(ObjectGeometry.toGround(labels.grid().affine()).transform(traced));
      }
    }
  }

  /** Marks what hangs together with a pixel; whether it reaches an edge of the window behind which there is more. */
  private static boolean flood(
      int[] pixels,
      int[] rowOf,
      int object,
      int start,
      Window window,
      Window whole,
      boolean[] mask) {
    int width = window.width();
    int[] waiting = new int[64];
    int count = 1;
    waiting[0] = start;
    mask[start] = true;
    boolean cutOff = false;
    while (count > 0) {
      int at = waiting[--count];
      int x = at % width;
      int y = at / width;
      cutOff |= x == 0 && window.x() > whole.x()
          || y == 0 && window.y() > whole.y()
          || x == width - 1 && window.right() < whole.right()
          || y == window.height() - 1 && window.bottom() < whole.bottom();
      if (count + 4 > waiting.length) {
        waiting = Arrays.copyOf(waiting, 2 * waiting.length);
      }
      int[] beside = {x > 0 ? at - 1 : at, x < width - 1 ? at + 1 : at, at - width, at + width};
      for (int next : beside) {
        boolean inside = next >= 0 && next < mask.length;
        if (inside && !mask[next] && rowOf[pixels[next]] == object) {
          mask[next] = true;
          waiting[count++] = next;
        }
      }
    }
    return cutOff;
  }
}
