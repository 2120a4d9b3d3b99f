package sharpkestrel.segment;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;

/**
 * What a superpixel becomes part of on its way up a merge tree, and which of that is a thing of its own: a rung that the tree
 * leaves alone for long while it joins others around it. A rung that only takes in crumbs stays the same rung: its life
 * ends where it has grown by {@value #CRUMBS}.
 */
public final class Branch {

  private static final double CRUMBS = 0.15;

  /** What is picked at first has at least so many pixels, and at most this share of the scene. */
  private static final int LEAST = 36;

  private static final double MOST = 0.02;

  /** Lives shorter than this do not make a rung natural. */
  private static final double LEAST_STABILITY = 0.15;

  private final int[] nodes;
  private final int[] pixels;
  private final double[] stability;
  private final MergingBy by;
  private final List<Integer> natural;

  private Branch(int[] nodes, int[] pixels, double[] stability, MergingBy by) {
    this.nodes = nodes;
    this.pixels = pixels;
    this.stability = stability;
    this.by = by;
    natural = naturalOnes();
  }

  /**
   * @param nodePixels pixels of every node, from {@link #pixelsOf}
   * @param leaf where the branch begins
   */
  public static Branch of(MergeTree tree, int[] nodePixels, int leaf) {
    int[] nodes = new int[64];
    int count = 0;
    for (int node = leaf; node >= 0; node = tree.parent(node)) {
      nodes = count == nodes.length ? Arrays.copyOf(nodes, 2 * count) : nodes;
      nodes[count++] = node;
    }
    nodes = Arrays.copyOf(nodes, count);
    int[] pixels = new int[count];
    double[] born = new double[count];
    for (int i = 0; i < count; i++) {
      pixels[i] = nodePixels[nodes[i]];
      born[i] = nodes[i] < tree.leaves() ? 0 : tree.heightOfMerge(nodes[i] - tree.leaves());
    }
    double[] stability = new double[count];
    // superpixels are born at no height; the least height of the branch stands for it
    double floor = count > 1 ? Math.max(1e-6, born[1] / 2) : 1;
    for (int i = 0, j = 0; i < count - 1; i++) {
      j = Math.max(j, i + 1);
      while (j < count - 1 && pixels[j] <= (1 + CRUMBS) * pixels[i]) {
        j++;
      }
      stability[i] = Math.log(Math.max(floor, born[j]) / Math.max(floor, born[i]));
    }
    return new Branch(nodes, pixels, stability, tree.by());
  }

  /** Pixels of every node of a tree; what has more than an int holds counts as the largest one. */
  public static int[] pixelsOf(MergeTree tree) {
    int[] pixels = new int[tree.nodes()];
    for (int node = 0; node < pixels.length; node++) {
      pixels[node] += node < tree.leaves() ? tree.pixels(node) : 0;
      if (tree.parent(node) >= 0) {
        long both = (long) pixels[tree.parent(node)] + pixels[node];
        pixels[tree.parent(node)] = (int) Math.min(Integer.MAX_VALUE, both);
      }
    }
    return pixels;
  }

  /**
   * Rungs that stay themselves for longer than all of about their size. Of those below and above it is enough to look at the
   * nearest that stays for as long: the others are further off in size. Those nearest ones are found in one pass each.
   */
  private List<Integer> naturalOnes() {
    int n = nodes.length;
    boolean[] best = new boolean[n];
    int[] rivals = new int[n];
    int count = 0;
    for (int i = 0; i < n; i++) {
      while (count > 0 && stability[rivals[count - 1]] < stability[i]) {
        count--;
      }
      best[i] = stability[i] >= LEAST_STABILITY
          && (count == 0 || pixels[rivals[count - 1]] * (1 + CRUMBS) < pixels[i]);
      rivals[count++] = i;
    }
    count = 0;
    for (int i = n - 1; i >= 0; i--) {
      while (count > 0 && stability[rivals[count - 1]] <= stability[i]) {
        count--;
      }
      best[i] &= count == 0 || pixels[rivals[count - 1]] > (1 + CRUMBS) * pixels[i];
      rivals[count++] = i;
    }
    return IntStream.range(0, n).filter(i -> best[i]).boxed().toList();
  }

  /** How many rungs there are, from the superpixel to the root. */
  public int rungs() {
    return nodes.length;
  }

  public int node(int rung) {
    return nodes[rung];
  }

