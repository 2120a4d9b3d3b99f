package sharpkestrel.extract.learner;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.stream.IntStream;
import org.bytedeco.javacpp.DoublePointer;
import org.bytedeco.javacpp.FloatPointer;
import org.bytedeco.javacpp.IntPointer;
import org.bytedeco.javacpp.PointerScope;
import org.bytedeco.opencv.global.opencv_core;
import org.bytedeco.opencv.global.opencv_ml;
import org.bytedeco.opencv.opencv_core.Mat;
import org.bytedeco.opencv.opencv_core.TermCriteria;
import org.bytedeco.opencv.opencv_ml.SVM;
import sharpkestrel.raster.Job;

/**
 * Learns support vectors with OpenCV, cost and width by a search over kept-back blocks. What it finds is taken out and evaluated
 * here, so that a model needs no library to be read.
 */
final class VectorLearner {

  private static final double[] COSTS = {1, 10, 100};

  /** Times one over the number of features. */
  private static final double[] WIDTHS = {0.1, 0.5, 2};

  private static final int FOLDS = 3;
  private static final int ITERATIONS = 20_000;
  private static final int MOST = 4000;

  private final Examples examples;
  private final Standard standard;
  private final float[][] rows;

  private VectorLearner(Examples examples) {
    this.examples = examples;
    standard = Standard.of(examples);
    rows = new float[examples.count()][examples.columns().length];
    float[] row = new float[examples.columns().length];
    for (int i = 0; i < rows.length; i++) {
      examples.row(i, row);
      standard.of(row, rows[i]);
    }
  }

  static VectorScorer learn(Examples all, long seed, Job job) {
    Examples examples = all.count() > MOST ? thinned(all, seed) : all;
    VectorLearner learner = new VectorLearner(examples);
    int[] foldOf = Folds.of(examples, FOLDS, seed);
    double[][] best = null;
    double bestLoss = Double.POSITIVE_INFINITY;
    double cost = COSTS[0];
    double width = WIDTHS[0];
    for (double c : COSTS) {
      for (double w : WIDTHS) {
        job.cancellation().check();
        double[][] kept = learner.keptBack(foldOf, c, w / examples.columns().length);
        double loss = learner.loss(kept);
        if (loss < bestLoss) {
          bestLoss = loss;
          best = kept;
          cost = c;
          width = w / examples.columns().length;
        }
      }
    }
    int[] everyone = IntStream.range(0, examples.count()).toArray();
    VectorScorer plain = learner.fit(everyone, cost, width);
    int classes = examples.classes().size();
    float[] slopes = new float[classes];
    float[] shifts = new float[classes];
    for (int k = 0; k < classes; k++) {
      double[] curve = learner.curve(best, k);
      slopes[k] = (float) curve[0];
      shifts[k] = (float) curve[1];
    }
    return new VectorScorer(
        learner.standard, plain.vectors(), plain.factors(), plain.offsets(), width, slopes, shifts);
  }

  /** So many of each class at most that all together are no more than {@value #MOST}. */
  private static Examples thinned(Examples all, long seed) {
    int[] counts = all.perClass();
    double share = (double) MOST / all.count();
    SplittableRandom random = new SplittableRandom(seed);
    int[] rows = IntStream.range(0, all.count())
        .filter(i -> random.nextDouble() < Math.max(share, 50.0 / counts[all.classOf()[i]]))
        .toArray();
    return all.select(rows);
  }

  /** For each row what the classes' decisions are where its fold was kept back. */
  private double[][] keptBack(int[] foldOf, double cost, double width) {
    double[][] decisions = new double[rows.length][];
    for (int fold = 0; fold < FOLDS; fold++) {
      int kept = fold;
      int[] learned =
          IntStream.range(0, rows.length).filter(i -> foldOf[i] != kept).toArray();
      VectorScorer scorer = fit(learned, cost, width);
      for (int i = 0; i < rows.length; i++) {
        if (foldOf[i] == fold) {
          float[] row = new float[standard.means().length];
          examples.row(i, row);
          decisions[i] = scorer.decisions(row);
        }
      }
    }
    return decisions;
  }

  /** Mean hinge loss, each class counting the same. */
  private double loss(double[][] decisions) {
    int classes = examples.classes().size();
    double sum = 0;
    int[] counts = examples.perClass();
    for (int i = 0; i < rows.length; i++) {
      for (int k = 0; k < classes; k++) {
        boolean is = examples.classOf()[i] == k;
        double margin = is ? decisions[i][k] : -decisions[i][k];
        int others = rows.length - counts[k];
        sum += Math.max(0, 1 - margin) / Math.max(1, is ? counts[k] : others);
      }
    }
    return sum;
  }

  private VectorScorer fit(int[] learned, double cost, double width) {
    int classes = examples.classes().size();
    float[][] factors = new float[classes][];
    float[] offsets = new float[classes];
    for (int k = 0; k < classes; k++) {
      factors[k] = new float[learned.length];
      offsets[k] = fitOne(learned, k, cost, width, factors[k]);
    }
    boolean[] used = new boolean[learned.length];
    for (float[] each : factors) {
      for (int i = 0; i < used.length; i++) {
        used[i] |= each[i] != 0;
      }
    }
    int[] vectors = IntStream.range(0, used.length).filter(i -> used[i]).toArray();
    float[][] kept = new float[vectors.length][];
    float[][] keptFactors = new float[classes][vectors.length];
    for (int v = 0; v < vectors.length; v++) {
      kept[v] = rows[learned[vectors[v]]];
      for (int k = 0; k < classes; k++) {
        keptFactors[k][v] = factors[k][vectors[v]];
      }
    }
    float[] ones = new float[classes];
    Arrays.fill(ones, 1);
    return new VectorScorer(standard, kept, keptFactors, offsets, width, ones, new float[classes]);
  }

