package sharpkestrel.segment;

import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Window;
import sharpkestrel.segment.regions.FeatureSpace;

/**
 * What learned costs look at beyond what a {@link RegionGraph} has: of each region how long its rim is, how sharp, and what
 * light lies behind it, towards the sun and away from it; of each pair of neighbours the light on both sides of their border,
 * and how the border lies and runs. All are sums, or moments that can be joined, so that they follow merges without a look
 * at pixels.
 */
final class Rims {

  private static final int STRIP = 64;

  /** Numbers of a region. */
  static final int RIM = 8;

  /** Pixel sides of the rim, those at the edge of the data too. */
  static final int LENGTH = 0;

  static final int LIGHT_CONTRAST = 1;
  static final int COLOUR_CONTRAST = 2;

  /** Light behind the rim, summed over its sides. */
  static final int BEHIND = 3;

  /** How much of the rim faces away from the sun, and the light behind that; then the same towards the sun. */
  static final int AWAY = 4;

  static final int TOWARDS = 6;

  /** Numbers of a pair. */
  static final int SIDE = 14;

  /** Light at the first end's side and at the second's, summed over the border. */
  static final int LIGHT = 0;

  /** Direction from the first end to the second, summed over the border: columns, rows. */
  static final int ACROSS = 2;

  /** Middle and central second moments of the border: x, y, xx, xy, yy. */
  static final int COURSE = 4;

  /**
   * Of the part where the second end lies away from the sun as seen from the first its length, the light of the second
   * and that of the first; then of the part where it lies towards the sun the second's and the first's.
   */
  static final int SUN = 9;

  private final RegionGraph graph;

  /** Towards the sun on the image, a step of length 1; 0 where the sun is not known. */
  final double sunX;

  final double sunY;
  final float[] rims;
  final float[] sides;

  private Rims(RegionGraph graph, double sunX, double sunY, float[] rims, float[] sides) {
    this.graph = graph;
    this.sunX = sunX;
    this.sunY = sunY;
    this.rims = rims;
    this.sides = sides;
  }

  /** The same for the same graph, to be merged on its own. */
  Rims copyFor(RegionGraph copy) {
    return new Rims(copy, sunX, sunY, rims.clone(), sides.clone());
  }

  /**
   * @param labels those of the graph: its regions from 1 on, 0 for no data
   * @param sunAzimuth degrees clockwise from north, NaN where it is not known
   */
  static Rims of(
      RegionGraph graph, FeatureSpace space, LabelRaster labels, double sunAzimuth, Job job) {
    boolean sun = !Double.isNaN(sunAzimuth);
    Rims made = new Rims(
        graph,
        sun ? Math.sin(Math.toRadians(sunAzimuth)) : 0,
        sun ? -Math.cos(Math.toRadians(sunAzimuth)) : 0,
        new float[graph.regions * RIM],
        new float[graph.edges * SIDE]);
    made.gather(space, labels, job);
    return made;
  }

  /** A few strips are read at a time, and added one after another, so that sums do not depend on threads. */
  private void gather(FeatureSpace space, LabelRaster labels, Job job) {
    Grid grid = labels.grid();
    int strips = Math.ceilDiv(grid.height(), STRIP);
    int batch = Math.max(1, 2 * job.threads());
    int[] firstEdge = graph.firstEdges();
    for (int start = 0; start < strips; start += batch) {
      int base = start;
      Strip[] read = new Strip[Math.min(batch, strips - start)];
      Parallel.run(read.length, job, i -> {
        int top = (base + i) * STRIP;
        Window more =
            new Window(0, top - 1, grid.width(), Math.min(STRIP, grid.height() - top) + 3);
        int[] label = new int[more.area()];
        labels.read(more, label);
        read[i] = new Strip(more, label, space.readSpectral(more, job.request()));
      });
      for (Strip strip : read) {
        add(strip, space.spectralDimensions(), grid.height(), firstEdge);
      }
      job.progress("Following borders", start + read.length, strips);
    }
    settle();
  }

  /**
   * @param rows one before and two after those that are the strip's own
   */
  private record Strip(Window rows, int[] labels, float[] features) {}

