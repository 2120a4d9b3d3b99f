package sharpkestrel.segment;

import java.util.Arrays;
import java.util.Optional;
import sharpkestrel.raster.Job;
import sharpkestrel.segment.regions.FeatureSpace;

/**
 * Merges neighbouring regions, the cheapest pair by a {@link Criterion} first, until nothing touches.
 *
 * <p>Costs lie in an {@link EdgeHeap}. A region's edges hang in singly linked lists of half-edges that
 * are spliced when regions merge; edges that have died are dropped when their list is next walked. Ties go to the
 * lower, then the other node number. What a region has grown by since its edges were last valued is kept: while that is
 * under {@value #STALE}, only edges whose border has changed are valued anew, and a region with many more edges than the
 * one that joins it is not walked at all. So a sea with ten thousand rocks does not cost ten thousand values, nor ten
 * thousand looks, for each pool that joins it.
 */
final class TreeBuilder {

  private static final double STALE = 0.04;

  /** A region with so many times the edges of the one that joins it is not walked. */
  private static final int MANY = 16;

  private final RegionGraph graph;
  private final int n;
  private final int dimensions;
  private final int parts;
  private final int[] partFrom;
  private final Criterion criterion;
  private final double[] weights;
  private final double[] floors;
  private final double edgePower;
  private final double form;
  private final Optional<LearnedCosts> learned;

  private final int[] count;
  private final int[] valuedAt;
  private final float[] numbers;
  private final int stride;
  private final int variance;
  private final int forms;
  private final int[] node;

  private final int[] halves;
  private final float[] borders;

  /** Of each region what its borders within add up to, as of {@link #borders}; none where the criterion does not ask. */
  private final float[] within;

  private final int[] head;

  /** Of each region how many edges it has. */
  private final int[] degree;

  private final EdgeHeap heap;
  private final int many;
  private final int[] mark;
  private int[] changed = new int[64];

  /**
   * @param graph taken over: its numbers are changed
   */
  TreeBuilder(RegionGraph graph, Criterion criterion) {
    this(graph, criterion, Optional.empty(), MANY);
  }

  /**
   * @param learned taken over; what has been learned of pairs, where something has
   */
  TreeBuilder(RegionGraph graph, Criterion criterion, Optional<LearnedCosts> learned) {
    this(graph, criterion, learned, MANY);
  }

  /**
   * @param many how many times the edges of a region that joins it one must have for its own not to be walked; the tree is
   *     the same for any
   */
  TreeBuilder(RegionGraph graph, Criterion criterion, Optional<LearnedCosts> learned, int many) {
    this.graph = graph;
    this.learned = learned;
    this.many = many;
    n = graph.regions;
    this.criterion = criterion;
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
    numbers = graph.numbers;
    stride = graph.stride;
    variance = graph.variance;
    forms = graph.form;
    node = new int[n];
    for (int i = 0; i < n; i++) {
      node[i] = i;
    }
    int m = graph.edges;
    halves = graph.halves;
    borders = graph.borders;
    within = new float[criterion.texture() > 0 ? n * (1 + parts) : 0];
    head = new int[n];
    Arrays.fill(head, -1);
    degree = new int[n];
    mark = new int[n];
    Arrays.fill(mark, -1);
    heap = new EdgeHeap(m, halves, node);
    for (int e = m - 1; e >= 0; e--) {
      link(2 * e, end(2 * e));
      link(2 * e + 1, end(2 * e + 1));
      degree[end(2 * e)]++;
      degree[end(2 * e + 1)]++;
      heap.add(e, costOf(e));
    }
    heap.order();
  }

  MergeTree build(Job job) {
    return build(job, Optional.empty());
  }

  /**
   * @param teacher is asked before each merge, where one is learned from; what it refuses is not tried again before the pair
   *     has changed, and what is left when it has seen enough is not merged
   */
  MergeTree build(Job job, Optional<Teacher> teacher) {
    int[] parent = new int[2 * n];
    Arrays.fill(parent, -1);
    float[] heights = new float[n];
    int merges = 0;
    float height = 0;
    while (!heap.isEmpty()) {
      if ((merges & 0x3fff) == 0) {
        job.cancellation().check();
        job.progress("Merging", merges, n);
      }
      int e = heap.first();
      int a = end(2 * e);
      int b = end(2 * e + 1);
      if (teacher.isPresent()) {
        if (heap.leastCost() == Float.POSITIVE_INFINITY || teacher.get().isDone(merges, n)) {
          break;
        }
        if (!teacher.get().allows(e, a, b, count, plainCost(e))) {
          heap.value(e, Float.POSITIVE_INFINITY);
          continue;
        }
      }
      height = Math.max(height, heap.leastCost());
      int made = n + merges;
      parent[node[a]] = made;
      parent[node[b]] = made;
      heights[merges++] = height;
      merge(e, made);
    }
    return new MergeTree(
        n,
        merges,
        Arrays.copyOf(parent, n + merges),
        Arrays.copyOf(heights, merges),
        graph.counts,
        learned.isPresent() ? MergingBy.LEARNED : MergingBy.LIKENESS);
  }

