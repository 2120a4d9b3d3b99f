package sharpkestrel.extract.everysize;

import java.util.Locale;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Heap;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Window;
import sharpkestrel.segment.MergeTree;
import sharpkestrel.segment.regions.FeatureSpace;

/**
 * Sums over the pixels, borders and surroundings of every node of a merge tree.
 *
 * <p>All of them add up: those of a node are those of its two children. What belongs to a border, or to the surroundings, is added to
 * both leaves of a pair of pixels and taken off at the lowest node that holds both, where it is inside. How far a node reaches in each
 * of {@value #DIRECTIONS} directions, from which its hull and its rectangle follow, is the larger of what its children reach. So one
 * pass over the pixels and one up the tree measure all sizes at once.
 */
final class NodeSums {

  private static final int STRIP = 128;

  static final int DIRECTIONS = 32;
  static final int BINS = 12;
  static final int RINGS = 2;

  /** Pixels of the surroundings are looked at every so many columns and rows. */
  private static final int EVERY = 2;

  /** Doubles of a node: pixels, and the sums of column, row and their products. */
  static final int FORM = 6;

  /** Floats of a border. */
  static final int SIDES = 0;

  static final int DIAGONALS = 1;
  static final int LIGHT_STEP = 2;
  static final int COLOUR_STEP = 3;
  static final int AWAY = 4;
  static final int AWAY_OUTSIDE = 5;
  static final int AWAY_INSIDE = 6;
  static final int TOWARDS = 7;
  static final int TOWARDS_OUTSIDE = 8;
  static final int TOWARDS_INSIDE = 9;

  /** Sides between a node and where there is no data, or the edge of the scene. */
  static final int EDGE = 10;

  private static final int BORDER = 11;

  final int dimensions;

  /** Of these the first are light and colours. */
  private final int spectral;

  final int nodes;
  final double[] form;
  final float[] numbers;
  final float[] reach;
  final int stride;

  /** Where in {@link #numbers} sums and squares of each coordinate begin. */
  final int values = 0;

  final int histogram;

  /** Sum of steps of light between neighbours within. */
  final int within;

  final int border;

  /** Coordinates just outside, summed over the border's sides. */
  final int outside;

  /** Of each ring a count and the coordinates' sums. */
  final int rings;

  final int[] ringPixels;
  final float[] binEdges;

  private final MergeTree tree;
  private final CommonAncestors ancestors;
  private final double sunX;
  private final double sunY;
  private int lastA = -1;
  private int lastB = -1;
  private int lastCommon;

  private NodeSums(
      MergeTree tree, FeatureSpace space, float[] binEdges, int[] ringPixels, double sunAzimuth) {
    this.tree = tree;
    dimensions = space.dimensions();
    spectral = space.spectralDimensions();
    this.binEdges = binEdges;
    this.ringPixels = ringPixels;
    boolean sun = !Double.isNaN(sunAzimuth);
    sunX = sun ? Math.sin(Math.toRadians(sunAzimuth)) : 0;
    sunY = sun ? -Math.cos(Math.toRadians(sunAzimuth)) : 0;
    histogram = 2 * dimensions;
    within = histogram + BINS;
    border = within + 1;
    outside = border + BORDER;
    rings = outside + dimensions;
    stride = stride(dimensions);
    nodes = tree.nodes();
    form = new double[nodes * FORM];
    numbers = new float[nodes * stride];
    reach = new float[nodes * DIRECTIONS];
    ancestors = new CommonAncestors(tree);
  }

  /**
   * @param labels the tree's leaves from 1 on; 0 for no data
   * @param ringPixels how far away each ring lies, in pixels
   * @param sunAzimuth degrees clockwise from up the image; NaN where it is not known
   */
  static NodeSums of(
      MergeTree tree,
      LabelRaster labels,
      FeatureSpace space,
      int[] ringPixels,
      double sunAzimuth,
      Job job) {
    checkRoom(tree, space.dimensions());
    NodeSums sums =
        new NodeSums(tree, space, LightBins.of(labels, space, BINS, job), ringPixels, sunAzimuth);
    java.util.Arrays.fill(sums.reach, Float.NEGATIVE_INFINITY);
    sums.gather(labels, space, job);
    sums.sweep();
    return sums;
  }

  private static int stride(int dimensions) {
    return 2 * dimensions + BINS + 1 + BORDER + dimensions + RINGS * (1 + dimensions);
  }

