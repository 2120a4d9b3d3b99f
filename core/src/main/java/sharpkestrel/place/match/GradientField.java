package sharpkestrel.place.match;

/**
 * Gradients of a patch with the angle doubled: {@code (gx + i gy)^2 / |g|}. An edge looks the same whichever of its sides
 * is the brighter, so edges match between infrared and panchromatic, and between roofs lit from other sides.
 *
 * @param re height * width, row by row; 0 where the patch has no data
 * @param power squared length at each pixel
 */
record GradientField(int width, int height, float[] re, float[] im, float[] power) {

  /** Pixels at each border that have no gradient. */
  static final int BORDER = 2;

  /**
   * @param pixels (input) height * width; NaN for no data, which spoils the pixels about it
   */
  static GradientField of(float[] pixels, int width, int height) {
    float[] smooth = smoothed(pixels, width, height);
    float[] re = new float[pixels.length];
    float[] im = new float[pixels.length];
    float[] power = new float[pixels.length];
    for (int y = BORDER; y < height - BORDER; y++) {
      for (int x = BORDER; x < width - BORDER; x++) {
        int i = y * width + x;
        float gx = smooth[i + 1] - smooth[i - 1];
        float gy = smooth[i + width] - smooth[i - width];
        float length = (float) Math.sqrt(gx * gx + gy * gy);
        if (length > 0) {
          re[i] = (gx * gx - gy * gy) / length;
          im[i] = 2 * gx * gy / length;
          power[i] = length * length;
        }
      }
    }
    return new GradientField(width, height, re, im, power);
  }

  /** Binomial of 3 x 3; NaN at the border. */
  private static float[] smoothed(float[] pixels, int width, int height) {
    float[] across = new float[pixels.length];
    java.util.Arrays.fill(across, Float.NaN);
    for (int y = 0; y < height; y++) {
      for (int x = 1; x < width - 1; x++) {
        int i = y * width + x;
        across[i] = (pixels[i - 1] + 2 * pixels[i] + pixels[i + 1]) / 4;
      }
    }
    float[] smooth = new float[pixels.length];
    java.util.Arrays.fill(smooth, Float.NaN);
    for (int y = 1; y < height - 1; y++) {
      for (int x = 0; x < width; x++) {
        int i = y * width + x;
        smooth[i] = (across[i - width] + 2 * across[i] + across[i + width]) / 4;
      }
    }
    return smooth;
  }
}
