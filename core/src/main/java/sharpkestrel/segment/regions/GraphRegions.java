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
 * neighbours of four, the weakest first, join two regions where the edge is no stronger than the strongest within either
 * plus {@code scale} over its size. Edges are ordered by their strength in {@value #STEPS} steps, ties by their place.
 *
 * <p>The order is one of the whole scene, so all of its edges are in memory: {@value #BYTES} bytes a pixel.
 */
final class GraphRegions {

  private static final int STEPS = 1 << 16;
  private static final float PER_UNIT = 256;
  private static final int BYTES = 24;
  private static final int STRIP = 256;

  private GraphRegions() {}

  /**
   * @param scale in units of the feature space times pixels; larger ones prefer larger regions
   * @param least regions of so many pixels and less are joined to a neighbour
   * @param labels (output) 1 to the returned count in order of each region's first pixel; 0 for no-data
   */
  static int make(FeatureSpace space, double scale, int least, ScratchLabels labels, Job job) {
    Grid grid = labels.grid();
    long pixels = grid.pixels();
    long room = Runtime.getRuntime().maxMemory();
    if (pixels * BYTES > room / 4 * 3 || 2 * pixels > Integer.MAX_VALUE - 16) {
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
    // edge 2i goes right from pixel i, edge 2i+1 down
    short[] strengths = strengths(space, grid, job);
    int[] order = ordered(strengths, n);
    DisjointSets sets = new DisjointSets(n);
    int[] size = new int[n];
    Arrays.fill(size, 1);
    float[] within = new float[n];
    for (int k = 0; k < order.length; k++) {
      if ((k & 0xfffff) == 0) {
        job.cancellation().check();
        job.progress("Joining", k, order.length);
      }
      int edge = order[k];
      int a = sets.root(edge >> 1);
      int b = sets.root((edge >> 1) + ((edge & 1) == 0 ? 1 : width));
      if (a == b) {
        continue;
      }
      float strength = (strengths[edge] & 0xffff) / PER_UNIT;
      if (strength <= within[a] + scale / size[a] && strength <= within[b] + scale / size[b]) {
        int total = size[a] + size[b];
        int root = sets.unite(a, b);
        size[root] = total;
        within[root] = strength;
      }
    }
    return SmallRegions.join(labels, number(space, sets, labels, job), least, job);
  }

  private static int number(FeatureSpace space, DisjointSets sets, ScratchLabels labels, Job job) {
    Grid grid = labels.grid();
    int width = grid.width();
    int d = space.spectralDimensions();
    float[][] features = new float[1][];
    return Pieces.of(labels, job, (y, flags) -> {
      if (y % STRIP == 0) {
        features[0] = space.readSpectral(
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
  private static short[] strengths(FeatureSpace space, Grid grid, Job job) {
    int width = grid.width();
    int d = space.spectralDimensions();
    short[] strengths = new short[2 * width * grid.height()];
    for (int top = 0; top < grid.height(); top += STRIP) {
      Window rows = new Window(0, top, width, STRIP).intersect(grid.window());
      float[] f = space.readSpectral(new Window(0, top, width, rows.height() + 1), job.request());
      for (int i = 0; i < rows.area(); i++) {
        int edge = 2 * (top * width + i);
        strengths[edge] = i % width + 1 < width ? strength(f, i, i + 1, d) : (short) (STEPS - 1);
        strengths[edge + 1] = strength(f, i, i + width, d);
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
  private static int[] ordered(short[] strengths, int pixels) {
    int[] starts = new int[STEPS + 1];
    for (short strength : strengths) {
      starts[(strength & 0xffff) + 1]++;
    }
    int existing = 2 * pixels - starts[STEPS];
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
