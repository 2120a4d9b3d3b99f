package sharpkestrel.segment;

import java.util.Arrays;
import sharpkestrel.raster.Job;

/**
 * Merges neighbouring regions, the cheapest pair first, by the full lambda schedule (Redding, Crisp, Tang and Newsam
 * 1999; after Koepfler, Lopez and Morel 1994, SIAM J. Numer. Anal. 31(1), 282-299). The cost of a pair is the rise of
 * the squared error when both take one mean, for each unit of border that goes:
 *
 * <pre>  |A| |B| / (|A| + |B|) * ||mean A - mean B||² / length(A, B)</pre>
 *
 * which minimises the piecewise constant functional of Mumford and Shah with its weight rising from 0.
 *
 * <p>Costs lie in an indexed binary heap over edges. A region's edges hang in singly linked lists of half-edges that
 * are spliced when regions merge; edges that have died are dropped when their list is next walked. Ties go to the
 * lower, then the other node number.
 */
final class TreeBuilder {

  private final RegionGraph graph;
  private final int n;
  private final int dimensions;
  private final int[] count;
  private final float[] mean;
  private final int[] node;

  private final int[] ends;
  private final float[] length;
  private final float[] cost;
  private final int[] next;
  private final int[] head;

  private final int[] heap;
  private final int[] place;
  private int heapSize;

  private final int[] mark;

  TreeBuilder(RegionGraph graph) {
    this.graph = graph;
    n = graph.regions;
    dimensions = graph.dimensions;
    count = graph.counts.clone();
    mean = graph.sums;
    node = new int[n];
    for (int i = 0; i < n; i++) {
      node[i] = i;
      for (int k = 0; k < dimensions; k++) {
        mean[i * dimensions + k] /= Math.max(1, count[i]);
      }
    }
    int m = graph.edges;
    ends = new int[2 * m];
    length = graph.lengths;
    cost = new float[m];
    next = new int[2 * m];
    head = new int[n];
    Arrays.fill(head, -1);
    mark = new int[n];
    Arrays.fill(mark, -1);
    heap = new int[m];
    place = new int[m];
    for (int e = m - 1; e >= 0; e--) {
      ends[2 * e] = graph.from[e];
      ends[2 * e + 1] = graph.to[e];
      link(2 * e, graph.from[e]);
      link(2 * e + 1, graph.to[e]);
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
    float distance = 0;
    for (int k = 0; k < dimensions; k++) {
      float d = mean[a * dimensions + k] - mean[b * dimensions + k];
      distance += d * d;
    }
    double sizes = (double) count[a] * count[b] / ((double) count[a] + count[b]);
    return (float) (sizes * distance / length[e]);
  }

  /** The region with more edges to walk keeps its slot; both walk theirs once. */
  private void merge(int edge, int made) {
    int a = ends[2 * edge];
    int b = ends[2 * edge + 1];
    remove(edge);
    int keep = count[a] >= count[b] ? a : b;
    int lose = keep == a ? b : a;
    double total = (double) count[keep] + count[lose];
    for (int k = 0; k < dimensions; k++) {
      int i = keep * dimensions + k;
      mean[i] = (float)
          ((mean[i] * (double) count[keep] + mean[lose * dimensions + k] * (double) count[lose])
              / total);
    }
    count[keep] += count[lose];
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
          remove(e);
        } else {
          ends[list] = keep;
          link(list, keep);
          mark[other] = e;
        }
      }
      list = after;
    }
    for (int half = head[keep]; half >= 0; half = next[half]) {
      int e = half >> 1;
      mark[ends[half ^ 1]] = -1;
      cost[e] = costOf(e);
      settle(e);
    }
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
