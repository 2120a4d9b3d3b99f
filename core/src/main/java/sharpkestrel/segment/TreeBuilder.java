package sharpkestrel.segment;

import java.util.Arrays;
import sharpkestrel.raster.Job;
import sharpkestrel.segment.regions.FeatureSpace;

/**
 * Merges neighbouring regions, the cheapest pair by a {@link Criterion} first, until nothing touches.
 *
 * <p>Costs lie in an indexed binary heap over edges. A region's edges hang in singly linked lists of half-edges that
 * are spliced when regions merge; edges that have died are dropped when their list is next walked. Ties go to the
 * lower, then the other node number. What a region has grown by since its edges were last valued is kept: while that is
 * under {@value #STALE}, only edges whose border has changed are valued anew, so that a sea with ten thousand rocks does not
 * cost ten thousand values for each pool that joins it.
 */
final class TreeBuilder {

  private static final double STALE = 0.04;

  private final RegionGraph graph;
  private final int n;
  private final int dimensions;
  private final int parts;
  private final int[] partFrom;
  private final double[] weights;
  private final double[] floors;
  private final double edgePower;
  private final double form;

  private final int[] count;
  private final int[] valuedAt;
  private final float[] mean;
  private final float[] variance;
  private final float[] forms;
  private final int[] node;

  private final int[] ends;
  private final float[] length;
  private final float[] contrast;
  private final float[] cost;
  private final int[] next;
  private final int[] head;

  private final int[] heap;
  private final int[] place;
  private int heapSize;

  private final int[] mark;
  private int[] changed = new int[64];

  /**
   * @param graph taken over: its numbers are changed
   */
  TreeBuilder(RegionGraph graph, Criterion criterion) {
    this.graph = graph;
    n = graph.regions;
    dimensions = graph.dimensions;
    parts = graph.parts.size();
    partFrom = new int[parts + 1];
    weights = new double[parts];
    floors = new double[parts];
    for (int q = 0; q < parts; q++) {
      FeatureSpace.Part part = graph.parts.get(q);
      partFrom[q + 1] = part.to();
      weights[q] = criterion.weight(part.kind());
      floors[q] = Criterion.floor(part.kind());
    }
    edgePower = criterion.edges();
    form = criterion.form();
    count = graph.counts.clone();
    valuedAt = graph.counts.clone();
    mean = graph.means;
    variance = graph.variances;
    forms = graph.forms;
    node = new int[n];
    for (int i = 0; i < n; i++) {
      node[i] = i;
    }
    int m = graph.edges;
    ends = graph.ends;
    length = graph.lengths;
    contrast = graph.contrasts;
    cost = new float[m];
    next = new int[2 * m];
    head = new int[n];
    Arrays.fill(head, -1);
    mark = new int[n];
    Arrays.fill(mark, -1);
    heap = new int[m];
    place = new int[m];
    for (int e = m - 1; e >= 0; e--) {
      link(2 * e, ends[2 * e]);
      link(2 * e + 1, ends[2 * e + 1]);
      cost[e] = costOf(e);
    }
    for (int e = 0; e < m; e++) {
      heap[e] = e;
      place[e] = e;
    }
    heapSize = m;
    for (int i = m / 2 - 1; i >= 0; i--) {
      sink(i);
    }
  }

  MergeTree build(Job job) {
    int[] parent = new int[2 * n];
    Arrays.fill(parent, -1);
    float[] heights = new float[n];
    int merges = 0;
    float height = 0;
    while (heapSize > 0) {
      if ((merges & 0x3fff) == 0) {
        job.cancellation().check();
        job.progress("Merging", merges, n);
      }
      int e = heap[0];
      height = Math.max(height, cost[e]);
      int a = ends[2 * e];
      int b = ends[2 * e + 1];
      int made = n + merges;
      parent[node[a]] = made;
      parent[node[b]] = made;
      heights[merges++] = height;
      merge(e, made);
    }
    return new MergeTree(
        n, merges, Arrays.copyOf(parent, n + merges), Arrays.copyOf(heights, merges), graph.counts);
  }

  private void link(int half, int region) {
    next[half] = head[region];
    head[region] = half;
  }

  private float costOf(int e) {
    int a = ends[2 * e];
    int b = ends[2 * e + 1];
    double na = count[a];
    double nb = count[b];
    double total = na + nb;
    double sum = 0;
    for (int q = 0; q < parts; q++) {
      double distance = squaredDistance(a, b, q);
      if (edgePower == 1) {
        distance = Math.sqrt(distance) * contrast[e * parts + q] / length[e];
      } else if (edgePower > 0) {
        distance = Math.pow(distance, 1 - edgePower / 2)
            * Math.pow(contrast[e * parts + q] / length[e], edgePower);
      }
      if (floors[q] != Double.POSITIVE_INFINITY) {
        distance /=
            floors[q] + (na * variance[a * parts + q] + nb * variance[b * parts + q]) / total;
      }
      sum += weights[q] * distance;
    }
    double shape = 1;
    if (form > 0) {
      shape = spread(a, b) / (total * total);
      shape = form == 1 ? shape : Math.pow(shape, form);
    }
    return (float) (na * nb / total * sum / length[e] * shape);
  }

  private double squaredDistance(int a, int b, int part) {
    float distance = 0;
    for (int k = partFrom[part]; k < partFrom[part + 1]; k++) {
      float d = mean[a * dimensions + k] - mean[b * dimensions + k];
      distance += d * d;
    }
    return distance;
  }

