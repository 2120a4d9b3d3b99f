package sharpkestrel.extract.learner;

import java.util.Arrays;

/**
 * Decision trees in flat arrays. A node's values stand for all that came to it, so that the way down a tree says what each feature
 * on it has added.
 *
 * <p>Rows are few hundred bytes and trees are walked thousands of times: children lie beside each other, and the four arrays of a
 * node's split are read together.
 */
public final class Trees {

  private static final int LEAF = -1;

  /** Ints that a node has where rows are walked side by side. */
  private static final int WIDE = 4;

  private final int outputs;
  private final int features;
  private int[] roots = new int[16];
  private int trees;
  private int nodes;
  private int[] feature = new int[1024];
  private float[] threshold = new float[1024];
  private int[] left = new int[1024];
  private boolean[] unknownLeft = new boolean[1024];
  private float[] values;

  /** What {@link #walk()} makes, once all is grown. */
  private volatile int[] walk;

  Trees(int features, int outputs) {
    this.features = features;
    this.outputs = outputs;
    values = new float[1024 * outputs];
  }

  /** From what was written of them; arrays are taken over. */
  Trees(
      int features,
      int outputs,
      int[] roots,
      int[] feature,
      float[] threshold,
      int[] left,
      boolean[] unknownLeft,
      float[] values) {
    this(features, outputs);
    this.roots = roots;
    this.feature = feature;
    this.threshold = threshold;
    this.left = left;
    this.unknownLeft = unknownLeft;
    this.values = values;
    trees = roots.length;
    nodes = feature.length;
    for (int node = 0; node < nodes; node++) {
      boolean leaf = feature[node] == LEAF;
      boolean inside = feature[node] < features && left[node] > node && left[node] + 1 < nodes;
      if (!leaf && (feature[node] < 0 || !inside)) {
        throw new IllegalArgumentException("Node " + node + " of the trees leads nowhere.");
      }
    }
    for (int root : roots) {
      if (root < 0 || root >= nodes) {
        throw new IllegalArgumentException("A tree begins at node " + root + " of " + nodes + ".");
      }
    }
  }

  /** Begins a tree whose root is the next node. */
  void beginTree() {
    if (trees == roots.length) {
      roots = Arrays.copyOf(roots, 2 * trees);
    }
    roots[trees++] = nodes;
  }

  /** A new leaf, which may become a split. */
  int addNode() {
    if (nodes == feature.length) {
      int room = 2 * nodes;
      feature = Arrays.copyOf(feature, room);
      threshold = Arrays.copyOf(threshold, room);
      left = Arrays.copyOf(left, room);
      unknownLeft = Arrays.copyOf(unknownLeft, room);
      values = Arrays.copyOf(values, room * outputs);
    }
    feature[nodes] = LEAF;
    walk = null;
    return nodes++;
  }

  /** Adds two leaves under a node and makes it their split: what is under the threshold goes left, else right. */
  int split(int node, int ofFeature, float at, boolean unknownGoesLeft) {
    int first = addNode();
    addNode();
    feature[node] = ofFeature;
    threshold[node] = at;
    left[node] = first;
    unknownLeft[node] = unknownGoesLeft;
    return first;
  }

  void setValue(int node, int output, float value) {
    values[node * outputs + output] = value;
  }

  float value(int node, int output) {
    return values[node * outputs + output];
  }

  /** Takes in the trees of another. */
  void addAll(Trees other) {
    walk = null;
    int base = nodes;
    int room = nodes + other.nodes;
    feature = Arrays.copyOf(feature, room);
    threshold = Arrays.copyOf(threshold, room);
    left = Arrays.copyOf(left, room);
    unknownLeft = Arrays.copyOf(unknownLeft, room);
    values = Arrays.copyOf(values, room * outputs);
    System.arraycopy(other.feature, 0, feature, base, other.nodes);
    System.arraycopy(other.threshold, 0, threshold, base, other.nodes);
    System.arraycopy(other.unknownLeft, 0, unknownLeft, base, other.nodes);
    System.arraycopy(other.values, 0, values, base * outputs, other.nodes * outputs);
    for (int i = 0; i < other.nodes; i++) {
      left[base + i] = other.left[i] + base;
    }
    nodes = room;
    roots = Arrays.copyOf(roots, trees + other.trees);
    for (int t = 0; t < other.trees; t++) {
      roots[trees++] = other.roots[t] + base;
    }
  }

  public int trees() {
    return trees;
  }

  public int outputs() {
    return outputs;
  }

  public int features() {
    return features;
  }

  public int nodes() {
    return nodes;
  }

  int leaf(int tree, float[] row) {
    int node = roots[tree];
    while (feature[node] >= 0) {
      float v = row[feature[node]];
      boolean goesLeft = Float.isNaN(v) ? unknownLeft[node] : v < threshold[node];
      node = left[node] + (goesLeft ? 0 : 1);
    }
    return node;
  }

  /** The same of a row of columns. */
  int leaf(int tree, float[][] columns, int row) {
    int node = roots[tree];
    while (feature[node] >= 0) {
      float v = columns[feature[node]][row];
      boolean goesLeft = Float.isNaN(v) ? unknownLeft[node] : v < threshold[node];
      node = left[node] + (goesLeft ? 0 : 1);
    }
    return node;
  }

