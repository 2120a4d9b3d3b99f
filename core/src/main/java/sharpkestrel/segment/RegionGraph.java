package sharpkestrel.segment;

import java.util.List;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.PairTable;
import sharpkestrel.raster.PairTable.Pairs;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Window;
import sharpkestrel.segment.regions.FeatureSpace;

/**
 * Regions and which touch which. Of each region its pixels, its mean in the feature space, its variance in each part of
 * the space, its middle and its second moments on the ground; of each pair of neighbours the length of their common
 * border in pixel sides and how sharp it is. Gathered in fixed strips of rows whose results are joined in order, so that
 * sums do not depend on threads.
 */
final class RegionGraph {

  private static final int STRIP = 64;

  /** Numbers that tell a region's form: the middle's column and row, then the central second moments xx, xy, yy. */
  static final int FORM = 5;

  final int regions;
  final int dimensions;
  final List<FeatureSpace.Part> parts;

  final int[] counts;

  /** Numbers that are kept of a region: its means, from {@link #variance} its variances, from {@link #form} its form. */
  final int stride;

  /** For each part of the space the mean squared distance of its pixels from their mean. */
  final int variance;

  /** {@link #FORM} numbers. */
  final int form;

  /** Region by region, {@link #stride} each: what a cost needs of a region lies together. */
  final float[] numbers;

  final int edges;

  /**
   * Edge by edge for both ends, the lower one first: the region there, and room for the next half-edge in a list of the
   * region's.
   */
  final int[] halves;

  /** Edge by edge its length, and for each part the distance across the border summed over its sides. */
  final float[] borders;

  private RegionGraph(
      int dimensions, List<FeatureSpace.Part> parts, int[] counts, double[] sums, Pairs pairs) {
    regions = counts.length;
    this.dimensions = dimensions;
    this.parts = parts;
    this.counts = counts;
    int p = parts.size();
    variance = dimensions;
    form = dimensions + p;
    stride = form + FORM;
    numbers = new float[regions * stride];
    for (int i = 0; i < regions; i++) {
      double n = Math.max(1, counts[i]);
      int at = i * stride;
      for (int k = 0; k < dimensions; k++) {
        numbers[at + k] = (float) (sums[at + k] / n);
      }
      for (int q = 0; q < p; q++) {
        double spread = sums[at + variance + q] / n;
        for (int k = parts.get(q).from(); k < parts.get(q).to(); k++) {
          spread -= sums[at + k] / n * (sums[at + k] / n);
        }
        numbers[at + variance + q] = (float) Math.max(0, spread);
      }
      int to = at + form;
      double x = sums[to] / n;
      double y = sums[to + 1] / n;
      numbers[to] = (float) x;
      numbers[to + 1] = (float) y;
      // a pixel is a square, not a point
      numbers[to + 2] = (float) (sums[to + 2] / n - x * x + 1.0 / 12);
      numbers[to + 3] = (float) (sums[to + 3] / n - x * y);
      numbers[to + 4] = (float) (sums[to + 4] / n - y * y + 1.0 / 12);
    }
    edges = pairs.keys().length;
    halves = new int[4 * edges];
    borders = new float[edges * (1 + p)];
    for (int e = 0; e < edges; e++) {
      halves[4 * e] = (int) (pairs.keys()[e] >>> 32);
      halves[4 * e + 2] = (int) pairs.keys()[e];
      borders[e * (1 + p)] = pairs.sides()[e];
      System.arraycopy(pairs.contrasts(), e * p, borders, e * (1 + p) + 1, p);
    }
  }

  private RegionGraph(RegionGraph other) {
    regions = other.regions;
    dimensions = other.dimensions;
    parts = other.parts;
    counts = other.counts.clone();
    stride = other.stride;
    variance = other.variance;
    form = other.form;
    numbers = other.numbers.clone();
    edges = other.edges;
    halves = other.halves.clone();
    borders = other.borders.clone();
  }

  /** The same, to be merged on its own. */
  RegionGraph copy() {
    return new RegionGraph(this);
  }

  /** For each region the first edge of which it is the lower end, as edges come in the order of their ends; then all. */
  int[] firstEdges() {
    int[] first = new int[regions + 1];
    for (int e = 0; e < edges; e++) {
      first[halves[4 * e] + 1]++;
    }
    for (int i = 0; i < regions; i++) {
      first[i + 1] += first[i];
    }
    return first;
  }

  /**
   * The edge between two neighbours.
   *
   * @param first as of {@link #firstEdges}
   */
  int edge(int a, int b, int[] first) {
    int high = Math.max(a, b);
    int from = first[Math.min(a, b)];
    int to = first[Math.min(a, b) + 1] - 1;
    while (from < to) {
      int middle = (from + to) >>> 1;
      if (halves[4 * middle + 2] < high) {
        from = middle + 1;
      } else {
        to = middle;
      }
    }
    return from;
  }

  private static int sumsOf(int dimensions, int parts) {
    return dimensions + parts + FORM;
  }

  /**
   * @param first the lowest region in the strip
   * @param sums of each from there on: coordinates, squares by part, columns, rows, and their products
   */
  private record Strip(int first, int[] counts, double[] sums, Pairs pairs) {}

