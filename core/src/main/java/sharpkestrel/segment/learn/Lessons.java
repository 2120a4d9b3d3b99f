package sharpkestrel.segment.learn;

import java.util.Arrays;

/** Pairs to learn from: their features, whether each is of one kind, and how much it counts. */
public final class Lessons {

  private final int features;
  private float[][] rows = new float[1 << 12][];
  private float[] weights = new float[1 << 12];
  private boolean[] answers = new boolean[1 << 12];
  private int count;

  public Lessons(int features) {
    this.features = features;
  }

  /**
   * @param pair (input) is copied; NaN where a feature is not known
   * @param isOne whether the two belong to one thing
   */
  public void add(float[] pair, boolean isOne, double weight) {
    grow(count + 1);
    rows[count] = Arrays.copyOf(pair, features);
    answers[count] = isOne;
    weights[count++] = (float) weight;
  }

  public void addAll(Lessons more) {
    grow(count + more.count);
    System.arraycopy(more.rows, 0, rows, count, more.count);
    System.arraycopy(more.answers, 0, answers, count, more.count);
    System.arraycopy(more.weights, 0, weights, count, more.count);
    count += more.count;
  }

  private void grow(int wanted) {
    if (wanted > rows.length) {
      int room = Math.max(wanted, 2 * rows.length);
      rows = Arrays.copyOf(rows, room);
      answers = Arrays.copyOf(answers, room);
      weights = Arrays.copyOf(weights, room);
    }
  }

  public int features() {
    return features;
  }

  public int count() {
    return count;
  }

  public int ones() {
    int ones = 0;
    for (int i = 0; i < count; i++) {
      ones += answers[i] ? 1 : 0;
    }
    return ones;
  }

  float[] row(int i) {
    return rows[i];
  }

  boolean isOne(int i) {
    return answers[i];
  }

  float weight(int i) {
    return weights[i];
  }
}