  private static void checkRoom(MergeTree tree, int dimensions) {
    int floats = Math.max(stride(dimensions), DIRECTIONS);
    long bytes = (long) tree.nodes()
        * (Double.BYTES * FORM + Float.BYTES * (stride(dimensions) + DIRECTIONS));
    String what = String.format(Locale.ROOT, "Measuring the %,d nodes of the tree", tree.nodes());
    String advice = "Segment with larger superpixels, or clip a smaller area";
    Heap.check(bytes, what, advice);
    if ((long) tree.nodes() * floats > Integer.MAX_VALUE - 8) {
      throw new RasterException(
          what + " takes more numbers than can be held at once. " + advice + ".");
    }
  }

  /**
   * Strips are read beside each other and added one after another, so that sums do not depend on threads.
   *
   * @param rows with as many more below as a ring is away
   */
  private record Strip(Window rows, int own, int[] labels, float[] values) {}

  private void gather(LabelRaster labels, FeatureSpace space, Job job) {
    Grid grid = labels.grid();
    int strips = Math.ceilDiv(grid.height(), STRIP);
    int margin = Math.max(1, java.util.Arrays.stream(ringPixels).max().orElse(1));
    int batch = Math.max(1, 2 * job.threads());
    for (int start = 0; start < strips; start += batch) {
      int base = start;
      Strip[] read = new Strip[Math.min(batch, strips - start)];
      Parallel.run(read.length, job, i -> {
        int top = (base + i) * STRIP;
        int own = Math.min(STRIP, grid.height() - top);
        Window rows = new Window(0, top, grid.width(), Math.min(own + margin, grid.height() - top));
        int[] label = new int[rows.area()];
        labels.read(rows, label);
        read[i] = new Strip(rows, own, label, space.read(rows, job.request()));
      });
      for (Strip strip : read) {
        add(strip, grid);
      }
      job.progress("Measuring every size", start + read.length, strips);
    }
  }

  private void add(Strip strip, Grid grid) {
    int width = strip.rows.width();
    int height = strip.rows.height();
    int[] label = strip.labels;
    for (int y = 0; y < strip.own; y++) {
      int row = strip.rows.y() + y;
      for (int x = 0; x < width; x++) {
        int i = y * width + x;
        int a = label[i] - 1;
        int right = x + 1 < width ? label[i + 1] - 1 : -1;
        int below = y + 1 < height ? label[i + width] - 1 : -1;
        if (a >= 0) {
          addPixel(a, x, row, strip.values, i);
          if (x == 0) {
            numbers[a * stride + border + EDGE]++;
            numbers[a * stride + border + SIDES]++;
          }
          if (row == 0) {
            numbers[a * stride + border + EDGE]++;
            numbers[a * stride + border + SIDES]++;
          }
        }
        pair(a, right, strip.values, i, i + 1, 1, 0);
        pair(a, below, strip.values, i, i + width, 0, 1);
        if (y + 1 < height && x + 1 < width) {
          diagonal(a, label[i + width + 1] - 1);
          diagonal(right, below);
        }
        if (x % EVERY == 0 && row % EVERY == 0 && a >= 0) {
          for (int ring = 0; ring < RINGS; ring++) {
            int far = ringPixels[ring];
            if (x + far < width) {
              around(a, label[i + far] - 1, strip.values, i, i + far, ring);
            }
            if (y + far < height) {
              around(a, label[i + far * width] - 1, strip.values, i, i + far * width, ring);
            }
          }
        }
      }
    }
  }

  private void addPixel(int leaf, int x, int y, float[] values, int pixel) {
    int f = leaf * FORM;
    form[f]++;
    form[f + 1] += x;
    form[f + 2] += y;
    form[f + 3] += (double) x * x;
    form[f + 4] += (double) x * y;
    form[f + 5] += (double) y * y;
    int at = leaf * stride;
    int from = pixel * dimensions;
    for (int d = 0; d < dimensions; d++) {
      float v = values[from + d];
      numbers[at + 2 * d] += v;
      numbers[at + 2 * d + 1] += v * v;
    }
    numbers[at + histogram + LightBins.bin(binEdges, values[from])]++;
    int r = leaf * DIRECTIONS;
    for (int k = 0; k < DIRECTIONS; k++) {
      // the corner of the pixel that reaches farthest
      float far = COS[k] * (COS[k] > 0 ? x + 1 : x) + SIN[k] * (SIN[k] > 0 ? y + 1 : y);
      reach[r + k] = Math.max(reach[r + k], far);
    }
  }

  private static final float[] COS = new float[DIRECTIONS];
  private static final float[] SIN = new float[DIRECTIONS];

