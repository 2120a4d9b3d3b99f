package sharpkestrel.extract.learner;

import java.util.Arrays;
import java.util.BitSet;
import java.util.SplittableRandom;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;

/**
 * Random forests (Breiman 2001, Machine Learning 45) on binned values, and extremely randomised trees (Geurts, Ernst and Wehenkel 2006,
 * Machine Learning 63). Splits lessen the Gini impurity most among the features that a node draws; rows whose value is not known go
 * to the side where they fit better. Trees are grown beside each other and joined in order, so that threads do not show.
 */
final class ForestGrower {

  /**
   * @param perSplit features that a node draws; 0 for the square root of all
   * @param leastLeaf rows that a leaf has at least
   * @param extreme whether each drawn feature is split at random, on all rows rather than a sample with replacement
   */
  record Settings(int trees, int perSplit, int leastLeaf, int deepest, boolean extreme) {}

  /** A power of two: places among so many rows share an int with a bin. */
  private static final int FEW_BITS = 6;

  private static final int FEW = 1 << FEW_BITS;

  private final Examples examples;
  private final Bins bins;
  private final Settings settings;
  private final int classes;

  private ForestGrower(Examples examples, Bins bins, Settings settings) {
    this.examples = examples;
    this.bins = bins;
    this.settings = settings;
    classes = examples.classes().size();
  }

  /**
   * @param trees whose values add up to the shares of classes
   * @param outOfBag for each row the shares by the trees that have not seen it, {@code classes} each; NaN where all have
   */
  record Forest(Trees trees, float[] outOfBag) {}

  static Forest grow(Examples examples, Bins bins, Settings settings, long seed, Job job) {
    ForestGrower grower = new ForestGrower(examples, bins, settings);
    Trees[] grown = new Trees[settings.trees()];
    BitSet[] seen = new BitSet[settings.trees()];
    SplittableRandom seeds = new SplittableRandom(seed);
    long[] own = new long[grown.length];
    Arrays.setAll(own, t -> seeds.nextLong());
    Parallel.run(grown.length, job, t -> {
      Tree tree = grower.new Tree(new SplittableRandom(own[t]));
      tree.grow();
      grown[t] = tree.made;
      seen[t] = tree.seen;
    });
    Trees all = new Trees(examples.columns().length, grower.classes);
    for (Trees each : grown) {
      all.addAll(each);
    }
    return new Forest(all, settings.extreme() ? new float[0] : grower.outOfBag(all, seen));
  }

  private float[] outOfBag(Trees trees, BitSet[] seen) {
    float[] shares = new float[examples.count() * classes];
    for (int i = 0; i < examples.count(); i++) {
      int unseen = 0;
      for (int t = 0; t < seen.length; t++) {
        if (!seen[t].get(i)) {
          int leaf = trees.leaf(t, examples.columns(), i);
          unseen++;
          for (int k = 0; k < classes; k++) {
            shares[i * classes + k] += trees.value(leaf, k);
          }
        }
      }
      // a tree's values are its part of the whole forest's
      float scale = unseen == 0 ? Float.NaN : (float) settings.trees() / unseen;
      for (int k = 0; k < classes; k++) {
        shares[i * classes + k] *= scale;
      }
    }
    return shares;
  }

  /** A split that has been found. */
  private static final class Split {
    double score;
    int feature = -1;
    int bin;
    boolean unknownLeft;
  }

  private final class Tree {
    final SplittableRandom random;
    final Trees made = new Trees(examples.columns().length, classes);
    final BitSet seen = new BitSet();
    final int[] classOf = examples.classOf();
    final float[] weights = examples.weights();
    int[] rows;
    final int[] features = new int[examples.columns().length];
    final double[] counts = new double[(Bins.MOST + 2) * classes];
    final int[] rowsOfBin = new int[Bins.MOST + 2];
    final int[] sorted = new int[FEW];
    final double[] sums = new double[classes];
    final double[] unknownSums = new double[classes];
    final double[] leftSums = new double[classes];