  /** Adds up what the leaves of all trees say of a row. */
  void sum(float[] row, float[] out) {
    Arrays.fill(out, 0, outputs, 0);
    for (int t = 0; t < trees; t++) {
      int at = leaf(t, row) * outputs;
      for (int k = 0; k < outputs; k++) {
        out[k] += values[at + k];
      }
    }
  }

  /**
   * The same of many rows, tree by tree: one tree fits the nearest cache, all of them do not. Where all values are finite, some rows
   * go down a tree side by side.
   */
  void sum(float[][] rows, int count, float[][] out) {
    int[] leaves = new int[count];
    boolean finite = areFinite(rows, count);
    int[] walk = finite ? walk() : new int[0];
    for (int i = 0; i < count; i++) {
      Arrays.fill(out[i], 0, outputs, 0);
    }
    for (int t = 0; t < trees; t++) {
      if (finite) {
        walk(walk, roots[t], rows, count, leaves);
      } else {
        for (int i = 0; i < count; i++) {
          leaves[i] = leaf(t, rows[i]);
        }
      }
      for (int i = 0; i < count; i++) {
        int at = leaves[i] * outputs;
        float[] sums = out[i];
        for (int k = 0; k < outputs; k++) {
          sums[k] += values[at + k];
        }
      }
    }
  }

  private boolean areFinite(float[][] rows, int count) {
    for (int i = 0; i < count; i++) {
      for (int f = 0; f < features; f++) {
        if (!Float.isFinite(rows[i][f])) {
          return false;
        }
      }
    }
    return true;
  }

  /**
   * For each node, side by side: its feature, the bits of its threshold, and the node on its right. A leaf leads to itself, as nothing
   * is under its threshold.
   */
  private int[] walk() {
    int[] known = walk;
    if (known != null) {
      return known;
    }
    int[] made = new int[WIDE * nodes];
    for (int node = 0; node < nodes; node++) {
      boolean leaf = feature[node] == LEAF;
      made[WIDE * node] = leaf ? 0 : feature[node];
      // less a zero below nothing, either zero is above it: no difference of them has a sign
      float at = threshold[node] == 0 ? -0f : threshold[node];
      made[WIDE * node + 1] = Float.floatToRawIntBits(leaf ? Float.NEGATIVE_INFINITY : at);
      made[WIDE * node + 2] = WIDE * (leaf ? node : left[node] + 1);
    }
    walk = made;
    return made;
  }

  private static void walk(int[] walk, int root, float[][] rows, int count, int[] leaves) {
    int start = WIDE * root;
    int i = 0;
    for (; i + 4 <= count; i += 4) {
      float[] rowA = rows[i];
      float[] rowB = rows[i + 1];
      float[] rowC = rows[i + 2];
      float[] rowD = rows[i + 3];
      int a = start;
      int b = start;
      int c = start;
      int d = start;
      int moved;
      do {
        int nextA = next(walk, a, rowA);
        int nextB = next(walk, b, rowB);
        int nextC = next(walk, c, rowC);
        int nextD = next(walk, d, rowD);
        moved = a ^ nextA | b ^ nextB | c ^ nextC | d ^ nextD;
        a = nextA;
        b = nextB;
        c = nextC;
        d = nextD;
      } while (moved != 0);
      leaves[i] = a / WIDE;
      leaves[i + 1] = b / WIDE;
      leaves[i + 2] = c / WIDE;
      leaves[i + 3] = d / WIDE;
    }
    for (; i < count; i++) {
      int at = start;
      for (int next = next(walk, at, rows[i]); next != at; next = next(walk, at, rows[i])) {
        at = next;
      }
      leaves[i] = at / WIDE;
    }
  }

  /** The node below one, without a branch that would be guessed wrong half of the time: the sign of a difference chooses. */
  private static int next(int[] walk, int at, float[] row) {
    float above = row[walk[at]] - Float.intBitsToFloat(walk[at + 1]);
    return walk[at + 2] - (Float.floatToRawIntBits(above) >>> 31) * WIDE;
  }

  /**
   * What each feature adds to one output on the ways down all trees: the change of the node's value at each split by it (Saabas 2014;
   * Palczewska et al. 2013, IEEE IRI). All of them and the roots' values add up to the output.
   *
   * @param out (output) one number a feature
   */
  void contributions(float[] row, int output, double[] out) {
    Arrays.fill(out, 0);
    for (int t = 0; t < trees; t++) {
      int node = roots[t];
      while (feature[node] >= 0) {
        int split = node;
        float v = row[feature[node]];
        boolean goesLeft = Float.isNaN(v) ? unknownLeft[node] : v < threshold[node];
        node = left[node] + (goesLeft ? 0 : 1);
        out[feature[split]] += value(node, output) - value(split, output);
      }
    }
  }

  int[] rootArray() {
    return Arrays.copyOf(roots, trees);
  }

  int[] featureArray() {
    return Arrays.copyOf(feature, nodes);
  }

  float[] thresholdArray() {
    return Arrays.copyOf(threshold, nodes);
  }

  int[] leftArray() {
    return Arrays.copyOf(left, nodes);
  }

  boolean[] unknownLeftArray() {
    return Arrays.copyOf(unknownLeft, nodes);
  }

  float[] valueArray() {
    return Arrays.copyOf(values, nodes * outputs);
  }
}