  public int pixels(int rung) {
    return pixels[rung];
  }

  /** For how long the rung stays itself: the logarithm of the height it ends at over that it is born at. */
  public double stability(int rung) {
    return stability[rung];
  }

  /** The rungs that are things of their own, the smallest first. */
  public List<Integer> natural() {
    return natural;
  }

  /**
   * How much a rung is a thing of its own: it stays itself for long and its border is sharp. On trees by likeness the border
   * counts squared: of roofs of the survey that are clicked in their middle (seeds 1 to 3, imagery alone) 38 of 100 are met at
   * once, of 58 that the tree holds at all; by stability alone 25. A learned criterion has looked at borders already: on its
   * trees stability alone counts.
   *
   * @param edges rung by rung, from {@link RungEdges}
   */
  public double score(int rung, double[] edges) {
    if (Double.isNaN(edges[rung])) {
      return 0;
    }
    double border = bordersCount() ? edges[rung] * edges[rung] : 1;
    return stability[rung] * border;
  }

  /** Whether the score goes by the border too. */
  public boolean bordersCount() {
    return by == MergingBy.LIKENESS;
  }

  /** The rung that a click takes at first: not too small to be seen, nor a large part of the scene. */
  int best(MergeTree tree, double[] edges) {
    return best(LEAST, (int) Math.max(LEAST, MOST * tree.validPixels()), edges);
  }

  /**
   * The natural rung of a size with the highest score; the rung nearest to the least where there is none.
   *
   * @param least pixels, to {@code most}
   */
  int best(int least, int most, double[] edges) {
    int best = -1;
    for (int rung : natural) {
      boolean fits = pixels[rung] >= least && pixels[rung] <= most;
      if (fits && (best < 0 || score(rung, edges) > score(best, edges))) {
        best = rung;
      }
    }
    for (int i = 0; i < nodes.length && best < 0; i++) {
      best = pixels[i] >= least || i == nodes.length - 1 ? i : -1;
    }
    return best;
  }

  /** The natural rung above one, or the rung itself where there is none. */
  public int above(int rung) {
    return natural.stream().filter(r -> r > rung).findFirst().orElse(rung);
  }

  /** The natural rung below one, or the rung itself where there is none. */
  public int below(int rung) {
    return natural.stream().filter(r -> r < rung).reduce((a, b) -> b).orElse(rung);
  }

  /**
   * The nodes that hold some superpixels and none of others: the smallest that holds all the former; where it holds one of
   * the latter too, for each of the former the largest that does not.
   *
   * @param inside superpixels, at least one
   */
  public static int[] cut(MergeTree tree, int[] inside, int[] outside) {
    boolean[] kept = new boolean[tree.nodes()];
    for (int leaf : outside) {
      for (int node = leaf; node >= 0; node = tree.parent(node)) {
        kept[node] = true;
      }
    }
    int[] seen = new int[tree.nodes()];
    for (int leaf : inside) {
      for (int node = leaf; node >= 0; node = tree.parent(node)) {
        seen[node]++;
      }
    }
    for (int node = inside[0]; node >= 0; node = tree.parent(node)) {
      if (seen[node] == inside.length) {
        if (!kept[node]) {
          return new int[] {node};
        }
        break;
      }
    }
    List<Integer> nodes = new ArrayList<>();
    for (int leaf : inside) {
      int top = -1;
      for (int node = leaf; node >= 0 && !kept[node]; node = tree.parent(node)) {
        top = node;
      }
      if (top >= 0 && !nodes.contains(top)) {
        nodes.add(top);
      }
    }
    return nodes.stream().mapToInt(Integer::intValue).toArray();
  }

  /** For each label 0 to n of superpixels 0 where it lies under one of the nodes, -1 elsewhere. */
  public static int[] rowOf(MergeTree tree, int[] nodes) {
    boolean[] under = new boolean[tree.nodes()];
    for (int node : nodes) {
      under[node] = true;
    }
    int[] rowOf = new int[tree.leaves() + 1];
    rowOf[0] = -1;
    for (int node = tree.nodes() - 1; node >= 0; node--) {
      int up = tree.parent(node);
      under[node] |= up >= 0 && under[up];
      if (node < tree.leaves()) {
        rowOf[node + 1] = under[node] ? 0 : -1;
      }
    }
    return rowOf;
  }
}
