package sharpkestrel.segment.regions;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import sharpkestrel.raster.DisjointSets;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.raster.Window;

/**
 * Catchment basins of the gradient (Vincent and Soille 1991, IEEE Trans. PAMI 13(6), 583-598): every pixel drains to its
 * lowest neighbour of eight, plains by the order of their pixels, so that each basin is what drains to one lowest pixel.
 * Basins are joined across their passes, the lowest pass first, while the shallower of the two is less deep under the pass
 * than a set depth (Grimaud 1992, Proc. SPIE 1769, 292-305: dynamics).
 *
 * <p>Where a pixel drains to is known from its neighbours alone, and basins are joined by numbers: strips do not show.
 */
final class Watershed {

  private static final int STRIP = 256;

  /** Rows that are seen above a strip. */
  private static final int BEFORE = 2;

  private final FeatureSpace space;
  private final Grid grid;
  private final int width;
  /** For each number the least gradient of its pixels. */
  private float[] lows = new float[1024];

  private Watershed(FeatureSpace space, Grid grid) {
    this.space = space;
    this.grid = grid;
    width = grid.width();
  }

  /**
   * @param labels (output) 1 to the returned count; 0 for no-data
   * @param depth in units of the feature space: one is a step of a tenth of the light from a pixel to the next
   */
  static int make(FeatureSpace space, double depth, ScratchLabels labels, Job job) {
    return new Watershed(space, labels.grid()).run(depth, labels, job);
  }

  private int run(double depth, ScratchLabels labels, Job job) {
    DisjointSets sets = new DisjointSets(1);
    Map<Long, Float> passes = new HashMap<>();
    int strips = Math.ceilDiv(grid.height(), STRIP);
    int[] above = new int[width];
    for (int s = 0; s < strips; s++) {
      Window rows = new Window(0, s * STRIP, width, STRIP).intersect(grid.window());
      // two rows more above and one below, to see where the outermost pixels of this strip and the
      // one before drain to
      Window more = new Window(0, rows.y() - BEFORE, width, rows.height() + BEFORE + 1);
      float[] gradient = gradient(more, job);
      int[] numbers = new int[more.area()];
      System.arraycopy(above, 0, numbers, (BEFORE - 1) * width, width);
      drain(gradient, rows.height(), numbers, sets);
      passes(gradient, rows.height(), numbers, passes);
      int[] inside = Arrays.copyOfRange(numbers, BEFORE * width, BEFORE * width + rows.area());
      labels.write(rows, inside);
      System.arraycopy(inside, inside.length - width, above, 0, width);
      job.progress("Draining", s + 1, strips);
    }
    unite(depth, sets, passes);
    return Pieces.renumber(labels, sets, job);
  }

  /** Length of the gradient by central differences over all spectral coordinates; NaN for no-data. */
  private float[] gradient(Window window, Job job) {
    Window wide = window.grown(1);
    float[] features = space.readSpectral(wide, job.request());
    int d = space.spectralDimensions();
    float[] gradient = new float[window.area()];
    for (int y = 0; y < window.height(); y++) {
      for (int x = 0; x < width; x++) {
        int i = (y + 1) * wide.width() + x + 1;
        if (Float.isNaN(features[i * d])) {
          gradient[y * width + x] = Float.NaN;
          continue;
        }
        gradient[y * width + x] = (float) Math.sqrt(square(features, i, i - 1, i + 1, d)
            + square(features, i, i - wide.width(), i + wide.width(), d));
      }
    }
    return gradient;
  }

  /** Squared half difference; one side alone counts where the other has no data. */
  private static float square(float[] features, int middle, int before, int after, int d) {
    int a = Float.isNaN(features[before * d]) ? middle : before;
    int b = Float.isNaN(features[after * d]) ? middle : after;
    float scale = a == middle || b == middle ? 1 : 0.25f;
    float sum = 0;
    for (int k = 0; k < d; k++) {
      float v = features[a * d + k] - features[b * d + k];
      sum += v * v;
    }
    return sum * scale;
  }

