package sharpkestrel.extract.everysize;

import java.util.Arrays;
import sharpkestrel.segment.MergeTree;

/**
 * The lowest node of a merge tree that holds two leaves. Leaves stand in a row so that each node's are together; between neighbours stands
 * the node in which they meet. As a node's number is above those of its children, the answer is the largest number between the two
 * (Gabow, Bentley and Tarjan 1984, STOC): looked up for whole blocks of {@value #BLOCK}, and by hand within one, so that
 * memory stays a few bytes a leaf.
 */
final class CommonAncestors {

  /** For leaves of different roots. */
  static final int NONE = Integer.MAX_VALUE;

  private static final int BLOCK = 16;

  private final int[] place;

  /** The node in which the leaves at places i and i + 1 meet. */
  private final int[] between;

  /** For each power of two the largest number of so many blocks. */
  private final int[][] largest;

  CommonAncestors(MergeTree tree) {
    int leaves = tree.leaves();
    int[] first = new int[tree.nodes()];
    int[] last = new int[tree.nodes()];
    int[] next = new int[Math.max(1, leaves)];
    Arrays.fill(first, -1);
    Arrays.fill(next, -1);
    place = new int[leaves];
    between = new int[Math.max(1, leaves)];
    Arrays.fill(between, NONE);
    int[] meets = new int[Math.max(1, leaves)];
    Arrays.fill(meets, NONE);
    // lists of leaves are joined as their nodes are, and remember where
    for (int node = 0; node < tree.nodes(); node++) {
      if (node < leaves) {
        first[node] = node;
        last[node] = node;
      }
      int parent = tree.parent(node);
      if (parent < 0) {
        continue;
      }
      if (first[parent] < 0) {
        first[parent] = first[node];
        last[parent] = last[node];
      } else {
        meets[last[parent]] = parent;
        next[last[parent]] = first[node];
        last[parent] = last[node];
      }
    }
    int at = 0;
    for (int node = 0; node < tree.nodes(); node++) {
      if (tree.parent(node) < 0) {
        for (int leaf = first[node]; leaf >= 0; leaf = next[leaf]) {
          between[at] = meets[leaf];
          place[leaf] = at++;
        }
      }
    }
    int blocks = Math.ceilDiv(between.length, BLOCK);
    int levels = 32 - Integer.numberOfLeadingZeros(blocks);
    largest = new int[levels][];
    largest[0] = new int[blocks];
    for (int i = 0; i < between.length; i++) {
      largest[0][i / BLOCK] = Math.max(largest[0][i / BLOCK], between[i]);
    }
    for (int level = 1; level < levels; level++) {
      int half = 1 << (level - 1);
      largest[level] = new int[blocks - 2 * half + 1];
      for (int i = 0; i < largest[level].length; i++) {
        largest[level][i] = Math.max(largest[level - 1][i], largest[level - 1][i + half]);
      }
    }
  }

  /** The lowest node that holds both leaves; {@link #NONE} where they have different roots. */
  int of(int leaf, int other) {
    int from = Math.min(place[leaf], place[other]);
    int to = Math.max(place[leaf], place[other]);
    int most = 0;
    int firstBlock = Math.ceilDiv(from, BLOCK);
    int lastBlock = to / BLOCK;
    if (firstBlock >= lastBlock) {
      return largestOf(from, to);
    }
    most = Math.max(largestOf(from, firstBlock * BLOCK), largestOf(lastBlock * BLOCK, to));
    int level = 31 - Integer.numberOfLeadingZeros(lastBlock - firstBlock);
    return Math.max(
        most, Math.max(largest[level][firstBlock], largest[level][lastBlock - (1 << level)]));
  }

  private int largestOf(int from, int to) {
    int most = 0;
    for (int i = from; i < to; i++) {
      most = Math.max(most, between[i]);
    }
    return most;
  }
}
