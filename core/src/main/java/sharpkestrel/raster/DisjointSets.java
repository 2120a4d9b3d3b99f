package sharpkestrel.raster;

import java.util.Arrays;

/**
 * Numbers from 0 in sets that are joined two by two (Tarjan 1975, J. ACM 22(2), 215-225, with path halving). The root of
 * a set is always its lowest number, so that sets are met in the order of their first members whatever the order of the
 * joins.
 */
public final class DisjointSets {

  private int[] parent;
  private int size;

  /**
   * @param size numbers there are at first, each a set of its own
   */
  public DisjointSets(int size) {
    this.size = size;
    parent = new int[Math.max(16, size)];
    Arrays.setAll(parent, i -> i);
  }

  /** A new number, a set of its own. */
  public int add() {
    if (size == parent.length) {
      parent = Arrays.copyOf(parent, 2 * size);
    }
    parent[size] = size;
    return size++;
  }

  public int size() {
    return size;
  }

  /** The lowest number of the set. */
  public int root(int i) {
    int at = i;
    while (parent[at] != at) {
      parent[at] = parent[parent[at]];
      at = parent[at];
    }
    return at;
  }

  /** Joins the sets of two numbers; returns their common root. */
  public int unite(int a, int b) {
    int rootA = root(a);
    int rootB = root(b);
    int low = Math.min(rootA, rootB);
    parent[Math.max(rootA, rootB)] = low;
    return low;
  }
}
