package sharpkestrel.segment;

import java.util.Arrays;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/**
 * How sharp the border of each rung of a branch is: across each pixel side of the border the root mean square over the bands of
 * the differences of logarithms, one pixel behind the border on both sides; the mean of that. 0.1 is a tenth brighter or darker.
 * Rungs are nested, so all of them are told in one pass over what lies around the place where the branch begins.
 */
final class RungEdges {

  /** Half the side of the square about the place in which borders are looked at. */
  private static final int AROUND = 256;

  private static final int UNKNOWN = -1;

  private RungEdges() {}

  /**
   * @param scene on the grid of the superpixels
   * @param col of the place where the branch begins
   * @return rung by rung; NaN for those without a border near the place
   */
  static double[] of(
      Branch branch,
      MergeTree tree,
      LabelRaster superpixels,
      Raster scene,
      int col,
      int row,
      Request request) {
    Window window = new Window(col - AROUND, row - AROUND, 2 * AROUND, 2 * AROUND)
        .intersect(superpixels.grid().window());
    int[] labels = new int[window.area()];
    superpixels.read(window, labels);
    float[][] planes = scene.read(0, window, request);
    double[] floors = floors(planes);
    int[] known = new int[tree.nodes()];
    Arrays.fill(known, UNKNOWN);
    for (int rung = 0; rung < branch.rungs(); rung++) {
      known[branch.node(rung)] = rung;
    }
    int[] entered = new int[labels.length];
    for (int i = 0; i < labels.length; i++) {
      boolean same = i > 0 && labels[i] == labels[i - 1];
      // no-data is never entered
      entered[i] = same
          ? entered[i - 1]
          : labels[i] == 0 ? branch.rungs() : rungOf(tree, known, labels[i] - 1, branch.rungs());
    }
    // A side between what is entered at two rungs is on the border of all from the one to below the
    // other.
    double[] sums = new double[branch.rungs() + 1];
    long[] sides = new long[branch.rungs() + 1];
    int width = window.width();
    for (int y = 0; y < window.height(); y++) {
      for (int x = 0; x < width; x++) {
        int i = y * width + x;
        if (x + 1 < width && entered[i] != entered[i + 1]) {
          int before = x > 0 ? i - 1 : i;
          int after = x + 2 < width ? i + 2 : i + 1;
          add(planes, floors, before, after, entered[i], entered[i + 1], sums, sides);
        }
        if (y + 1 < window.height() && entered[i] != entered[i + width]) {
          int before = y > 0 ? i - width : i;
          int after = y + 2 < window.height() ? i + 2 * width : i + width;
          add(planes, floors, before, after, entered[i], entered[i + width], sums, sides);
        }
      }
    }
    double[] edges = new double[branch.rungs()];
    double sum = 0;
    long count = 0;
    for (int rung = 0; rung < edges.length; rung++) {
      sum += sums[rung];
      count += sides[rung];
      edges[rung] = count == 0 ? Double.NaN : sum / count;
    }
    return edges;
  }

  /**
   * The lowest rung that holds a superpixel. What is found for it goes for all that it merged into on the way, so that no
   * node is passed twice, however long the way of one region that takes in thousands.
   *
   * @param known (modified) rungs of nodes, UNKNOWN to begin with but for the branch
   * @param none for those that the branch never holds
   */
  private static int rungOf(MergeTree tree, int[] known, int leaf, int none) {
    int node = leaf;
    while (node >= 0 && known[node] == UNKNOWN) {
      node = tree.parent(node);
    }
    int found = node < 0 ? none : known[node];
    for (int below = leaf; below != node; below = tree.parent(below)) {
      known[below] = found;
    }
    return found;
  }

  /** Added before logarithms, so that noise in the dark does not count as contrast. */
  private static double[] floors(float[][] planes) {
    double[] floors = new double[planes.length];
    for (int b = 0; b < planes.length; b++) {
      double sum = 0;
      int count = 0;
      for (float v : planes[b]) {
        if (v > 0) {
          sum += v;
          count++;
        }
      }
      floors[b] = count == 0 ? 1 : 0.1 * sum / count;
    }
    return floors;
  }

  private static void add(
      float[][] planes,
      double[] floors,
      int before,
      int after,
      int rung,
      int other,
      double[] sums,
      long[] sides) {
    double squares = 0;
    for (int b = 0; b < planes.length; b++) {
      double difference = Math.log((Math.max(0, planes[b][before]) + floors[b])
          / (Math.max(0, planes[b][after]) + floors[b]));
      squares += difference * difference;
    }
    double contrast = Math.sqrt(squares / planes.length);
    if (Double.isNaN(contrast)) {
      return;
    }
    int from = Math.min(rung, other);
    int to = Math.max(rung, other);
    sums[from] += contrast;
    sides[from]++;
    sums[to] -= contrast;
    sides[to]--;
  }
}