  private int end(int half) {
    return halves[2 * half];
  }

  private int next(int half) {
    return halves[2 * half + 1];
  }

  private void link(int half, int region) {
    halves[2 * half + 1] = head[region];
    head[region] = half;
  }

  private float costOf(int e) {
    double plain = plainCost(e);
    return learned.isEmpty()
        ? (float) plain
        : learned.get().of(e, end(2 * e), end(2 * e + 1), count, plain);
  }

  private double plainCost(int e) {
    int a = end(2 * e);
    int b = end(2 * e + 1);
    int border = e * (1 + parts);
    float length = borders[border];
    double na = count[a];
    double nb = count[b];
    double total = na + nb;
    double sum = 0;
    for (int q = 0; q < parts; q++) {
      double distance = squaredDistance(a, b, q);
      if (edgePower == 1) {
        distance = Math.sqrt(distance) * contrast(a, b, border, q);
      } else if (edgePower > 0) {
        distance =
            Math.pow(distance, 1 - edgePower / 2) * Math.pow(contrast(a, b, border, q), edgePower);
      }
      if (floors[q] != Double.POSITIVE_INFINITY) {
        double spread =
            na * numbers[a * stride + variance + q] + nb * numbers[b * stride + variance + q];
        distance /= floors[q] + spread / total;
      }
      sum += weights[q] * distance;
    }
    double shape = 1;
    if (form > 0) {
      shape = spread(a, b) / (total * total);
      shape = form == 1 ? shape : Math.pow(shape, form);
    }
    return na * nb / total * sum / length * shape;
  }

  /** How sharp a border is in a part of the space. */
  private double contrast(int a, int b, int border, int part) {
    double contrast = borders[border + 1 + part] / borders[border];
    if (within.length == 0 || floors[part] == Double.POSITIVE_INFINITY) {
      return contrast;
    }
    int p = a * (1 + parts);
    int q = b * (1 + parts);
    return criterion.beyondTexture(
        contrast, within[p] + within[q], within[p + 1 + part] + within[q + 1 + part]);
  }

  private double squaredDistance(int a, int b, int part) {
    float distance = 0;
    for (int k = partFrom[part]; k < partFrom[part + 1]; k++) {
      float d = numbers[a * stride + k] - numbers[b * stride + k];
      distance += d * d;
    }
    return distance;
  }

  /** 144 times the determinant of the second moments of two regions together: their area squared if they fill a rectangle. */
  private double spread(int a, int b) {
    int fa = a * stride + forms;
    int fb = b * stride + forms;
    double total = (double) count[a] + count[b];
    double sa = count[a] / total;
    double sb = count[b] / total;
    double dx = numbers[fa] - numbers[fb];
    double dy = numbers[fa + 1] - numbers[fb + 1];
    double xx = sa * numbers[fa + 2] + sb * numbers[fb + 2] + sa * sb * dx * dx;
    double xy = sa * numbers[fa + 3] + sb * numbers[fb + 3] + sa * sb * dx * dy;
    double yy = sa * numbers[fa + 4] + sb * numbers[fb + 4] + sa * sb * dy * dy;
    return 144 * Math.max(0, xx * yy - xy * xy);
  }

