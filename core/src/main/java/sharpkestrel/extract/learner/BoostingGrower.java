package sharpkestrel.extract.learner;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.SplittableRandom;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;

/**
 * Gradient boosting of trees by second-order steps on binned values (Friedman 2001, Annals of Statistics 29(5); Chen and Guestrin 2016,
 * KDD). Each round grows a tree an output against the slopes of the loss on a random part of the rows and features; histograms of
 * the larger child are those of its parent less those of the smaller. Features are counted by threads, rows in order, so that sums do
 * not depend on threads.
 */
final class BoostingGrower {

  /** What is brought down, and what the sum of the trees stands for. */
  enum Loss {
    /** Two classes; the sum is the logarithm of the odds of the second. */
    LOGISTIC,
    /** Several classes; sums are logarithms of their shares but for what is common. */
    SOFTMAX,
    /** A number. */
    SQUARED
  }

  /**
   * @param rate how much of each step is made
   * @param rowShare share of the rows that a tree sees, and {@code featureShare} of the features
   * @param smoothing added to the curvature of a leaf
   * @param leastCurvature of a leaf
   */
  record Settings(
      int rounds,
      double rate,
      int deepest,
      double rowShare,
      double featureShare,
      double smoothing,
      double leastCurvature) {

    static final Settings USUAL = new Settings(220, 0.1, 6, 0.8, 0.5, 1, 2);

    /** With several classes each round grows as many trees. */
    Settings withRounds(int newRounds) {
      return new Settings(
          newRounds, rate, deepest, rowShare, featureShare, smoothing, leastCurvature);
    }
  }

  private final Examples examples;
  private final Bins bins;
  private final Settings settings;
  private final Job job;
  private final int outputs;
  private final SplittableRandom random;
  private final Trees trees;
  private final float[] slope;
  private final float[] curvature;
  private int[] order = {};
  private int[] features = {};

  private BoostingGrower(
      Examples examples, Bins bins, Settings settings, int outputs, long seed, Job job) {
    this.examples = examples;
    this.bins = bins;
    this.settings = settings;
    this.outputs = outputs;
    this.job = job;
    random = new SplittableRandom(seed);
    trees = new Trees(examples.columns().length, outputs);
    slope = new float[examples.count()];
    curvature = new float[examples.count()];
  }

  /**
   * @param targets for each row what is to be reached: 0 or 1, the place of the class, or the number
   */
  static Trees grow(
      Examples examples,
      Bins bins,
      Loss loss,
      float[] targets,
      Settings settings,
      long seed,
      Job job) {
    int outputs = loss == Loss.SOFTMAX ? examples.classes().size() : 1;
    BoostingGrower grower = new BoostingGrower(examples, bins, settings, outputs, seed, job);
    grower.run(loss, targets);
    return grower.trees;
  }

  private void run(Loss loss, float[] targets) {
    int n = examples.count();
    float[] sums = new float[n * outputs];
    trees.beginTree();
    int root = trees.addNode();
    for (int k = 0; k < outputs; k++) {
      float start = start(loss, targets, k);
      trees.setValue(root, k, start);
      for (int i = 0; i < n; i++) {
        sums[i * outputs + k] = start;
      }
    }
    float[] shares = new float[outputs];
    for (int round = 0; round < settings.rounds(); round++) {
      job.cancellation().check();
      float[] before = outputs > 1 ? sums.clone() : sums;
      for (int k = 0; k < outputs; k++) {
        slopes(loss, targets, before, k, shares);
        int tree = trees.trees();
        growTree(k);
        for (int i = 0; i < n; i++) {
          sums[i * outputs + k] += trees.value(trees.leaf(tree, examples.columns(), i), k);
        }
      }
      job.progress("Learning", round + 1, settings.rounds());
    }
  }

