package sharpkestrel.segment.regions;

import java.util.Arrays;
import sharpkestrel.raster.DisjointSets;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.raster.Window;

/**
 * Graph-based regions (Felzenszwalb and Huttenlocher 2004, Int. J. Computer Vision 59(2), 167-181): edges between
 * neighbours of eight, the weakest first, join two regions where the edge is no stronger than the strongest within either
 * plus {@code scale} over its size. The scene is smoothed by a Gaussian before, as there: without that the noise of single
 * pixels is the strongest edge within, and what the scale does depends on chance. Regions of a size and less then join
 * across the weakest edge they have. Edges are ordered by their strength in {@value #STEPS} steps, ties by their place.
 *
 * <p>The order is one of the whole scene, so all of its edges are in memory: {@value #BYTES} bytes a pixel.
 */
final class GraphRegions {

  private static final int STEPS = 1 << 16;
  private static final float PER_UNIT = 256;
  private static final int BYTES = 40;
  private static final int STRIP = 256;

  /** Columns and rows to the neighbours that a pixel has edges to; the other four have edges to it. */
  private static final int[][] NEIGHBOURS = {{1, 0}, {0, 1}, {1, 1}, {-1, 1}};

  private static final int EDGES = NEIGHBOURS.length;

  private GraphRegions() {}

  /**
   * @param scale in units of the feature space times pixels; larger ones prefer larger regions
   * @param smoothing standard deviation of the Gaussian in pixels
   * @param least regions of so many pixels and less are joined to a neighbour
   * @param labels (output) 1 to the returned count in order of each region's first pixel; 0 for no-data
   */
  static int make(
      FeatureSpace space,
      double scale,
      double smoothing,
      int least,
      ScratchLabels labels,
      Job job) {
    Grid grid = labels.grid();
    long pixels = grid.pixels();
    long room = Runtime.getRuntime().maxMemory();
    if (pixels * BYTES > room / 4 * 3 || EDGES * pixels > Integer.MAX_VALUE - 16) {
      throw new RasterException(String.format(
          java.util.Locale.ROOT,
          "Graph-based regions need %.1f GiB for a scene of %d x %d pixels, and there are %.1f. Clip the scene, give more"
              + " (KESTREL_HEAP=...), or choose another method: the merge tree works in blocks.",
          pixels * (double) BYTES / (1 << 30),
          grid.width(),
          grid.height(),
          room / (double) (1 << 30)));
    }
    int width = grid.width();
    int n = (int) pixels;
    // edge EDGES i + k goes from pixel i to its k-th neighbour
    short[] strengths = strengths(space, new Smoothing(smoothing), grid, job);
    int[] order = ordered(strengths);
    DisjointSets sets = new DisjointSets(n);
    int[] size = new int[n];
    Arrays.fill(size, 1);
    float[] within = new float[n];
    for (int pass = 0; pass < (least > 0 ? 2 : 1); pass++) {
      for (int k = 0; k < order.length; k++) {
        if ((k & 0xfffff) == 0) {
          job.cancellation().check();
          job.progress("Joining", k + (long) pass * order.length, 2L * order.length);
        }
        int edge = order[k];
        int[] step = NEIGHBOURS[edge % EDGES];
        int a = sets.root(edge / EDGES);
        int b = sets.root(edge / EDGES + step[0] + step[1] * width);
        if (a == b) {
          continue;
        }
        float strength = (strengths[edge] & 0xffff) / PER_UNIT;
        boolean joins = pass == 0
            ? strength <= within[a] + scale / size[a] && strength <= within[b] + scale / size[b]
            : size[a] <= least || size[b] <= least;
        if (joins) {
          int total = size[a] + size[b];
          int root = sets.unite(a, b);
          size[root] = total;
          within[root] = strength;
        }
      }
    }
    int regions = number(space, sets, labels, job);
    // what hung together by a corner alone
    return least > 0 ? SmallRegions.join(labels, regions, least, job) : regions;
  }

  private static int number(FeatureSpace space, DisjointSets sets, ScratchLabels labels, Job job) {
    Grid grid = labels.grid();
    int width = grid.width();
    int d = space.bands();
    float[][] features = new float[1][];
    return Pieces.of(labels, job, (y, flags) -> {
      if (y % STRIP == 0) {
        features[0] = space.readValues(
            new Window(0, y, width, STRIP).intersect(grid.window()), job.request());
      }
      for (int x = 0; x < width; x++) {
        int i = y * width + x;
        flags[x] = (byte)
            (Float.isNaN(features[0][(y % STRIP * width + x) * d])
                ? 0
                : Pieces.VALID
                    | (x > 0 && sets.root(i) == sets.root(i - 1) ? Pieces.LEFT : 0)
                    | (y > 0 && sets.root(i) == sets.root(i - width) ? Pieces.UP : 0));
      }
    });
  }

  /** Strengths in steps; the highest number for an edge that does not exist. */
  private static short[] strengths(FeatureSpace space, Smoothing smoothing, Grid grid, Job job) {
    int width = grid.width();
    int d = space.bands();
    short[] strengths = new short[EDGES * width * grid.height()];
    for (int top = 0; top < grid.height(); top += STRIP) {
      job.cancellation().check();
      Window rows = new Window(0, top, width, STRIP).intersect(grid.window());
      int above = smoothing.reach();
      Window more = new Window(0, top - above, width, rows.height() + 1 + 2 * above);
      float[] f = smoothing.of(space.readValues(more, job.request()), width, d);
      for (int i = 0; i < rows.area(); i++) {
        for (int k = 0; k < EDGES; k++) {
          int[] step = NEIGHBOURS[k];
          int column = i % width + step[0];
          int at = i + above * width;
          strengths[EDGES * (top * width + i) + k] = column < 0 || column >= width
              ? (short) (STEPS - 1)
              : strength(f, at, at + step[0] + step[1] * width, d);
        }
      }
    }
    return strengths;
  }

  private static short strength(float[] f, int a, int b, int d) {
    float square = 0;
    for (int k = 0; k < d; k++) {
      float v = f[a * d + k] - f[b * d + k];
      square += v * v;
    }
    float steps = (float) Math.sqrt(square) * PER_UNIT;
    return (short) (steps < STEPS - 2 ? (int) steps : Float.isNaN(steps) ? STEPS - 1 : STEPS - 2);
  }

  /** Edges that exist by counting sort. */
  private static int[] ordered(short[] strengths) {
    int[] starts = new int[STEPS + 1];
    for (short strength : strengths) {
      starts[(strength & 0xffff) + 1]++;
    }
    int existing = strengths.length - starts[STEPS];
    for (int s = 1; s <= STEPS; s++) {
      starts[s] += starts[s - 1];
    }
    int[] order = new int[existing];
    for (int edge = 0; edge < strengths.length; edge++) {
      int strength = strengths[edge] & 0xffff;
      if (strength != STEPS - 1) {
        order[starts[strength]++] = edge;
      }
    }
    return order;
  }
}
