package sharpkestrel.segment;

import java.util.Arrays;

/**
 * The order in which superpixels merge into ever larger regions, as a binary tree.
 *
 * <p>Nodes 0 to n-1 are the superpixels; node n+i is made by merge i. Heights never fall from a node to its parent,
 * so a cut at a height is the same as the first k merges, and finding the object of every superpixel is one sweep down
 * the parents, in time that does not depend on the grain. Objects of a finer cut nest in those of a coarser one by
 * construction. The tree is a forest where no-data separates parts of the scene.
 */
public final class MergeTree {

  private final int leaves;
  private final int[] parent;
  private final float[] heights;
  private final int[] leafPixels;
  private final int merges;
  private final MergingBy by;

  MergeTree(int leaves, int merges, int[] parent, float[] heights, int[] leafPixels, MergingBy by) {
    this.leaves = leaves;
    this.merges = merges;
    this.by = by;
    this.parent = parent;
    this.heights = heights;
    this.leafPixels = leafPixels;
  }

  /** What told which neighbours merge first. */
  public MergingBy by() {
    return by;
  }

  public int leaves() {
    return leaves;
  }

  public int merges() {
    return merges;
  }

  public int nodes() {
    return leaves + merges;
  }

  /** The node a node merged into, or -1 for a root. */
  public int parent(int node) {
    return parent[node];
  }

  /** The height at which merge i happened. */
  public float heightOfMerge(int merge) {
    return heights[merge];
  }

  public int pixels(int leaf) {
    return leafPixels[leaf];
  }

  public long validPixels() {
    long sum = 0;
    for (int pixels : leafPixels) {
      sum += pixels;
    }
    return sum;
  }

  /** How many merges lie at or below a height. */
  public int mergesUpTo(double height) {
    int low = 0;
    int high = merges;
    while (low < high) {
      int middle = (low + high) >>> 1;
      if (heights[middle] <= height) {
        low = middle + 1;
      } else {
        high = middle;
      }
    }
    return low;
  }

  /** The lowest height at which there are at most {@code count} objects; that of the last merge where none is. */
  public double heightFor(long count) {
    long needed = Math.max(0, leaves - Math.max(count, 0));
    if (needed == 0 || merges == 0) {
      return 0;
    }
    return heights[(int) Math.min(needed, merges) - 1];
  }

  /** For each superpixel, the node that stands for its object when the first {@code k} merges are made. */
  public int[] nodesAfter(int k) {
    int[] node = new int[leaves + k];
    for (int i = leaves + k - 1; i >= 0; i--) {
      int up = parent[i];
      node[i] = up >= 0 && up < leaves + k ? node[up] : i;
    }
    return Arrays.copyOf(node, leaves);
  }

  /** Heap bytes of this tree for each superpixel. */
  public double bytesPerLeaf() {
    return (4.0 * parent.length + 4.0 * heights.length + 4.0 * leafPixels.length)
        / Math.max(1, leaves);
  }
}