  static {
    for (int k = 0; k < DIRECTIONS; k++) {
      COS[k] = (float) Math.cos(2 * Math.PI * k / DIRECTIONS);
      SIN[k] = (float) Math.sin(2 * Math.PI * k / DIRECTIONS);
    }
  }

  private int common(int a, int b) {
    if (a != lastA || b != lastB) {
      lastA = a;
      lastB = b;
      lastCommon = ancestors.of(a, b);
    }
    return lastCommon;
  }

  /** Two pixels beside each other, in leaves a and b; below 0 for no data. */
  private void pair(int a, int b, float[] values, int i, int j, int stepX, int stepY) {
    if (a < 0 && b < 0) {
      return;
    }
    if (a < 0 || b < 0) {
      int at = Math.max(a, b) * stride + border;
      numbers[at + EDGE]++;
      numbers[at + SIDES]++;
      return;
    }
    float lightA = values[i * dimensions];
    float lightB = values[j * dimensions];
    float step = Math.abs(lightA - lightB);
    if (a == b) {
      numbers[a * stride + within] += step;
      return;
    }
    float colour = 0;
    for (int d = 1; d < spectral; d++) {
      float off = values[i * dimensions + d] - values[j * dimensions + d];
      colour += off * off;
    }
    colour = (float) Math.sqrt(colour);
    int c = common(a, b);
    double towards = stepX * sunX + stepY * sunY;
    side(a * stride, 1, lightA, lightB, step, colour, towards, values, j);
    side(b * stride, 1, lightB, lightA, step, colour, -towards, values, i);
    if (c != CommonAncestors.NONE) {
      side(c * stride, -1, lightA, lightB, step, colour, towards, values, j);
      side(c * stride, -1, lightB, lightA, step, colour, -towards, values, i);
      numbers[c * stride + within] += step;
    }
  }

  private void side(
      int at,
      int sign,
      float inside,
      float beyond,
      float step,
      float colour,
      double towards,
      float[] values,
      int beyondPixel) {
    int b = at + border;
    numbers[b + SIDES] += sign;
    numbers[b + LIGHT_STEP] += sign * step;
    numbers[b + COLOUR_STEP] += sign * colour;
    float share = (float) Math.abs(towards);
    int sunny = b + (towards < 0 ? AWAY : TOWARDS);
    numbers[sunny] += sign * share;
    numbers[sunny + 1] += sign * share * beyond;
    numbers[sunny + 2] += sign * share * inside;
    int from = beyondPixel * dimensions;
    for (int d = 0; d < dimensions; d++) {
      numbers[at + outside + d] += sign * values[from + d];
    }
  }

  private void diagonal(int a, int b) {
    if (a == b) {
      return;
    }
    if (a >= 0) {
      numbers[a * stride + border + DIAGONALS]++;
    }
    if (b >= 0) {
      numbers[b * stride + border + DIAGONALS]++;
    }
    if (a >= 0 && b >= 0) {
      int c = common(a, b);
      if (c != CommonAncestors.NONE) {
        numbers[c * stride + border + DIAGONALS] -= 2;
      }
    }
  }

  private void around(int a, int b, float[] values, int i, int j, int ring) {
    if (a == b || b < 0) {
      return;
    }
    ringed(a, 1, values, j, ring);
    ringed(b, 1, values, i, ring);
    int c = ancestors.of(a, b);
    if (c != CommonAncestors.NONE) {
      ringed(c, -1, values, j, ring);
      ringed(c, -1, values, i, ring);
    }
  }

  private void ringed(int node, int sign, float[] values, int pixel, int ring) {
    int at = node * stride + rings + ring * (1 + dimensions);
    numbers[at] += sign;
    int from = pixel * dimensions;
    for (int d = 0; d < dimensions; d++) {
      numbers[at + 1 + d] += sign * values[from + d];
    }
  }

  /** Adds up the tree: children have lower numbers than their parents. */
  private void sweep() {
    for (int node = 0; node < nodes; node++) {
      int parent = tree.parent(node);
      if (parent < 0) {
        continue;
      }
      for (int k = 0; k < FORM; k++) {
        form[parent * FORM + k] += form[node * FORM + k];
      }
      int to = parent * stride;
      int from = node * stride;
      for (int k = 0; k < stride; k++) {
        numbers[to + k] += numbers[from + k];
      }
      int r = parent * DIRECTIONS;
      int s = node * DIRECTIONS;
      for (int k = 0; k < DIRECTIONS; k++) {
        reach[r + k] = Math.max(reach[r + k], reach[s + k]);
      }
    }
  }
}
