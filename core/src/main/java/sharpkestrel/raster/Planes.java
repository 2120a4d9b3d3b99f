package sharpkestrel.raster;

import java.util.Arrays;

/** Copying and reducing of row-major planes. */
public final class Planes {

  private Planes() {}

  /** Copies the common part of two windows from one plane to the other; the rest of the target stays. */
  public static void copy(float[] from, Window fromWindow, float[] to, Window toWindow) {
    Window common = fromWindow.intersect(toWindow);
    for (int y = common.y(); y < common.bottom(); y++) {
      System.arraycopy(
          from,
          (y - fromWindow.y()) * fromWindow.width() + common.x() - fromWindow.x(),
          to,
          (y - toWindow.y()) * toWindow.width() + common.x() - toWindow.x(),
          common.width());
    }
  }

  /** Whether any sample is no-data. */
  public static boolean hasNaN(float[] plane) {
    for (float v : plane) {
      if (Float.isNaN(v)) {
        return true;
      }
    }
    return false;
  }

  public static void fillNaN(float[][] planes) {
    for (float[] plane : planes) {
      if (plane != null) {
        Arrays.fill(plane, Float.NaN);
      }
    }
  }

  /**
   * @param part pixels of it that become unknown, within {@code of} or beyond
   * @param of the pixels of the plane
   */
  public static void fillNaN(float[] plane, Window of, Window part) {
    Window there = part.intersect(of);
    for (int y = there.y(); y < there.bottom(); y++) {
      int from = (y - of.y()) * of.width() + there.x() - of.x();
      Arrays.fill(plane, from, from + there.width(), Float.NaN);
    }
  }

  /** Whether no sample of the planes that are there is known. */
  public static boolean allNaN(float[][] planes) {
    for (float[] plane : planes) {
      for (int i = 0; plane != null && i < plane.length; i++) {
        if (!Float.isNaN(plane[i])) {
          return false;
        }
      }
    }
    return true;
  }

  /**
   * Means of 2 x 2 pixels, over those that are not NaN; NaN where all are.
   *
   * @param in (input) 2*height rows of 2*width
   * @param out (output) height * width
   */
  public static void halve(float[] in, float[] out, int width, int height) {
    int inWidth = 2 * width;
    for (int y = 0; y < height; y++) {
      int top = 2 * y * inWidth;
      for (int x = 0; x < width; x++) {
        int i = top + 2 * x;
        float a = in[i];
        float b = in[i + 1];
        float c = in[i + inWidth];
        float d = in[i + inWidth + 1];
        float sum = a + b + c + d;
        out[y * width + x] = !Float.isNaN(sum) ? sum * 0.25f : meanOfValid(a, b, c, d);
      }
    }
  }

  private static float meanOfValid(float a, float b, float c, float d) {
    float sum = 0;
    int n = 0;
    if (!Float.isNaN(a)) {
      sum += a;
      n++;
    }
    if (!Float.isNaN(b)) {
      sum += b;
      n++;
    }
    if (!Float.isNaN(c)) {
      sum += c;
      n++;
    }
    if (!Float.isNaN(d)) {
      sum += d;
      n++;
    }
    return n == 0 ? Float.NaN : sum / n;
  }

  /**
   * Leaves planes without data where a wider one has none.
   *
   * @param wide (input) with a margin of so many pixels on each side
   * @param width of the planes without the margin
   * @param planes (modified) null for those not wanted
   */
  public static void leaveHoles(float[] wide, int margin, int width, float[][] planes) {
    int stride = width + 2 * margin;
    int height = wide.length / stride - 2 * margin;
    for (int y = 0; y < height; y++) {
      int from = (y + margin) * stride + margin;
      for (int x = 0; x < width; x++) {
        if (Float.isNaN(wide[from + x])) {
          for (float[] plane : planes) {
            if (plane != null) {
              plane[y * width + x] = Float.NaN;
            }
          }
        }
      }
    }
  }

  /** Planes for the bands wanted in {@code target}, of another size; null where not wanted. */
  public static float[][] like(float[][] target, int area) {
    float[][] planes = new float[target.length][];
    for (int b = 0; b < target.length; b++) {
      if (target[b] != null) {
        planes[b] = new float[area];
      }
    }
    return planes;
  }

  /** Reads a level by halving the one below: for rasters that hold no reduced levels of their own. */
  public static void readByHalving(
      Raster raster, int level, Window window, float[][] target, Request request) {
    Window below =
        new Window(2 * window.x(), 2 * window.y(), 2 * window.width(), 2 * window.height());
    float[][] fine = like(target, below.area());
    raster.read(level - 1, below, fine, request);
    for (int b = 0; b < target.length; b++) {
      if (target[b] != null) {
        halve(fine[b], target[b], window.width(), window.height());
      }
    }
  }

  /**
   * Means of level-0 pixels, whatever reduced levels the raster has: a lazy raster and its written twin give the same.
   *
   * @param level how often to halve
   * @param window in pixels of that level
   */
  public static void readReduced(
      Raster raster, int level, Window window, float[][] target, Request request) {
    if (level == 0) {
      raster.read(0, window, target, request);
      return;
    }
    Window below =
        new Window(2 * window.x(), 2 * window.y(), 2 * window.width(), 2 * window.height());
    float[][] fine = like(target, below.area());
    readReduced(raster, level - 1, below, fine, request);
    for (int b = 0; b < target.length; b++) {
      if (target[b] != null) {
        halve(fine[b], target[b], window.width(), window.height());
      }
    }
  }
}