  private void add(Strip strip, int n, int height, int[] firstEdge) {
    int width = strip.rows.width();
    int own = strip.rows.height() - 3;
    int[] label = strip.labels;
    for (int y = 0; y < own; y++) {
      int row = strip.rows.y() + 1 + y;
      for (int x = 0; x < width; x++) {
        int i = (y + 1) * width + x;
        int a = label[i] - 1;
        if (x == 0 && a >= 0) {
          rims[a * RIM + LENGTH]++;
        }
        if (row == 0 && a >= 0) {
          rims[a * RIM + LENGTH]++;
        }
        int right = x + 1 < width ? label[i + 1] - 1 : -1;
        if (right != a) {
          int before = x > 0 && label[i - 1] != 0 ? i - 1 : i;
          int after = x + 2 < width && label[i + 2] != 0 ? i + 2 : i + 1;
          side(
              a,
              right,
              strip.features[before * n],
              strip.features[after * n],
              x,
              row,
              1,
              0,
              firstEdge);
        }
        int below = row + 1 < height ? label[i + width] - 1 : -1;
        if (below != a) {
          int before = label[i - width] != 0 ? i - width : i;
          int after = label[i + 2 * width] != 0 ? i + 2 * width : i + width;
          side(
              a,
              below,
              strip.features[before * n],
              strip.features[after * n],
              x,
              row,
              0,
              1,
              firstEdge);
        }
      }
    }
  }

  /**
   * One pixel side between two regions, or between a region and where there is no data.
   *
   * @param x column of the pixel of region {@code a}; that of the other is a step away
   */
  private void side(
      int a,
      int b,
      float lightA,
      float lightB,
      int x,
      int y,
      int stepX,
      int stepY,
      int[] firstEdge) {
    if (a < 0 || b < 0) {
      rims[Math.max(a, b) * RIM + LENGTH]++;
      return;
    }
    int edge = graph.edge(a, b, firstEdge);
    boolean inOrder = graph.halves[4 * edge] == a;
    float first = inOrder ? lightA : lightB;
    float second = inOrder ? lightB : lightA;
    int sign = inOrder ? 1 : -1;
    int at = edge * SIDE;
    sides[at + LIGHT] += first;
    sides[at + LIGHT + 1] += second;
    sides[at + ACROSS] += sign * stepX;
    sides[at + ACROSS + 1] += sign * stepY;
    double towards = sign * (stepX * sunX + stepY * sunY);
    if (towards < 0) {
      sides[at + SUN] -= (float) towards;
      sides[at + SUN + 1] -= (float) (towards * second);
      sides[at + SUN + 2] -= (float) (towards * first);
    } else {
      sides[at + SUN + 3] += (float) (towards * second);
      sides[at + SUN + 4] += (float) (towards * first);
    }
    int c = at + COURSE;
    float offX = (float) (x + 0.5 * stepX - anchor(edge, 0));
    float offY = (float) (y + 0.5 * stepY - anchor(edge, 1));
    sides[c] += offX;
    sides[c + 1] += offY;
    sides[c + 2] += offX * offX;
    sides[c + 3] += offX * offY;
    sides[c + 4] += offY * offY;
  }

  /** A place near a border, from which its sides are counted while they are added up, so that floats do. */
  private double anchor(int edge, int axis) {
    int a = graph.halves[4 * edge] * graph.stride + graph.form;
    int b = graph.halves[4 * edge + 2] * graph.stride + graph.form;
    return ((double) graph.numbers[a + axis] + graph.numbers[b + axis]) / 2;
  }

  /** Turns sums along borders into moments, and adds up what regions have of their pairs. */
  private void settle() {
    int parts = graph.parts.size();
    for (int e = 0; e < graph.edges; e++) {
      float length = graph.borders[e * (1 + parts)];
      int c = e * SIDE + COURSE;
      float x = sides[c] / length;
      float y = sides[c + 1] / length;
      sides[c] = (float) (anchor(e, 0) + x);
      sides[c + 1] = (float) (anchor(e, 1) + y);
      sides[c + 2] = Math.max(0, sides[c + 2] / length - x * x);
      sides[c + 3] = sides[c + 3] / length - x * y;
      sides[c + 4] = Math.max(0, sides[c + 4] / length - y * y);
      add(rims, graph.halves[4 * e] * RIM, e, 0, 1);
      add(rims, graph.halves[4 * e + 2] * RIM, e, 1, 1);
    }
  }

