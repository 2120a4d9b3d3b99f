package sharpkestrel.segment;

import java.util.Arrays;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Window;

/**
 * Superpixels and which touch which: pixel counts, sums in the feature space, and for each pair of neighbours the
 * length of their common border in pixel sides. Gathered in fixed strips of rows whose results are joined in order,
 * so that sums do not depend on threads.
 */
final class RegionGraph {

  private static final int STRIP = 256;

  final int regions;
  final int dimensions;
  final int[] counts;
  final float[] sums;
  final int edges;
  final int[] from;
  final int[] to;
  final float[] lengths;

  private RegionGraph(
      int regions, int dimensions, int[] counts, float[] sums, long[] pairs, int[] sides) {
    this.regions = regions;
    this.dimensions = dimensions;
    this.counts = counts;
    this.sums = sums;
    this.edges = pairs.length;
    from = new int[edges];
    to = new int[edges];
    lengths = new float[edges];
    for (int e = 0; e < edges; e++) {
      from[e] = (int) (pairs[e] >>> 32);
      to[e] = (int) pairs[e];
      lengths[e] = sides[e];
    }
  }

  private record Strip(int first, int[] counts, double[] sums, Pairs pairs) {}

  /** Neighbours, lower number in the upper half of the key, and the pixel sides between them. */
  private record Pairs(long[] keys, int[] sides) {}

  /**
   * A few strips at a time, so that what they hold beside their pairs does not pile up: gathering takes no more memory
   * than merging does, under 200 bytes a superpixel.
   */
  static RegionGraph of(FeatureSpace space, LabelRaster labels, int regions, Job job) {
    int strips = Math.ceilDiv(labels.grid().height(), STRIP);
    int n = space.dimensions();
    Pairs[] pairs = new Pairs[strips];
    int[] counts = new int[regions];
    double[] exact = new double[regions * n];
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
          exact[strip.first * n + k] += strip.sums[k];
        }
      }
      job.progress("Joining neighbours", start + done.length, strips);
    }
    float[] sums = new float[exact.length];
    for (int k = 0; k < sums.length; k++) {
      sums[k] = (float) exact[k];
    }
    exact = null;
    return joined(regions, n, counts, sums, pairs);
  }

  private static RegionGraph joined(
      int regions, int n, int[] counts, float[] sums, Pairs[] strips) {
    int total = 0;
    for (Pairs strip : strips) {
      total += strip.keys.length;
    }
    // A pair met in two strips appears twice; pairs are ordered by key, and equal keys summed.
    long[] keys = new long[total];
    int at = 0;
    for (Pairs strip : strips) {
      System.arraycopy(strip.keys, 0, keys, at, strip.keys.length);
      at += strip.keys.length;
    }
    Arrays.sort(keys);
    int unique = 0;
    for (int i = 0; i < keys.length; i++) {
      if (i == 0 || keys[i] != keys[i - 1]) {
        keys[unique++] = keys[i];
      }
    }
    keys = Arrays.copyOf(keys, unique);
    int[] sides = new int[unique];
    for (Pairs strip : strips) {
      for (int i = 0; i < strip.keys.length; i++) {
        sides[Arrays.binarySearch(keys, strip.keys[i])] += strip.sides[i];
      }
    }
    return new RegionGraph(regions, n, counts, sums, keys, sides);
  }

  private static Strip strip(FeatureSpace space, LabelRaster labels, int index, Job job) {
    Grid grid = labels.grid();
    int width = grid.width();
    Window rows = new Window(0, index * STRIP, width, STRIP).intersect(grid.window());
    Window more = new Window(0, rows.y(), width, rows.height() + 1);
    int[] label = new int[more.area()];
    labels.read(more, label);
    float[] features = space.read(rows, job.request());
    int n = space.dimensions();
    int low = Integer.MAX_VALUE;
    int high = 0;
    for (int i = 0; i < rows.area(); i++) {
      if (label[i] > 0) {
        low = Math.min(low, label[i]);
        high = Math.max(high, label[i]);
      }
    }
    if (high == 0) {
      return new Strip(0, new int[0], new double[0], new Pairs(new long[0], new int[0]));
    }
    int[] counts = new int[high - low + 1];
    double[] sums = new double[counts.length * n];
    long[] raw = new long[rows.area() / 2 + 1024];
    int pairs = 0;
    for (int y = 0; y < rows.height(); y++) {
      if (pairs + 2 * width > raw.length) {
        raw = Arrays.copyOf(raw, 2 * raw.length + 2 * width);
      }
      for (int x = 0; x < width; x++) {
        int i = y * width + x;
        int a = label[i];
        if (a == 0) {
          continue;
        }
        int slot = a - low;
        counts[slot]++;
        for (int k = 0; k < n; k++) {
          sums[slot * n + k] += features[i * n + k];
        }
        int right = x + 1 < width ? label[i + 1] : 0;
        int below = label[i + width];
        if (right != a && right != 0) {
          raw[pairs++] = pair(a, right);
        }
        if (below != a && below != 0) {
          raw[pairs++] = pair(a, below);
        }
      }
    }
    Arrays.sort(raw, 0, pairs);
    long[] keys = new long[pairs];
    int[] sides = new int[pairs];
    int unique = 0;
    for (int i = 0; i < pairs; i++) {
      if (unique == 0 || keys[unique - 1] != raw[i]) {
        keys[unique++] = raw[i];
      }
      sides[unique - 1]++;
    }
    return new Strip(
        low - 1,
        counts,
        sums,
        new Pairs(Arrays.copyOf(keys, unique), Arrays.copyOf(sides, unique)));
  }

  /** Two labels as one number, regions counted from 0. */
  private static long pair(int a, int b) {
    int low = Math.min(a, b) - 1;
    int high = Math.max(a, b) - 1;
    return (long) low << 32 | high;
  }
}
