package sharpkestrel.extract.everysize;

import java.util.Arrays;
import java.util.stream.IntStream;
import sharpkestrel.segment.MergeTree;

/**
 * The set of nodes with the greatest total score of which none lies in another, found from the leaves up: a node is taken where it
 * scores more than the best set within it (the disjoint set of Arbelaez et al. 2011, IEEE TPAMI 33(5), with learned scores). Nodes that
 * score nothing or less are never taken. One pass over the tree.
 */
public final class BestSet {

  private BestSet() {}

  /**
   * @param nodes that have a score, ascending
   * @param scores of those
   * @return places in {@code nodes} of the chosen ones, ascending
   */
  public static int[] choose(MergeTree tree, int[] nodes, double[] scores) {
    double[] best = new double[tree.nodes()];
    boolean[] taken = new boolean[tree.nodes()];
    int at = 0;
    for (int node = 0; node < tree.nodes(); node++) {
      if (at < nodes.length && nodes[at] == node) {
        double score = scores[at++];
        if (score > 0 && score >= best[node]) {
          best[node] = score;
          taken[node] = true;
        }
      }
      int parent = tree.parent(node);
      if (parent >= 0) {
        best[parent] += best[node];
      }
    }
    // from the roots down: what lies in a taken node is not taken
    boolean[] covered = new boolean[tree.nodes()];
    for (int node = tree.nodes() - 1; node >= 0; node--) {
      int parent = tree.parent(node);
      covered[node] = parent >= 0 && (covered[parent] || taken[parent]);
    }
    int[] chosen = IntStream.range(0, nodes.length)
        .filter(i -> taken[nodes[i]] && !covered[nodes[i]])
        .toArray();
    return chosen;
  }

  /**
   * For each leaf the place of the chosen node that holds it, -1 for none.
   *
   * @param chosen nodes none of which lies in another
   */
  public static int[] ofLeaves(MergeTree tree, int[] chosen) {
    int[] place = new int[tree.nodes()];
    Arrays.fill(place, -1);
    for (int i = 0; i < chosen.length; i++) {
      place[chosen[i]] = i;
    }
    for (int node = tree.nodes() - 1; node >= 0; node--) {
      int parent = tree.parent(node);
      if (place[node] < 0 && parent >= 0) {
        place[node] = place[parent];
      }
    }
    return Arrays.copyOf(place, tree.leaves());
  }
}