  private float start(Loss loss, float[] targets, int output) {
    double sum = 0;
    double all = 0;
    for (int i = 0; i < targets.length; i++) {
      float target = loss == Loss.SOFTMAX ? (targets[i] == output ? 1 : 0) : targets[i];
      sum += examples.weights()[i] * target;
      all += examples.weights()[i];
    }
    double mean = sum / all;
    double share = Math.clamp(mean, 1e-4, 1 - 1e-4);
    return (float)
        switch (loss) {
          case LOGISTIC -> Math.log(share / (1 - share));
          case SOFTMAX -> Math.log(share);
          case SQUARED -> mean;
        };
  }

  private void slopes(Loss loss, float[] targets, float[] sums, int output, float[] shares) {
    for (int i = 0; i < slope.length; i++) {
      float weight = examples.weights()[i];
      if (loss == Loss.SQUARED) {
        slope[i] = weight * (sums[i] - targets[i]);
        curvature[i] = weight;
        continue;
      }
      float p;
      float target;
      if (loss == Loss.LOGISTIC) {
        p = logistic(sums[i]);
        target = targets[i];
      } else {
        System.arraycopy(sums, i * outputs, shares, 0, outputs);
        softmax(shares);
        p = shares[output];
        target = targets[i] == output ? 1 : 0;
      }
      slope[i] = weight * (p - target);
      curvature[i] = weight * Math.max(1e-6f, p * (1 - p));
    }
  }

  static float logistic(double sum) {
    return (float) (1 / (1 + Math.exp(-sum)));
  }

  /** Turns logarithms into shares. */
  static void softmax(float[] sums) {
    float most = Float.NEGATIVE_INFINITY;
    for (float s : sums) {
      most = Math.max(most, s);
    }
    double all = 0;
    for (int k = 0; k < sums.length; k++) {
      sums[k] = (float) Math.exp(sums[k] - most);
      all += sums[k];
    }
    for (int k = 0; k < sums.length; k++) {
      sums[k] /= (float) all;
    }
  }

  /** A node that may be split: its rows, and of each feature drawn what slopes and curvatures its bins hold. */
  private static final class Open {
    int node;
    int from;
    int to;
    int depth;
    double slopes;
    double curvatures;
    double[][] histograms;
  }

  private void growTree(int output) {
    draw();
    trees.beginTree();
    Open root = new Open();
    root.node = trees.addNode();
    root.to = order.length;
    weigh(root);
    root.histograms = count(root);
    setValue(root, output);
    List<Open> open = new ArrayList<>(List.of(root));
    while (!open.isEmpty()) {
      List<Open> next = new ArrayList<>();
      for (Open node : open) {
        split(node, output, next);
      }
      open = next;
    }
  }

  private void draw() {
    int n = examples.count();
    int rows = 0;
    int[] drawn = new int[n];
    for (int i = 0; i < n; i++) {
      if (settings.rowShare() >= 1 || random.nextDouble() < settings.rowShare()) {
        drawn[rows++] = i;
      }
    }
    order = Arrays.copyOf(drawn, rows);
    int all = examples.columns().length;
    int wanted = Math.max(1, (int) Math.round(settings.featureShare() * all));
    int[] shuffled = new int[all];
    Arrays.setAll(shuffled, f -> f);
    for (int i = 0; i < wanted; i++) {
      int j = i + random.nextInt(all - i);
      int moved = shuffled[i];
      shuffled[i] = shuffled[j];
      shuffled[j] = moved;
    }
    features = Arrays.copyOf(shuffled, wanted);
    Arrays.sort(features);
  }

  private void weigh(Open node) {
    double slopes = 0;
    double curvatures = 0;
    for (int i = node.from; i < node.to; i++) {
      slopes += slope[order[i]];
      curvatures += curvature[order[i]];
    }
    node.slopes = slopes;
    node.curvatures = curvatures;
  }

  private void setValue(Open node, int output) {
    double step = -node.slopes / (node.curvatures + settings.smoothing());
    trees.setValue(node.node, output, (float) (settings.rate() * step));
  }