  /**
   * A few strips at a time, so that what they hold beside their pairs does not pile up: gathering takes no more memory
   * than merging does.
   *
   * @param labels 1 to {@code regions}
   */
  static RegionGraph of(FeatureSpace space, LabelRaster labels, int regions, Job job) {
    int strips = Math.ceilDiv(labels.grid().height(), STRIP);
    int width = sumsOf(space.dimensions(), space.parts().size());
    Pairs[] pairs = new Pairs[strips];
    int[] counts = new int[regions];
    double[] sums = new double[regions * width];
    int batch = Math.max(1, 2 * job.threads());
    for (int start = 0; start < strips; start += batch) {
      int base = start;
      Strip[] done = new Strip[Math.min(batch, strips - start)];
      Parallel.run(done.length, job, i -> done[i] = strip(space, labels, base + i, job));
      for (int i = 0; i < done.length; i++) {
        Strip strip = done[i];
        pairs[base + i] = strip.pairs;
        for (int k = 0; k < strip.counts.length; k++) {
          counts[strip.first + k] += strip.counts[k];
        }
        for (int k = 0; k < strip.sums.length; k++) {
          sums[strip.first * width + k] += strip.sums[k];
        }
      }
      job.progress("Joining neighbours", start + done.length, strips);
    }
    return new RegionGraph(
        space.dimensions(),
        space.parts(),
        counts,
        sums,
        PairTable.joined(pairs, space.parts().size()));
  }

  private static Strip strip(FeatureSpace space, LabelRaster labels, int index, Job job) {
    Grid grid = labels.grid();
    int width = grid.width();
    Window rows = new Window(0, index * STRIP, width, STRIP).intersect(grid.window());
    // one row before and two after: a border's contrast is taken one pixel behind it on both sides
    Window more = new Window(0, rows.y() - 1, width, rows.height() + 3);
    int[] label = new int[more.area()];
    labels.read(more, label);
    int low = Integer.MAX_VALUE;
    int high = 0;
    for (int i = width; i < width + rows.area(); i++) {
      if (label[i] > 0) {
        low = Math.min(low, label[i]);
        high = Math.max(high, label[i]);
      }
    }
    int p = space.parts().size();
    if (high == 0) {
      return new Strip(
          0, new int[0], new double[0], new Pairs(new long[0], new int[0], new float[0]));
    }
    float[] features = space.read(more, job.request());
    int n = space.dimensions();
    int of = sumsOf(n, p);
    int[] counts = new int[high - low + 1];
    double[] sums = new double[counts.length * of];
    PairTable pairs = new PairTable(p);
    float[] contrast = new float[p];
    for (int y = 0; y < rows.height(); y++) {
      double row = rows.y() + y;
      for (int x = 0; x < width; x++) {
        int i = (y + 1) * width + x;
        int a = label[i];
        if (a == 0) {
          continue;
        }
        counts[a - low]++;
        add(space.parts(), features, i * n, n, x, row, sums, (a - low) * of);
        int right = x + 1 < width ? label[i + 1] : 0;
        if (right != a && right != 0) {
          int before = x > 0 && label[i - 1] != 0 ? i - 1 : i;
          int after = x + 2 < width && label[i + 2] != 0 ? i + 2 : i + 1;
          across(space.parts(), features, n, before, after, contrast);
          pairs.add(pair(a, right), contrast);
        }
        int below = label[i + width];
        if (below != a && below != 0) {
          int before = label[i - width] != 0 ? i - width : i;
          int after = label[i + 2 * width] != 0 ? i + 2 * width : i + width;
          across(space.parts(), features, n, before, after, contrast);
          pairs.add(pair(a, below), contrast);
        }
      }
    }
    return new Strip(low - 1, counts, sums, pairs.sorted());
  }

  private static void add(
      List<FeatureSpace.Part> parts,
      float[] features,
      int from,
      int n,
      double x,
      double y,
      double[] sums,
      int to) {
    for (int k = 0; k < n; k++) {
      sums[to + k] += features[from + k];
    }
    int at = to + n;
    for (int q = 0; q < parts.size(); q++) {
      float square = 0;
      for (int k = parts.get(q).from(); k < parts.get(q).to(); k++) {
        square += features[from + k] * features[from + k];
      }
      sums[at++] += square;
    }
    sums[at] += x;
    sums[at + 1] += y;
    sums[at + 2] += x * x;
    sums[at + 3] += x * y;
    sums[at + 4] += y * y;
  }

  private static void across(
      List<FeatureSpace.Part> parts, float[] features, int n, int a, int b, float[] contrast) {
    for (int q = 0; q < contrast.length; q++) {
      float square = 0;
      for (int k = parts.get(q).from(); k < parts.get(q).to(); k++) {
        float d = features[a * n + k] - features[b * n + k];
        square += d * d;
      }
      contrast[q] = (float) Math.sqrt(square);
    }
  }

  /** Two labels as one number, regions counted from 0. */
  private static long pair(int a, int b) {
    int low = Math.min(a, b) - 1;
    int high = Math.max(a, b) - 1;
    return (long) low << 32 | high;
  }
}