  /**
   * Numbers what drains to one lowest pixel.
   *
   * @param gradient of the strip's rows, two more above and one below
   * @param numbers (modified) of those rows; the one above the strip has those of the strip before
   */
  private void drain(float[] gradient, int height, int[] numbers, DisjointSets sets) {
    int from = BEFORE * width;
    int to = from + height * width;
    int rows = height + BEFORE + 1;
    DisjointSets local = new DisjointSets(to);
    for (int i = from; i < to; i++) {
      int target = target(gradient, i, rows);
      if (target >= from && target < to) {
        local.unite(i, target);
      }
    }
    for (int i = from; i < to; i++) {
      if (Float.isNaN(gradient[i])) {
        continue;
      }
      int root = local.root(i);
      if (numbers[root] == 0) {
        numbers[root] = sets.add();
        lows = numbers[root] >= lows.length ? Arrays.copyOf(lows, 2 * lows.length) : lows;
        lows[numbers[root]] = Float.POSITIVE_INFINITY;
      }
      numbers[i] = numbers[root];
      lows[numbers[i]] = Math.min(lows[numbers[i]], gradient[i]);
    }
    // what drains over the line between the strip before and this one, in either direction
    for (int i = from - width; i < from + width; i++) {
      int target = target(gradient, i, rows);
      if (target < from != i < from && numbers[i] != 0 && numbers[target] != 0) {
        sets.unite(numbers[i], numbers[target]);
      }
    }
  }

  /** The lowest of a pixel and its neighbours, ties to the first in the scene; itself where it is the lowest. */
  private int target(float[] gradient, int i, int height) {
    int x = i % width;
    int y = i / width;
    int best = i;
    for (int dy = -1; dy <= 1; dy++) {
      for (int dx = -1; dx <= 1; dx++) {
        int u = x + dx;
        int v = y + dy;
        if (u < 0 || u >= width || v < 0 || v >= height) {
          continue;
        }
        int k = v * width + u;
        if (gradient[k] < gradient[best] || gradient[k] == gradient[best] && k < best) {
          best = k;
        }
      }
    }
    return best;
  }

  /** The lowest pass between each two basins that touch; a pass is as high as the higher of its two pixels. */
  private void passes(float[] gradient, int height, int[] numbers, Map<Long, Float> passes) {
    for (int i = BEFORE * width; i < (BEFORE + height) * width; i++) {
      if (i % width > 0) {
        pass(numbers[i], numbers[i - 1], gradient[i], gradient[i - 1], passes);
      }
      pass(numbers[i], numbers[i - width], gradient[i], gradient[i - width], passes);
    }
  }

  private static void pass(int a, int b, float ga, float gb, Map<Long, Float> passes) {
    if (a == b || a == 0 || b == 0) {
      return;
    }
    passes.merge((long) Math.min(a, b) << 32 | Math.max(a, b), Math.max(ga, gb), Math::min);
  }

  private void unite(double depth, DisjointSets sets, Map<Long, Float> passes) {
    for (int i = 1; i < sets.size(); i++) {
      int root = sets.root(i);
      lows[root] = Math.min(lows[root], lows[i]);
    }
    List<Map.Entry<Long, Float>> ordered = new ArrayList<>(passes.entrySet());
    ordered.sort(Map.Entry.<Long, Float>comparingByValue().thenComparing(Map.Entry::getKey));
    for (var entry : ordered) {
      int a = sets.root((int) (entry.getKey() >>> 32));
      int b = sets.root((int) (long) entry.getKey());
      if (a != b && entry.getValue() - Math.max(lows[a], lows[b]) < depth) {
        float low = Math.min(lows[a], lows[b]);
        lows[sets.unite(a, b)] = low;
      }
    }
  }
}