  private double[][] count(Open node) {
    double[][] histograms = new double[features.length][];
    int lanes = node.to - node.from > 2000 ? Math.min(job.threads(), features.length) : 1;
    if (lanes == 1) {
      for (int f = 0; f < features.length; f++) {
        histograms[f] = count(features[f], node);
      }
    } else {
      Parallel.run(lanes, job, lane -> {
        for (int f = lane; f < features.length; f += lanes) {
          histograms[f] = count(features[f], node);
        }
      });
    }
    return histograms;
  }

  private double[] count(int feature, Open node) {
    double[] histogram = new double[2 * bins.bins(feature)];
    byte[] codes = bins.codes[feature];
    for (int i = node.from; i < node.to; i++) {
      int row = order[i];
      int at = 2 * (codes[row] & 0xff);
      histogram[at] += slope[row];
      histogram[at + 1] += curvature[row];
    }
    return histogram;
  }

  private void split(Open node, int output, List<Open> next) {
    if (node.depth >= settings.deepest() || node.to - node.from < 2) {
      return;
    }
    double none = gain(node.slopes, node.curvatures);
    double best = none + 1e-6;
    int bestFeature = -1;
    int bestBin = 0;
    boolean bestUnknownLeft = false;
    for (int f = 0; f < features.length; f++) {
      double[] histogram = node.histograms[f];
      int unknown = 2 * bins.unknown(features[f]);
      boolean hasUnknown = histogram[unknown + 1] > 0;
      for (int side = 0; side < (hasUnknown ? 2 : 1); side++) {
        double slopes = side == 1 ? histogram[unknown] : 0;
        double curvatures = side == 1 ? histogram[unknown + 1] : 0;
        for (int bin = 1; 2 * bin < unknown; bin++) {
          slopes += histogram[2 * bin - 2];
          curvatures += histogram[2 * bin - 1];
          double rest = node.curvatures - curvatures;
          if (curvatures < settings.leastCurvature() || rest < settings.leastCurvature()) {
            continue;
          }
          double score = gain(slopes, curvatures) + gain(node.slopes - slopes, rest);
          if (score > best) {
            best = score;
            bestFeature = f;
            bestBin = bin;
            bestUnknownLeft = side == 1;
          }
        }
      }
    }
    if (bestFeature < 0) {
      return;
    }
    int feature = features[bestFeature];
    int middle = part(feature, bestBin, bestUnknownLeft, node.from, node.to);
    int first = trees.split(node.node, feature, bins.cuts[feature][bestBin - 1], bestUnknownLeft);
    Open left = child(node, first, node.from, middle);
    Open right = child(node, first + 1, middle, node.to);
    setValue(left, output);
    setValue(right, output);
    if (left.depth < settings.deepest()) {
      boolean leftIsSmall = middle - node.from <= node.to - middle;
      Open small = leftIsSmall ? left : right;
      Open large = leftIsSmall ? right : left;
      small.histograms = count(small);
      large.histograms = node.histograms;
      for (int f = 0; f < features.length; f++) {
        for (int b = 0; b < large.histograms[f].length; b++) {
          large.histograms[f][b] -= small.histograms[f][b];
        }
      }
      next.add(left);
      next.add(right);
    }
    node.histograms = null;
  }

  private Open child(Open parent, int node, int from, int to) {
    Open child = new Open();
    child.node = node;
    child.from = from;
    child.to = to;
    child.depth = parent.depth + 1;
    weigh(child);
    return child;
  }

  private double gain(double slopes, double curvatures) {
    return slopes * slopes / (curvatures + settings.smoothing());
  }

  /** Stable, so that sums are added in the order of the rows. */
  private int part(int feature, int bin, boolean unknownLeft, int from, int to) {
    int unknown = bins.unknown(feature);
    byte[] codes = bins.codes[feature];
    int[] right = new int[to - from];
    int low = from;
    int others = 0;
    for (int i = from; i < to; i++) {
      int code = codes[order[i]] & 0xff;
      boolean left = code == unknown ? unknownLeft : code < bin;
      if (left) {
        order[low++] = order[i];
      } else {
        right[others++] = order[i];
      }
    }
    System.arraycopy(right, 0, order, low, others);
    return low;
  }
}
