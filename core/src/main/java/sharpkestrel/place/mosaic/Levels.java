package sharpkestrel.place.mosaic;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import sharpkestrel.raster.Window;

/**
 * What slowly changes between two balanced scenes over the ground, such as the light on slopes on another day: medians of
 * blocks of ground in their overlap, smoothed. Along seams half of it is taken from the one scene and half from the other,
 * less and less away from them (the low band of Burt and Adelson 1983, A multiresolution spline with application to image
 * mosaics, ACM Trans. Graphics 2(4), 217-236).
 */
final class Levels {

  /** Blocks over which differences are smoothed, and over which they are guessed where none is known. */
  private static final double NEAR = 0.8;

  private static final double FAR = 8;
  /** Times the median absolute difference beyond which a block has changed rather than its light. */
  private static final double CHANGED = 6;

  private final Map<Integer, Lattice[]> byPair = new HashMap<>();
  private final Overview overview;
  private final int side;

  /** Differences at block centres, by row. */
  private record Lattice(Window common, int across, int down, float[] of) {}

  private Levels(Overview overview, int side) {
    this.overview = overview;
    this.side = side;
  }

  /**
   * @param metres in a pixel of the overview
   */
  static Levels of(Overview overview, Tone[][] tones, double metres) {
    int side = (int) Math.max(1, Math.round(Tones.BLOCK / metres));
    Levels levels = new Levels(overview, side);
    for (int one = 0; one < overview.members(); one++) {
      for (int two = one + 1; two < overview.members(); two++) {
        levels.compare(one, two, tones);
      }
    }
    return levels;
  }

  private static int key(int one, int two) {
    return one * Block.MOST + two;
  }

  private void compare(int one, int two, Tone[][] tones) {
    Window common = overview.common(one, two);
    int across = common.width() / side;
    int down = common.height() / side;
    if (across == 0 || down == 0) {
      return;
    }
    Lattice[] bands = new Lattice[overview.bands()];
    boolean any = false;
    for (int b = 0; b < bands.length; b++) {
      float[] differences = new float[across * down];
      for (int k = 0; k < differences.length; k++) {
        differences[k] = difference(
            one, two, b, common.x() + k % across * side, common.y() + k / across * side, tones);
        any |= !Float.isNaN(differences[k]);
      }
      bands[b] = new Lattice(common, across, down, smooth(differences, across, down));
    }
    if (any) {
      byPair.put(key(one, two), bands);
    }
  }

  private float difference(int one, int two, int band, int left, int top, Tone[][] tones) {
    float[] a = new float[side * side];
    float[] b = new float[side * side];
    int count = overview.gather(one, two, band, new Window(left, top, side, side), a, b);
    if (2 * count < side * side) {
      return Float.NaN;
    }
    double x = 2 * (left + side / 2.0) / overview.grid().width() - 1;
    double y = 2 * (top + side / 2.0) / overview.grid().height() - 1;
    Tone toneOne = tones[one][band];
    Tone toneTwo = tones[two][band];
    return (float) (toneTwo.curve(Tones.median(b, count)) * toneTwo.factor(x, y)
        - toneOne.curve(Tones.median(a, count)) * toneOne.factor(x, y));
  }

  private static float[] smooth(float[] differences, int across, int down) {
    float[] sizes = new float[differences.length];
    int known = 0;
    for (float d : differences) {
      if (!Float.isNaN(d)) {
        sizes[known++] = Math.abs(d);
      }
    }
    if (known == 0) {
      return new float[differences.length];
    }
    float limit = (float) (CHANGED * Tones.median(sizes, known));
    float[] kept = differences.clone();
    for (int i = 0; i < kept.length; i++) {
      kept[i] = Math.abs(kept[i]) > limit ? Float.NaN : kept[i];
    }
    float[] near = blurred(kept, across, down, NEAR);
    float[] far = blurred(kept, across, down, FAR);
    for (int i = 0; i < near.length; i++) {
      near[i] = !Float.isNaN(near[i]) ? near[i] : Float.isNaN(far[i]) ? 0 : far[i];
    }
    return near;
  }

  /** Weighted means of what is known about each block; NaN where nothing is near. */
  private static float[] blurred(float[] values, int across, int down, double sigma) {
    int reach = (int) Math.ceil(2.5 * sigma);
    double[] weights = new double[reach + 1];
    Arrays.setAll(weights, k -> Math.exp(-0.5 * k * k / (sigma * sigma)));
    double[] sums = new double[values.length];
    double[] norms = new double[values.length];
    for (int i = 0; i < values.length; i++) {
      int row = i / across;
      for (int x = Math.max(0, i % across - reach);
          x <= Math.min(across - 1, i % across + reach);
          x++) {
        float v = values[row * across + x];
        if (!Float.isNaN(v)) {
          double w = weights[Math.abs(x - i % across)];
          sums[i] += w * v;
          norms[i] += w;
        }
      }
    }
    float[] out = new float[values.length];
    for (int i = 0; i < values.length; i++) {
      double sum = 0;
      double norm = 0;
      int y = i / across;
      for (int row = Math.max(0, y - reach); row <= Math.min(down - 1, y + reach); row++) {
        double w = weights[Math.abs(row - y)];
        sum += w * sums[row * across + i % across];
        norm += w * norms[row * across + i % across];
      }
      out[i] = norm > 0.3 ? (float) (sum / norm) : Float.NaN;
    }
    return out;
  }

  /**
   * How much brighter the second scene is than the first about a place.
   *
   * @param x in pixels of the overview, centres at .5
   */
  double between(int one, int two, int band, double x, double y) {
    if (one > two) {
      return -between(two, one, band, x, y);
    }
    Lattice[] bands = byPair.get(key(one, two));
    if (bands == null) {
      return 0;
    }
    Lattice lattice = bands[band];
    double u = (x - lattice.common.x()) / side - 0.5;
    double v = (y - lattice.common.y()) / side - 0.5;
    u = Math.max(0, Math.min(lattice.across - 1.0, u));
    v = Math.max(0, Math.min(lattice.down - 1.0, v));
    int left = Math.min((int) u, Math.max(0, lattice.across - 2));
    int top = Math.min((int) v, Math.max(0, lattice.down - 2));
    int right = Math.min(left + 1, lattice.across - 1);
    int bottom = Math.min(top + 1, lattice.down - 1);
    double fx = u - left;
    double fy = v - top;
    float[] of = lattice.of;
    double above =
        of[top * lattice.across + left] * (1 - fx) + of[top * lattice.across + right] * fx;
    double below =
        of[bottom * lattice.across + left] * (1 - fx) + of[bottom * lattice.across + right] * fx;
    return above * (1 - fy) + below * fy;
  }
}
