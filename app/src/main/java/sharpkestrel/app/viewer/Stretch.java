package sharpkestrel.app.viewer;

import java.util.Arrays;
import sharpkestrel.app.model.StretchRule;

/**
 * Low and high ends for red, green and blue, between which values run from dark to bright.
 *
 * @param tones colours by share of the way from low to high: one channel's brightness, or ARGB where {@code ramp}
 * @param ramp whether the first band alone picks the colour
 */
record Stretch(float[] low, float[] high, int[] tones, boolean ramp) {

  static final int STEPS = 1023;

  /** In grey or colour. */
  static Stretch of(float[] low, float[] high, double gamma) {
    int[] tones = new int[STEPS + 1];
    for (int i = 0; i <= STEPS; i++) {
      tones[i] = (int) Math.round(255 * Math.pow((double) i / STEPS, 1 / gamma));
    }
    return new Stretch(low, high, tones, false);
  }

  static Stretch of(float[] low, float[] high) {
    return of(low, high, StretchRule.USUAL_GAMMA);
  }

  /** One band in the colours of the ramp. */
  Stretch asRamp(double gamma) {
    int[] colours = new int[STEPS + 1];
    for (int i = 0; i <= STEPS; i++) {
      colours[i] =
          0xff000000 | Ramp.colour(Math.pow((double) i / STEPS, StretchRule.USUAL_GAMMA / gamma));
    }
    return new Stretch(low, high, colours, true);
  }

  StretchRule.Ends ends() {
    double[] lows = new double[3];
    double[] highs = new double[3];
    for (int c = 0; c < 3; c++) {
      lows[c] = low[c];
      highs[c] = high[c];
    }
    return new StretchRule.Ends(lows, highs);
  }

  /** Clear below a value, one colour from it on. */
  static Stretch from(double value, int argb) {
    int[] colours = new int[STEPS + 1];
    Arrays.fill(colours, 1, colours.length, argb);
    float low = Math.nextDown((float) value);
    return new Stretch(new float[] {low, low, low}, new float[] {low, low, low}, colours, true);
  }

  /**
   * Stretches three bands to the screen.
   *
   * @param planes (input) for red, green and blue
   * @param pixels (output) ARGB, rows of {@code across}; no-data is 0
   */
  void colour(float[][] planes, int width, int height, int[] pixels, int across) {
    for (int row = 0; row < height; row++) {
      if (ramp) {
        ramp(planes[0], row * width, width, pixels, row * across);
      } else {
        row(planes, row * width, width, pixels, row * across);
      }
    }
  }

  private void row(float[][] planes, int from, int count, int[] pixels, int to) {
    float lowRed = low[0];
    float lowGreen = low[1];
    float lowBlue = low[2];
    float scaleRed = scale(0);
    float scaleGreen = scale(1);
    float scaleBlue = scale(2);
    for (int k = 0; k < count; k++) {
      float red = planes[0][from + k];
      float green = planes[1][from + k];
      float blue = planes[2][from + k];
      boolean valid = !Float.isNaN(red + green + blue);
      int r = tones[clamp((int) ((red - lowRed) * scaleRed))];
      int g = tones[clamp((int) ((green - lowGreen) * scaleGreen))];
      int b = tones[clamp((int) ((blue - lowBlue) * scaleBlue))];
      pixels[to + k] = valid ? 0xff000000 | r << 16 | g << 8 | b : 0;
    }
  }

  private void ramp(float[] plane, int from, int count, int[] pixels, int to) {
    float scale = scale(0);
    for (int k = 0; k < count; k++) {
      float v = plane[from + k];
      pixels[to + k] = Float.isNaN(v) ? 0 : tones[clamp((int) ((v - low[0]) * scale))];
    }
  }

  private float scale(int c) {
    return STEPS / Math.max(1e-12f, high[c] - low[c]);
  }

  private static int clamp(int step) {
    return Math.max(0, Math.min(STEPS, step));
  }
}