  /**
   * Adds to a rim what it has of a border, or takes it away.
   *
   * @param to (modified) a rim's numbers from {@code at} on
   * @param end 0 where the rim is that of the pair's first end, 1 of the second
   */
  private void add(float[] to, int at, int edge, int end, int sign) {
    int parts = graph.parts.size();
    int border = edge * (1 + parts);
    int s = edge * SIDE;
    to[at + LENGTH] += sign * graph.borders[border];
    to[at + LIGHT_CONTRAST] += sign * graph.borders[border + 1];
    if (parts > 1) {
      to[at + COLOUR_CONTRAST] += sign * graph.borders[border + 2];
    }
    to[at + BEHIND] += sign * sides[s + LIGHT + 1 - end];
    // what lies away from the sun as seen from one end lies towards it as seen from the other
    int near = at + (end == 0 ? AWAY : TOWARDS);
    int far = at + (end == 0 ? TOWARDS : AWAY);
    to[near] += sign * sides[s + SUN];
    to[near + 1] += sign * sides[s + SUN + 1 + end];
    to[far] += sign * towards(edge);
    to[far + 1] += sign * sides[s + SUN + 3 + end];
  }

  /** How much of a border has the second end towards the sun as seen from the first. */
  private float towards(int edge) {
    int s = edge * SIDE;
    return (float) (sides[s + ACROSS] * sunX + sides[s + ACROSS + 1] * sunY) + sides[s + SUN];
  }

  /**
   * What the rim of two neighbours together is.
   *
   * @param first region at the edge's first end
   * @param out (output) {@link #RIM} numbers
   */
  void ofBoth(int edge, int first, int second, float[] out) {
    for (int k = 0; k < RIM; k++) {
      out[k] = rims[first * RIM + k] + rims[second * RIM + k];
    }
    add(out, 0, edge, 0, -1);
    add(out, 0, edge, 1, -1);
  }

  /** Region {@code keep} takes in region {@code lose} across an edge. */
  void join(int keep, int lose, int edge) {
    for (int k = 0; k < RIM; k++) {
      rims[keep * RIM + k] += rims[lose * RIM + k];
    }
    add(rims, keep * RIM, edge, 0, -1);
    add(rims, keep * RIM, edge, 1, -1);
  }

  /**
   * Border {@code edge} becomes part of border {@code same}, whose length has not grown yet.
   *
   * @param turned whether the first end of one lies at the second of the other
   */
  void joinBorders(int same, int edge, boolean turned) {
    int parts = graph.parts.size();
    float n = graph.borders[same * (1 + parts)];
    float m = graph.borders[edge * (1 + parts)];
    int s = same * SIDE;
    int t = edge * SIDE;
    int sign = turned ? -1 : 1;
    float share = m / (n + m);
    int c = s + COURSE;
    int d = t + COURSE;
    float dx = sides[d] - sides[c];
    float dy = sides[d + 1] - sides[c + 1];
    float between = share * (1 - share);
    sides[c + 2] += share * (sides[d + 2] - sides[c + 2]) + between * dx * dx;
    sides[c + 3] += share * (sides[d + 3] - sides[c + 3]) + between * dx * dy;
    sides[c + 4] += share * (sides[d + 4] - sides[c + 4]) + between * dy * dy;
    sides[c] += share * dx;
    sides[c + 1] += share * dy;
    if (turned) {
      sides[s + SUN] += towards(edge);
      sides[s + SUN + 1] += sides[t + SUN + 4];
      sides[s + SUN + 2] += sides[t + SUN + 3];
      sides[s + SUN + 3] += sides[t + SUN + 2];
      sides[s + SUN + 4] += sides[t + SUN + 1];
      sides[s + LIGHT] += sides[t + LIGHT + 1];
      sides[s + LIGHT + 1] += sides[t + LIGHT];
    } else {
      for (int k = 0; k < 5; k++) {
        sides[s + SUN + k] += sides[t + SUN + k];
      }
      sides[s + LIGHT] += sides[t + LIGHT];
      sides[s + LIGHT + 1] += sides[t + LIGHT + 1];
    }
    sides[s + ACROSS] += sign * sides[t + ACROSS];
    sides[s + ACROSS + 1] += sign * sides[t + ACROSS + 1];
  }
}
