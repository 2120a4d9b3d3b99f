package sharpkestrel.segment.learn;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.SplittableRandom;
import sharpkestrel.raster.Job;
import sharpkestrel.segment.learn.Network.Layer;

/**
 * Trains a {@link Network} on lessons: weighted cross entropy, small batches, steps by Adam (Kingma and Ba 2015, ICLR) that
 * shrink along half a cosine. The same lessons give the same network.
 */
public final class Trainer {

  private static final int[] HIDDEN = {32, 16};
  private static final int BATCH = 128;
  private static final double STEP = 2e-3;
  private static final double LAST_STEP = 0.02;
  private static final float KEEP_MEAN = 0.9f;
  private static final float KEEP_SQUARE = 0.999f;
  private static final long SEED = 5;

  private final Lessons lessons;
  private final Network network;
  private final Network.Work work;
  private final List<Slope> slopes = new ArrayList<>();
  private int steps;

  /** What is gathered over a batch for a layer, and what of it is kept from batch to batch. */
  private static final class Slope {
    final float[] weights;
    final float[] offsets;

    /** How the loss changes with the layer's sums. */
    final float[] back;

    final Moments ofWeights;
    final Moments ofOffsets;

    Slope(Layer layer) {
      weights = new float[layer.weights().length];
      offsets = new float[layer.outputs()];
      back = new float[layer.outputs()];
      ofWeights = new Moments(weights.length);
      ofOffsets = new Moments(offsets.length);
    }
  }

  private record Moments(float[] mean, float[] square) {
    Moments(int n) {
      this(new float[n], new float[n]);
    }
  }

  private Trainer(Lessons lessons) {
    this.lessons = lessons;
    SplittableRandom random = new SplittableRandom(SEED);
    int features = lessons.features();
    List<Layer> layers = new ArrayList<>();
    int inputs = features;
    for (int outputs : HIDDEN) {
      layers.add(Layer.random(inputs, outputs, random));
      inputs = outputs;
    }
    layers.add(Layer.random(inputs, 1, random));
    float[] means = new float[features];
    float[] scales = new float[features];
    standardise(lessons, means, scales);
    network = new Network(means, scales, layers);
    work = network.new Work();
    layers.forEach(layer -> slopes.add(new Slope(layer)));
  }

  /**
   * @param epochs how often all lessons are gone through
   */
  public static Network train(Lessons lessons, int epochs, Job job) {
    Trainer trainer = new Trainer(lessons);
    trainer.run(epochs, job);
    return trainer.network;
  }

  private static void standardise(Lessons lessons, float[] means, float[] scales) {
    for (int k = 0; k < means.length; k++) {
      double sum = 0;
      double squares = 0;
      int known = 0;
      for (int i = 0; i < lessons.count(); i++) {
        float v = lessons.row(i)[k];
        if (!Float.isNaN(v)) {
          sum += v;
          squares += (double) v * v;
          known++;
        }
      }
      double mean = sum / Math.max(1, known);
      double variance = Math.max(0, squares / Math.max(1, known) - mean * mean);
      means[k] = (float) mean;
      scales[k] = (float) (1 / Math.sqrt(variance + 1e-9));
    }
  }

  private void run(int epochs, Job job) {
    int n = lessons.count();
    int[] order = new int[n];
    Arrays.setAll(order, i -> i);
    SplittableRandom random = new SplittableRandom(SEED + 1);
    int batches = Math.ceilDiv(n, BATCH);
    long total = (long) epochs * batches;
    for (int epoch = 0; epoch < epochs; epoch++) {
      for (int i = n - 1; i > 0; i--) {
        int j = random.nextInt(i + 1);
        int swapped = order[i];
        order[i] = order[j];
        order[j] = swapped;
      }
      for (int from = 0; from < n; from += BATCH) {
        job.cancellation().check();
        int to = Math.min(n, from + BATCH);
        for (int i = from; i < to; i++) {
          learn(order[i]);
        }
        step(to - from, total);
      }
      job.progress("Learning", epoch + 1, epochs);
    }
  }

  /** Adds one lesson's slopes to the batch's. */
  private void learn(int lesson) {
    float logOdds = work.logOdds(lessons.row(lesson));
    float sure = (float) (1 / (1 + Math.exp(-logOdds)));
    int last = network.layers.size() - 1;
    slopes.get(last).back[0] = lessons.weight(lesson) * (sure - (lessons.isOne(lesson) ? 1 : 0));
    for (int k = last; k >= 0; k--) {
      Layer layer = network.layers.get(k);
      Slope slope = slopes.get(k);
      float[] in = work.values[k];
      float[] before = k > 0 ? slopes.get(k - 1).back : null;
      for (int j = 0; j < layer.outputs(); j++) {
        slope.offsets[j] += slope.back[j];
      }
      for (int i = 0; i < layer.inputs(); i++) {
        float v = in[i];
        int row = i * layer.outputs();
        float sum = 0;
        for (int j = 0; j < layer.outputs(); j++) {
          slope.weights[row + j] += v * slope.back[j];
          sum += layer.weights()[row + j] * slope.back[j];
        }
        if (before != null) {
          before[i] = sum * (v > 0 ? 1 : Network.LEAK);
        }
      }
    }
  }

  private void step(int batch, long total) {
    steps++;
    double part = Math.min(1, (double) steps / total);
    double step = STEP * (LAST_STEP + (1 - LAST_STEP) * 0.5 * (1 + Math.cos(Math.PI * part)));
    float size = (float)
        (step * Math.sqrt(1 - Math.pow(KEEP_SQUARE, steps)) / (1 - Math.pow(KEEP_MEAN, steps)));
    for (int k = 0; k < slopes.size(); k++) {
      Layer layer = network.layers.get(k);
      Slope slope = slopes.get(k);
      move(layer.weights(), slope.weights, slope.ofWeights, size, batch);
      move(layer.offsets(), slope.offsets, slope.ofOffsets, size, batch);
    }
  }

  private static void move(
      float[] numbers, float[] slopes, Moments moments, float size, int batch) {
    for (int i = 0; i < numbers.length; i++) {
      float slope = slopes[i] / batch;
      moments.mean[i] = KEEP_MEAN * moments.mean[i] + (1 - KEEP_MEAN) * slope;
      moments.square[i] = KEEP_SQUARE * moments.square[i] + (1 - KEEP_SQUARE) * slope * slope;
      numbers[i] -= size * moments.mean[i] / ((float) Math.sqrt(moments.square[i]) + 1e-7f);
      slopes[i] = 0;
    }
  }
}