  /** Region {@code keep} takes in region {@code lose}. */
  private void join(int keep, int lose) {
    double total = (double) count[keep] + count[lose];
    double sk = count[keep] / total;
    double sl = count[lose] / total;
    int k = keep * stride;
    int l = lose * stride;
    for (int q = 0; q < parts; q++) {
      numbers[k + variance + q] = (float) (sk * numbers[k + variance + q]
          + sl * numbers[l + variance + q]
          + sk * sl * squaredDistance(keep, lose, q));
    }
    int fk = k + forms;
    int fl = l + forms;
    double dx = numbers[fk] - numbers[fl];
    double dy = numbers[fk + 1] - numbers[fl + 1];
    mix(fk + 2, fl + 2, sk, sl, dx * dx);
    mix(fk + 3, fl + 3, sk, sl, dx * dy);
    mix(fk + 4, fl + 4, sk, sl, dy * dy);
    mix(fk, fl, sk, sl, 0);
    mix(fk + 1, fl + 1, sk, sl, 0);
    for (int d = 0; d < dimensions; d++) {
      mix(k + d, l + d, sk, sl, 0);
    }
    count[keep] = (int) Math.min(Integer.MAX_VALUE, (long) count[keep] + count[lose]);
  }

  /** The mean of two numbers of regions, and what lies between these where it is a spread. */
  private void mix(int to, int from, double shareTo, double shareFrom, double between) {
    numbers[to] =
        (float) (shareTo * numbers[to] + shareFrom * numbers[from] + shareTo * shareFrom * between);
  }

  /** The larger region keeps its slot. */
  private void merge(int edge, int made) {
    int a = end(2 * edge);
    int b = end(2 * edge + 1);
    remove(edge);
    int keep = count[a] >= count[b] ? a : b;
    int lose = keep == a ? b : a;
    join(keep, lose);
    for (int q = 0; q <= parts && within.length > 0; q++) {
      within[keep * (1 + parts) + q] +=
          within[lose * (1 + parts) + q] + borders[edge * (1 + parts) + q];
    }
    learned.ifPresent(costs -> costs.rims().join(keep, lose, edge));
    node[keep] = made;
    boolean marked = degree[keep] < (long) many * (1 + degree[lose]);
    if (marked) {
      markNeighbours(keep);
    }
    int changes = 0;
    int list = head[lose];
    head[lose] = -1;
    while (list >= 0) {
      int after = next(list);
      int e = list >> 1;
      if (heap.has(e)) {
        int other = end(list ^ 1);
        int same = marked ? mark[other] : edgeBetween(keep, other);
        if (same >= 0) {
          if (learned.isPresent()) {
            boolean turned = (end(2 * same) == keep) != (end(2 * e) == lose);
            learned.get().rims().joinBorders(same, e, turned);
          }
          for (int q = 0; q <= parts; q++) {
            borders[same * (1 + parts) + q] += borders[e * (1 + parts) + q];
          }
          remove(e);
        } else {
          halves[2 * list] = keep;
          link(list, keep);
          degree[keep]++;
          same = e;
        }
        changed = changes == changed.length ? Arrays.copyOf(changed, 2 * changes) : changed;
        changed[changes++] = same;
      }
      list = after;
    }
    if (marked) {
      unmarkNeighbours(keep);
    }
    if (count[keep] > (1 + STALE) * valuedAt[keep]) {
      for (int half = head[keep]; half >= 0; half = next(half)) {
        if (heap.has(half >> 1)) {
          value(half >> 1);
        }
      }
      valuedAt[keep] = count[keep];
    } else {
      for (int k = 0; k < changes; k++) {
        value(changed[k]);
      }
    }
  }

  /** Notes for all neighbours of a region which edge leads there, and drops edges that have died. */
  private void markNeighbours(int region) {
    int list = head[region];
    head[region] = -1;
    while (list >= 0) {
      int after = next(list);
      int e = list >> 1;
      if (heap.has(e)) {
        link(list, region);
        mark[end(list ^ 1)] = e;
      }
      list = after;
    }
  }

  private void unmarkNeighbours(int region) {
    for (int half = head[region]; half >= 0; half = next(half)) {
      mark[end(half ^ 1)] = -1;
    }
  }

  /** The edge between two regions, or -1; looked for from the one that has fewer, where edges that have died are dropped. */
  private int edgeBetween(int a, int b) {
    int from = degree[a] < degree[b] ? a : b;
    int to = from == a ? b : a;
    int before = -1;
    for (int half = head[from]; half >= 0; half = next(half)) {
      if (!heap.has(half >> 1)) {
        if (before < 0) {
          head[from] = next(half);
        } else {
          halves[2 * before + 1] = next(half);
        }
      } else if (end(half ^ 1) == to) {
        return half >> 1;
      } else {
        before = half;
      }
    }
    return -1;
  }

  private void value(int e) {
    heap.value(e, costOf(e));
  }

  private void remove(int e) {
    heap.remove(e);
    degree[end(2 * e)]--;
    degree[end(2 * e + 1)]--;
  }
}