  /**
   * One class against all others.
   *
   * @param factors (output) of each row that is learned
   * @return the decision's offset
   */
  private float fitOne(int[] learned, int ofClass, double cost, double width, float[] factors) {
    int features = standard.means().length;
    int positives = 0;
    for (int i : learned) {
      positives += examples.classOf()[i] == ofClass ? 1 : 0;
    }
    if (positives == 0 || positives == learned.length) {
      return positives == 0 ? -1 : 1;
    }
    try (PointerScope scope = new PointerScope()) {
      Mat samples = new Mat(learned.length, features, opencv_core.CV_32F);
      Mat answers = new Mat(learned.length, 1, opencv_core.CV_32S);
      FloatPointer numbers = new FloatPointer(samples.data());
      IntPointer marks = new IntPointer(answers.data());
      for (int i = 0; i < learned.length; i++) {
        numbers.position((long) i * features).put(rows[learned[i]], 0, features);
        marks.put(i, examples.classOf()[learned[i]] == ofClass ? 1 : -1);
      }
      Mat weights = new Mat(2, 1, opencv_core.CV_64F);
      double rare = (double) learned.length / (2 * positives);
      double common = (double) learned.length / (2 * (learned.length - positives));
      DoublePointer each = new DoublePointer(weights.data());
      // classes are in the order of their marks
      each.put(0, common);
      each.put(1, rare);
      SVM machine = SVM.create();
      machine.setType(SVM.C_SVC);
      machine.setKernel(SVM.RBF);
      machine.setC(cost);
      machine.setGamma(width);
      machine.setClassWeights(weights);
      machine.setTermCriteria(
          new TermCriteria(TermCriteria.MAX_ITER + TermCriteria.EPS, ITERATIONS, 1e-3));
      machine.train(samples, opencv_ml.ROW_SAMPLE, answers);
      return takeOut(machine, learned, features, factors);
    }
  }

  private float takeOut(SVM machine, int[] learned, int features, float[] factors) {
    Mat alphas = new Mat();
    Mat places = new Mat();
    double offset = machine.getDecisionFunction(0, alphas, places);
    Mat vectors = machine.getSupportVectors();
    FloatPointer numbers = new FloatPointer(vectors.data());
    Map<Integer, List<Integer>> byHash = new HashMap<>();
    for (int i = 0; i < learned.length; i++) {
      byHash
          .computeIfAbsent(Arrays.hashCode(rows[learned[i]]), h -> new ArrayList<>())
          .add(i);
    }
    DoublePointer alpha = new DoublePointer(alphas.data());
    IntPointer place = new IntPointer(places.data());
    float[] vector = new float[features];
    int count = (int) places.total();
    for (int v = 0; v < count; v++) {
      numbers.position((long) place.get(v) * features).get(vector, 0, features);
      for (int i : byHash.getOrDefault(Arrays.hashCode(vector), List.of())) {
        if (factors[i] == 0 && Arrays.equals(rows[learned[i]], vector)) {
          factors[i] = (float) -alpha.get(v);
          break;
        }
      }
    }
    // a sum of -offset and these above 0 means the first mark, which is that of the others
    return (float) offset;
  }

  /** Slope and shift of the logistic curve for a class, by Newton's method on targets drawn in from 0 and 1 (Platt 1999). */
  private double[] curve(double[][] decisions, int ofClass) {
    int positives = examples.perClass()[ofClass];
    int negatives = rows.length - positives;
    double high = (positives + 1.0) / (positives + 2);
    double low = 1.0 / (negatives + 2);
    double slope = 1;
    double shift = Math.log((positives + 1.0) / (negatives + 1));
    for (int step = 0; step < 50; step++) {
      double g1 = 0;
      double g2 = 0;
      double h11 = 1e-6;
      double h22 = 1e-6;
      double h12 = 0;
      for (int i = 0; i < rows.length; i++) {
        double d = decisions[i][ofClass];
        double target = examples.classOf()[i] == ofClass ? high : low;
        double p = 1 / (1 + Math.exp(-slope * d - shift));
        double curved = p * (1 - p);
        g1 += (p - target) * d;
        g2 += p - target;
        h11 += curved * d * d;
        h12 += curved * d;
        h22 += curved;
      }
      double determinant = h11 * h22 - h12 * h12;
      double stepSlope = (h22 * g1 - h12 * g2) / determinant;
      double stepShift = (h11 * g2 - h12 * g1) / determinant;
      slope -= Math.clamp(stepSlope, -2, 2);
      shift -= Math.clamp(stepShift, -2, 2);
      if (Math.abs(stepSlope) + Math.abs(stepShift) < 1e-9) {
        break;
      }
    }
    return new double[] {Math.max(slope, 1e-3), shift};
  }
}
