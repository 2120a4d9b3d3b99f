package sharpkestrel.place.mosaic;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.stream.IntStream;
import sharpkestrel.raster.Bilinear;
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
    Levels levels = new Levels(overview, Tones.side(Tones.BLOCK, metres));
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
    Overview.Blocks blocks = overview.blocks(one, two, side);
    if (IntStream.range(0, blocks.count()).noneMatch(blocks::isKnown)) {
      return;
    }
    Lattice[] bands = new Lattice[overview.bands()];
    for (int b = 0; b < bands.length; b++) {
      float[] differences = new float[blocks.count()];
      for (int k = 0; k < differences.length; k++) {
        differences[k] = blocks.isKnown(k)
            ? (float) (toned(tones[two][b], blocks, blocks.ofTwo()[b], k)
                - toned(tones[one][b], blocks, blocks.ofOne()[b], k))
            : Float.NaN;
      }
      bands[b] = new Lattice(
          overview.common(one, two),
          blocks.across(),
          blocks.down(),
          smooth(differences, blocks.across(), blocks.down()));
    }
    byPair.put(key(one, two), bands);
  }

  private static double toned(Tone tone, Overview.Blocks blocks, float[] of, int k) {
    return tone.curve(of[k]) * tone.factor(blocks.x()[k], blocks.y()[k]);
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
    return Bilinear.held(
        lattice.of,
        lattice.across,
        lattice.down,
        (x - lattice.common.x()) / side,
        (y - lattice.common.y()) / side);
  }
}
