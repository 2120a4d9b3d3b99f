package sharpkestrel.extract.learner;

import java.util.Arrays;
import java.util.Comparator;
import java.util.stream.IntStream;

/**
 * What a learner's probabilities are worth: of those it gave so much, how many were right, as a line that never falls. Found on what it had
 * not seen by pooling neighbours that fall (Zadrozny and Elkan 2002, KDD); each class for itself, then brought to a sum of 1.
 *
 * @param given for each class probabilities as they come, ascending
 * @param meant for each of those what it is worth
 */
public record Calibration(float[][] given, float[][] meant) {

  /** Fewer kept-back examples of a class, or of the others, do not make a line. */
  private static final int LEAST = 8;

  /** As many as that are added to either end, half right, so that nothing is ever quite sure. */
  private static final double DOUBT = 1;

  /** The line that changes nothing. */
  public static Calibration none(int classes) {
    float[][] ends = new float[classes][];
    Arrays.fill(ends, new float[] {0, 1});
    return new Calibration(ends, ends);
  }

  /**
   * @param kept rows of probabilities of what was kept back, one after another; rows of NaN are passed over
   */
  public static Calibration of(Examples examples, float[] kept) {
    int classes = examples.classes().size();
    float[][] given = new float[classes][];
    float[][] meant = new float[classes][];
    for (int k = 0; k < classes; k++) {
      int ofClass = k;
      int[] order = IntStream.range(0, examples.count())
          .filter(i -> !Float.isNaN(kept[i * classes + ofClass]))
          .boxed()
          .sorted(Comparator.comparingDouble(i -> kept[i * classes + ofClass]))
          .mapToInt(Integer::intValue)
          .toArray();
      long right =
          Arrays.stream(order).filter(i -> examples.classOf()[i] == ofClass).count();
      boolean enough = right >= LEAST && order.length - right >= LEAST;
      given[k] = enough ? null : new float[] {0, 1};
      meant[k] = given[k];
      if (enough) {
        pool(examples, kept, order, ofClass, given, meant);
      }
    }
    return new Calibration(given, meant);
  }

  private static void pool(
      Examples examples, float[] kept, int[] order, int k, float[][] given, float[][] meant) {
    int classes = examples.classes().size();
    double[] right = new double[order.length];
    double[] all = new double[order.length];
    double[] place = new double[order.length];
    int blocks = 0;
    for (int i : order) {
      double weight = examples.weights()[i];
      right[blocks] = examples.classOf()[i] == k ? weight : 0;
      all[blocks] = weight;
      place[blocks] = weight * kept[i * classes + k];
      blocks++;
      while (blocks > 1
          && right[blocks - 2] * all[blocks - 1] >= right[blocks - 1] * all[blocks - 2]) {
        blocks--;
        right[blocks - 1] += right[blocks];
        all[blocks - 1] += all[blocks];
        place[blocks - 1] += place[blocks];
      }
    }
    double mean = Arrays.stream(all, 0, blocks).sum() / order.length;
    float[] x = new float[blocks + 2];
    float[] y = new float[blocks + 2];
    for (int b = 0; b < blocks; b++) {
      x[b + 1] = (float) (place[b] / all[b]);
      y[b + 1] = (float) ((right[b] + 0.5 * DOUBT * mean) / (all[b] + DOUBT * mean));
    }
    x[0] = Math.min(0, x[1]);
    y[0] = Math.min(y[1], (float) (0.5 / (order.length + 1.0)));
    x[blocks + 1] = Math.max(1, x[blocks]);
    y[blocks + 1] = Math.max(y[blocks], (float) (1 - 0.5 / (order.length + 1.0)));
    for (int b = 1; b < y.length; b++) {
      y[b] = Math.max(y[b], y[b - 1]);
    }
    given[k] = x;
    meant[k] = y;
  }

  /**
   * @param shares (modified) probabilities of the classes; all 0 stays so
   */
  public void apply(float[] shares) {
    float before = 0;
    for (float share : shares) {
      before += share;
    }
    if (!(before > 0)) {
      return;
    }
    if (shares.length == 2) {
      // two classes are one question: the second answers for both
      shares[1] = at(1, shares[1]);
      shares[0] = 1 - shares[1];
      return;
    }
    float all = 0;
    for (int k = 0; k < shares.length; k++) {
      shares[k] = at(k, shares[k]);
      all += shares[k];
    }
    for (int k = 0; k < shares.length && all > 0; k++) {
      shares[k] /= all;
    }
  }

  private float at(int ofClass, float share) {
    float[] x = given[ofClass];
    float[] y = meant[ofClass];
    int above = 0;
    while (above < x.length && x[above] <= share) {
      above++;
    }
    if (above == 0 || above == x.length) {
      return y[Math.max(0, above - 1)];
    }
    float part = (share - x[above - 1]) / (x[above] - x[above - 1]);
    return y[above - 1] + part * (y[above] - y[above - 1]);
  }
}