    Tree(SplittableRandom random) {
      this.random = random;
    }

    void grow() {
      int n = examples.count();
      rows = new int[n];
      for (int i = 0; i < n; i++) {
        rows[i] = settings.extreme() ? i : random.nextInt(n);
        seen.set(rows[i]);
      }
      Arrays.setAll(features, f -> f);
      made.beginTree();
      grow(made.addNode(), 0, n, 0);
    }

    private void grow(int node, int from, int to, int depth) {
      double all = weigh(from, to);
      double square = 0;
      for (int k = 0; k < classes; k++) {
        square += sums[k] * sums[k];
        made.setValue(node, k, (float) (sums[k] / all / settings.trees()));
      }
      boolean pure = square >= all * all * (1 - 1e-9);
      if (pure || to - from < 2 * settings.leastLeaf() || depth >= settings.deepest()) {
        return;
      }
      Split best = new Split();
      best.score = square / all * (1 + 1e-9);
      int tried = 0;
      int wanted = settings.perSplit() > 0
          ? settings.perSplit()
          : (int) Math.max(1, Math.round(Math.sqrt(features.length)));
      // those that do not vary here do not count as drawn
      for (int left = features.length; left > 0 && tried < wanted; left--) {
        int drawn = random.nextInt(left);
        int feature = features[drawn];
        features[drawn] = features[left - 1];
        features[left - 1] = feature;
        tried += tries(feature, from, to, best) ? 1 : 0;
      }
      if (best.feature < 0) {
        return;
      }
      int middle = part(best, from, to);
      int first =
          made.split(node, best.feature, bins.cuts[best.feature][best.bin - 1], best.unknownLeft);
      grow(first, from, middle, depth + 1);
      grow(first + 1, middle, to, depth + 1);
    }

    private double weigh(int from, int to) {
      Arrays.fill(sums, 0);
      double all = 0;
      for (int i = from; i < to; i++) {
        float weight = weights[rows[i]];
        sums[classOf[rows[i]]] += weight;
        all += weight;
      }
      return all;
    }

    /** Looks for a better split by one feature; false where it has but one value here. */
    private boolean tries(int feature, int from, int to, Split best) {
      int unknown = bins.unknown(feature);
      byte[] codes = bins.codes[feature];
      int low = Integer.MAX_VALUE;
      int high = -1;
      int unknowns = 0;
      Arrays.fill(unknownSums, 0);
      for (int i = from; i < to; i++) {
        int row = rows[i];
        int code = codes[row] & 0xff;
        if (code == unknown) {
          unknowns++;
          unknownSums[classOf[row]] += weights[row];
        } else {
          low = Math.min(low, code);
          high = Math.max(high, code);
        }
      }
      if (high <= low) {
        return false;
      }
      if (settings.extreme()) {
        triesOne(feature, from, to, drawn(feature, low, high), unknowns, best);
      } else if (to - from <= FEW) {
        triesFew(feature, from, to, unknowns, best);
      } else {
        triesAll(feature, from, to, low, high, unknowns, best);
      }
      return true;
    }

    /** Starts the left side empty, or with the rows whose value is not known; says how many those are. */
    private int begin(boolean unknownLeft, int unknowns) {
      for (int k = 0; k < classes; k++) {
        leftSums[k] = unknownLeft ? unknownSums[k] : 0;
      }
      return unknownLeft ? unknowns : 0;
    }

    private boolean isWide(int leftRows, int all) {
      return leftRows >= settings.leastLeaf() && all - leftRows >= settings.leastLeaf();
    }

    private void triesOne(int feature, int from, int to, int bin, int unknowns, Split best) {
      byte[] codes = bins.codes[feature];
      int unknown = bins.unknown(feature);
      for (int side = 0; side < (unknowns > 0 ? 2 : 1); side++) {
        int leftRows = begin(side == 1, unknowns);
        for (int i = from; i < to; i++) {
          int code = codes[rows[i]] & 0xff;
          if (code < bin && code != unknown) {
            leftSums[classOf[rows[i]]] += weights[rows[i]];
            leftRows++;
          }
        }
        if (isWide(leftRows, to - from)) {
          take(feature, bin, side == 1, best);
        }
      }
    }

