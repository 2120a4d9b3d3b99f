package sharpkestrel.segment.regions;

import java.util.Arrays;

/** Interleaved numbers of pixels smoothed by a Gaussian; pixels without data count for nothing and stay so. */
final class Smoothing {

  private static final int SPREADS = 3;

  private final float[] weights;

  /**
   * @param spread standard deviation in pixels; 0 leaves all as it is
   */
  Smoothing(double spread) {
    weights = new float[1 + (int) Math.ceil(SPREADS * spread)];
    for (int i = 0; i < weights.length; i++) {
      weights[i] = i == 0 ? 1 : (float) Math.exp(-0.5 * i * i / (spread * spread));
    }
  }

  /** How far a pixel looks around. */
  int reach() {
    return weights.length - 1;
  }

  /**
   * @param numbers (input) {@code each} numbers a pixel, NaN in the first of those without data
   * @return the same, smoothed; within {@link #reach} of the edge over what is there
   */
  float[] of(float[] numbers, int width, int each) {
    if (reach() == 0) {
      return numbers;
    }
    float[] out = along(
        along(numbers, width, each, 1, width), width, each, width, numbers.length / each / width);
    for (int i = 0; i < out.length; i += each) {
      if (Float.isNaN(numbers[i])) {
        Arrays.fill(out, i, i + each, Float.NaN);
      }
    }
    return out;
  }

  /** Along rows or columns; a pixel without data takes what lies about it, for the other direction. */
  private float[] along(float[] in, int width, int each, int step, int length) {
    float[] out = new float[in.length];
    int pixels = in.length / each;
    for (int i = 0; i < pixels; i++) {
      int at = step == 1 ? i % width : i / width;
      float total = 0;
      for (int k = -reach(); k <= reach(); k++) {
        int from = (i + k * step) * each;
        if (at + k < 0 || at + k >= length || Float.isNaN(in[from])) {
          continue;
        }
        float weight = weights[Math.abs(k)];
        total += weight;
        for (int c = 0; c < each; c++) {
          out[i * each + c] += weight * in[from + c];
        }
      }
      for (int c = 0; c < each; c++) {
        out[i * each + c] = total > 0 ? out[i * each + c] / total : Float.NaN;
      }
    }
    return out;
  }
}