  /** 144 times the determinant of the second moments of two regions together: their area squared if they fill a rectangle. */
  private double spread(int a, int b) {
    int fa = a * RegionGraph.FORM;
    int fb = b * RegionGraph.FORM;
    double total = (double) count[a] + count[b];
    double sa = count[a] / total;
    double sb = count[b] / total;
    double dx = forms[fa] - forms[fb];
    double dy = forms[fa + 1] - forms[fb + 1];
    double xx = sa * forms[fa + 2] + sb * forms[fb + 2] + sa * sb * dx * dx;
    double xy = sa * forms[fa + 3] + sb * forms[fb + 3] + sa * sb * dx * dy;
    double yy = sa * forms[fa + 4] + sb * forms[fb + 4] + sa * sb * dy * dy;
    return 144 * Math.max(0, xx * yy - xy * xy);
  }

  /** Region {@code keep} takes in region {@code lose}. */
  private void join(int keep, int lose) {
    double total = (double) count[keep] + count[lose];
    double sk = count[keep] / total;
    double sl = count[lose] / total;
    for (int q = 0; q < parts; q++) {
      int k = keep * parts + q;
      variance[k] = (float) (sk * variance[k]
          + sl * variance[lose * parts + q]
          + sk * sl * squaredDistance(keep, lose, q));
    }
    for (int k = 0; k < dimensions; k++) {
      int i = keep * dimensions + k;
      mean[i] = (float) (sk * mean[i] + sl * mean[lose * dimensions + k]);
    }
    int fk = keep * RegionGraph.FORM;
    int fl = lose * RegionGraph.FORM;
    double dx = forms[fk] - forms[fl];
    double dy = forms[fk + 1] - forms[fl + 1];
    double[] between = {dx * dx, dx * dy, dy * dy};
    for (int k = 2; k < RegionGraph.FORM; k++) {
      forms[fk + k] = (float) (sk * forms[fk + k] + sl * forms[fl + k] + sk * sl * between[k - 2]);
    }
    forms[fk] = (float) (sk * forms[fk] + sl * forms[fl]);
    forms[fk + 1] = (float) (sk * forms[fk + 1] + sl * forms[fl + 1]);
    count[keep] += count[lose];
  }

  /** The larger region keeps its slot; both walk their edges once. */
  private void merge(int edge, int made) {
    int a = ends[2 * edge];
    int b = ends[2 * edge + 1];
    remove(edge);
    int keep = count[a] >= count[b] ? a : b;
    int lose = keep == a ? b : a;
    join(keep, lose);
    node[keep] = made;
    int list = head[keep];
    head[keep] = -1;
    while (list >= 0) {
      int after = next[list];
      int e = list >> 1;
      if (place[e] >= 0) {
        link(list, keep);
        mark[ends[list ^ 1]] = e;
      }
      list = after;
    }
    int changes = 0;
    list = head[lose];
    head[lose] = -1;
    while (list >= 0) {
      int after = next[list];
      int e = list >> 1;
      if (place[e] >= 0) {
        int other = ends[list ^ 1];
        int same = mark[other];
        if (same >= 0) {
          length[same] += length[e];
          for (int q = 0; q < parts; q++) {
            contrast[same * parts + q] += contrast[e * parts + q];
          }
          remove(e);
        } else {
          ends[list] = keep;
          link(list, keep);
          mark[other] = e;
          same = e;
        }
        changed = changes == changed.length ? Arrays.copyOf(changed, 2 * changes) : changed;
        changed[changes++] = same;
      }
      list = after;
    }
    boolean stale = count[keep] > (1 + STALE) * valuedAt[keep];
    for (int half = head[keep]; half >= 0; half = next[half]) {
      mark[ends[half ^ 1]] = -1;
      if (stale) {
        value(half >> 1);
      }
    }
    if (stale) {
      valuedAt[keep] = count[keep];
    } else {
      for (int k = 0; k < changes; k++) {
        value(changed[k]);
      }
    }
  }

  private void value(int e) {
    cost[e] = costOf(e);
    settle(e);
  }

  private void settle(int e) {
    int i = place[e];
    if (i > 0 && less(e, heap[(i - 1) >> 1])) {
      swim(i);
    } else {
      sink(i);
    }
  }

  private void remove(int e) {
    int i = place[e];
    place[e] = -1;
    heapSize--;
    if (i == heapSize) {
      return;
    }
    int last = heap[heapSize];
    heap[i] = last;
    place[last] = i;
    settle(last);
  }

  private boolean less(int e, int f) {
    if (cost[e] != cost[f]) {
      return cost[e] < cost[f];
    }
    int eLow = Math.min(node[ends[2 * e]], node[ends[2 * e + 1]]);
    int fLow = Math.min(node[ends[2 * f]], node[ends[2 * f + 1]]);
    if (eLow != fLow) {
      return eLow < fLow;
    }
    return Math.max(node[ends[2 * e]], node[ends[2 * e + 1]])
        < Math.max(node[ends[2 * f]], node[ends[2 * f + 1]]);
  }

  private void swim(int start) {
    int i = start;
    int e = heap[i];
    while (i > 0) {
      int up = (i - 1) >> 1;
      if (!less(e, heap[up])) {
        break;
      }
      heap[i] = heap[up];
      place[heap[i]] = i;
      i = up;
    }
    heap[i] = e;
    place[e] = i;
  }

  private void sink(int start) {
    int i = start;
    int e = heap[i];
    while (true) {
      int child = 2 * i + 1;
      if (child >= heapSize) {
        break;
      }
      if (child + 1 < heapSize && less(heap[child + 1], heap[child])) {
        child++;
      }
      if (!less(heap[child], e)) {
        break;
      }
      heap[i] = heap[child];
      place[heap[i]] = i;
      i = child;
    }
    heap[i] = e;
    place[e] = i;
  }
}