    /** Sorts few rows rather than going through all bins. */
    private void triesFew(int feature, int from, int to, int unknowns, Split best) {
      byte[] codes = bins.codes[feature];
      int unknown = bins.unknown(feature);
      int known = 0;
      for (int i = from; i < to; i++) {
        int code = codes[rows[i]] & 0xff;
        if (code != unknown) {
          int entry = code << FEW_BITS | i - from;
          int at = known++;
          while (at > 0 && sorted[at - 1] > entry) {
            sorted[at] = sorted[at - 1];
            at--;
          }
          sorted[at] = entry;
        }
      }
      for (int side = 0; side < (unknowns > 0 ? 2 : 1); side++) {
        int leftRows = begin(side == 1, unknowns);
        for (int i = 0; i < known - 1; i++) {
          int row = rows[from + (sorted[i] & FEW - 1)];
          leftSums[classOf[row]] += weights[row];
          leftRows++;
          int code = sorted[i] >> FEW_BITS;
          if (sorted[i + 1] >> FEW_BITS != code && isWide(leftRows, to - from)) {
            take(feature, code + 1, side == 1, best);
          }
        }
      }
    }

    private void triesAll(
        int feature, int from, int to, int low, int high, int unknowns, Split best) {
      byte[] codes = bins.codes[feature];
      Arrays.fill(counts, low * classes, (high + 1) * classes, 0);
      Arrays.fill(rowsOfBin, low, high + 1, 0);
      int unknown = bins.unknown(feature);
      for (int i = from; i < to; i++) {
        int row = rows[i];
        int code = codes[row] & 0xff;
        if (code != unknown) {
          counts[code * classes + classOf[row]] += weights[row];
          rowsOfBin[code]++;
        }
      }
      for (int side = 0; side < (unknowns > 0 ? 2 : 1); side++) {
        int leftRows = begin(side == 1, unknowns);
        for (int bin = low + 1; bin <= high; bin++) {
          if (rowsOfBin[bin - 1] == 0) {
            continue;
          }
          for (int k = 0; k < classes; k++) {
            leftSums[k] += counts[(bin - 1) * classes + k];
          }
          leftRows += rowsOfBin[bin - 1];
          if (isWide(leftRows, to - from)) {
            take(feature, bin, side == 1, best);
          }
        }
      }
    }

    private void take(int feature, int bin, boolean unknownLeft, Split best) {
      double left = 0;
      double right = 0;
      double leftSquare = 0;
      double rightSquare = 0;
      for (int k = 0; k < classes; k++) {
        double rest = sums[k] - leftSums[k];
        left += leftSums[k];
        right += rest;
        leftSquare += leftSums[k] * leftSums[k];
        rightSquare += rest * rest;
      }
      if (!(left > 0 && right > 0)) {
        return;
      }
      double score = leftSquare / left + rightSquare / right;
      if (score > best.score) {
        best.score = score;
        best.feature = feature;
        best.bin = bin;
        best.unknownLeft = unknownLeft;
      }
    }

    /** A bin's lower end at random, by value between the least and the largest here. */
    private int drawn(int feature, int low, int high) {
      float[] cuts = bins.cuts[feature];
      double from = cuts[low];
      double to = cuts[high - 1];
      int bin = Bins.bin(cuts, (float) (from + (to - from) * random.nextDouble()));
      return Math.clamp(bin, low + 1, high);
    }

    private int part(Split split, int from, int to) {
      int unknown = bins.unknown(split.feature);
      int low = from;
      int high = to - 1;
      while (low <= high) {
        int code = bins.code(split.feature, rows[low]);
        boolean left = code == unknown ? split.unknownLeft : code < split.bin;
        if (left) {
          low++;
        } else {
          int moved = rows[low];
          rows[low] = rows[high];
          rows[high--] = moved;
        }
      }
      return low;
    }
  }
}
