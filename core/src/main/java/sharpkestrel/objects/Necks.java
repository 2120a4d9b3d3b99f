package sharpkestrel.objects;

import java.util.Arrays;
import sharpkestrel.raster.Distances;
import sharpkestrel.raster.Window;

/**
 * Parts of an object that hang together by necks only: what is left of it at half a neck's width from its border falls into
 * pieces, and each pixel goes to the piece that reaches it first, step by step within the object.
 */
final class Necks {

  /** Pixels of an object's bounds over which it is not split: room is taken for each. */
  static final long MOST = 64_000_000;

  private Necks() {}

  /**
   * @param mask of the object in its bounds
   * @param half half the width of a neck in pixels
   * @return for each pixel its part from 1, 0 outside; one part where no neck is so narrow
   */
  static int[] parts(boolean[] mask, Window bounds, double half) {
    int width = bounds.width() + 2;
    int height = bounds.height() + 2;
    boolean[] wide = new boolean[width * height];
    for (int y = 0; y < bounds.height(); y++) {
      for (int x = 0; x < bounds.width(); x++) {
        wide[(y + 1) * width + x + 1] = mask[y * bounds.width() + x];
      }
    }
    float[] depth = Distances.inside(wide, width, height);
    int[] part = new int[wide.length];
    int[] queue = new int[wide.length];
    int end = 0;
    int parts = 0;
    for (int i = 0; i < part.length; i++) {
      if (wide[i] && depth[i] > half && part[i] == 0) {
        part[i] = ++parts;
        int from = end;
        queue[end++] = i;
        for (int q = from; q < end; q++) {
          for (int next : beside(queue[q], width)) {
            if (wide[next] && depth[next] > half && part[next] == 0) {
              part[next] = parts;
              queue[end++] = next;
            }
          }
        }
      }
    }
    for (int q = 0; q < end; q++) {
      for (int next : beside(queue[q], width)) {
        if (wide[next] && part[next] == 0) {
          part[next] = part[queue[q]];
          queue[end++] = next;
        }
      }
    }
    int[] inside = new int[mask.length];
    for (int i = 0; i < inside.length; i++) {
      int at = (i / bounds.width() + 1) * width + i % bounds.width() + 1;
      // narrower than a neck everywhere: one part
      inside[i] = mask[i] ? Math.max(1, part[at]) : 0;
    }
    return parts < 2 ? ones(mask) : inside;
  }

  private static int[] ones(boolean[] mask) {
    int[] ones = new int[mask.length];
    Arrays.setAll(ones, i -> mask[i] ? 1 : 0);
    return ones;
  }

  private static int[] beside(int i, int width) {
    return new int[] {i - 1, i + 1, i - width, i + width};
  }
}
