package sharpkestrel.objects;

import java.util.Arrays;

/** Values whose percentiles are wanted: themselves while they are few, counts in fine steps when they are many. */
final class ValuePool {

  private static final int MOST = 1 << 20;
  private static final int STEPS = 1 << 14;

  private final float low;
  private final float high;
  private float[] values = new float[256];
  private int count;
  private long[] steps;

  /**
   * @param low the least value that will come, {@code high} the largest
   */
  ValuePool(float low, float high) {
    this.low = low;
    this.high = high;
  }

  void add(float[] more, int from, int to) {
    for (int i = from; i < to; i++) {
      if (steps != null) {
        steps[step(more[i])]++;
        continue;
      }
      if (count == values.length) {
        values = Arrays.copyOf(values, 2 * count);
      }
      values[count++] = more[i];
      if (count == MOST) {
        steps = new long[STEPS];
        for (float value : values) {
          steps[step(value)]++;
        }
        values = null;
      }
    }
  }

  private int step(float value) {
    float share = high > low ? (value - low) / (high - low) : 0;
    return Math.max(0, Math.min(STEPS - 1, (int) (share * STEPS)));
  }

  /**
   * @param shares of the values that lie under the wanted ones
   * @param into (output) one number each; within a 16,384th of the range where there are over a million values
   */
  void percentiles(double[] shares, double[] into) {
    if (steps == null) {
      Arrays.sort(values, 0, count);
      ofSorted(values, 0, count, shares, into);
      return;
    }
    long total = Arrays.stream(steps).sum();
    for (int k = 0; k < shares.length; k++) {
      long under = 0;
      int step = 0;
      while (step < STEPS - 1 && under + steps[step] <= shares[k] * (total - 1)) {
        under += steps[step++];
      }
      into[k] = low + (step + 0.5) * (high - low) / STEPS;
    }
  }

  /** Between the two nearest by rank (Hyndman and Fan 1996, The American Statistician 50(4), definition 7). */
  static void ofSorted(float[] sorted, int from, int to, double[] shares, double[] into) {
    for (int k = 0; k < shares.length; k++) {
      double rank = shares[k] * (to - from - 1);
      int below = (int) rank;
      int above = Math.min(to - from - 1, below + 1);
      double share = rank - below;
      into[k] = to == from
          ? Double.NaN
          : (1 - share) * sorted[from + below] + share * sorted[from + above];
    }
  }
}
