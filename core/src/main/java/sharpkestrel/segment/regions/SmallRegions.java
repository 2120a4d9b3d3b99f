package sharpkestrel.segment.regions;

import java.util.Comparator;
import java.util.HashMap;
import java.util.Map;
import java.util.PriorityQueue;
import sharpkestrel.raster.DisjointSets;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.raster.Window;

/** Joins regions under a size to the neighbour with the longest common border, the smallest first; ties to the lower number. */
final class SmallRegions {

  private SmallRegions() {}

  /**
   * @param labels (modified) 1 to {@code regions}, then 1 to the returned count
   * @param most size in pixels up to which a region is joined; one without neighbours stays
   */
  static int join(ScratchLabels labels, int regions, int most, Job job) {
    int[] pixels = new int[regions + 1];
    @SuppressWarnings("unchecked")
    Map<Integer, Integer>[] borders = new HashMap[regions + 1];
    gather(labels, pixels, null, most, borders, job);
    gather(labels, null, pixels, most, borders, job);
    DisjointSets sets = new DisjointSets(regions + 1);
    PriorityQueue<int[]> small = new PriorityQueue<>(
        Comparator.comparingInt((int[] entry) -> entry[0]).thenComparingInt(entry -> entry[1]));
    for (int i = 1; i <= regions; i++) {
      if (pixels[i] <= most) {
        small.add(new int[] {pixels[i], i});
      }
    }
    while (!small.isEmpty()) {
      int[] entry = small.poll();
      int region = entry[1];
      if (sets.root(region) != region || pixels[region] != entry[0] || borders[region] == null) {
        continue;
      }
      Map<Integer, Integer> now = new HashMap<>();
      borders[region].forEach((other, sides) -> {
        int root = sets.root(other);
        if (root != region) {
          now.merge(root, sides, Integer::sum);
        }
      });
      int best = 0;
      int longest = 0;
      for (var border : now.entrySet()) {
        boolean better =
            border.getValue() > longest || border.getValue() == longest && border.getKey() < best;
        if (better) {
          best = border.getKey();
          longest = border.getValue();
        }
      }
      if (best == 0) {
        continue;
      }
      int root = sets.unite(region, best);
      int total = pixels[region] + pixels[best];
      Map<Integer, Integer> joined = now;
      if (borders[best] != null) {
        borders[best].forEach((other, sides) -> joined.merge(other, sides, Integer::sum));
        borders[root] = joined;
      } else {
        borders[root] = total <= most ? joined : null;
      }
      pixels[root] = total;
      if (total <= most) {
        small.add(new int[] {total, root});
      }
    }
    return Pieces.renumber(labels, sets, job);
  }

  /** Counts pixels, or where those are known the borders of small regions. */
  private static void gather(
      ScratchLabels labels,
      int[] count,
      int[] known,
      int most,
      Map<Integer, Integer>[] borders,
      Job job) {
    int width = labels.grid().width();
    int[] row = new int[width];
    int[] above = new int[width];
    for (int y = 0; y < labels.grid().height(); y++) {
      job.cancellation().check();
      labels.read(new Window(0, y, width, 1), row);
      for (int x = 0; x < width; x++) {
        if (count != null) {
          count[row[x]]++;
          continue;
        }
        border(row[x], x > 0 ? row[x - 1] : 0, known, most, borders);
        border(row[x], y > 0 ? above[x] : 0, known, most, borders);
      }
      int[] swap = above;
      above = row;
      row = swap;
    }
  }

  private static void border(
      int a, int b, int[] pixels, int most, Map<Integer, Integer>[] borders) {
    if (a == b || a == 0 || b == 0) {
      return;
    }
    for (int[] pair : new int[][] {{a, b}, {b, a}}) {
      if (pixels[pair[0]] <= most) {
        if (borders[pair[0]] == null) {
          borders[pair[0]] = new HashMap<>(8);
        }
        borders[pair[0]].merge(pair[1], 1, Integer::sum);
      }
    }
  }
}
