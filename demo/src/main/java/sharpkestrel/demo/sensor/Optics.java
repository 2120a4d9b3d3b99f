package sharpkestrel.demo.sensor;

/**
 * What lens and detector make of a fine grid of light: each pixel weighs the light about it by a Gaussian blur spread
 * over the square of its detector, along rows and columns apart.
 */
public final class Optics {

  private static final double REACH = 3.2;

  private Optics() {}

  /** Fine samples along a side of a panchromatic pixel. */
  public static final int FINE = 2;

  /** Panchromatic pixels that a kernel reaches beyond the pixels it makes. */
  public static int halo(double pixel, double sigma, double shift) {
    return (int) Math.ceil(pixel / FINE * (0.5 + REACH * sigma) + Math.abs(shift) * pixel / FINE)
        + 1;
  }

  /**
   * Makes pixels of a fine grid.
   *
   * @param fine (input) light on a grid of {@code fineWidth * fineHeight}
   * @param pixel fine samples along a side of a pixel
   * @param origin fine samples before the first pixel, along both sides
   * @param sigma of the blur across and along the track, in pixels
   * @param shift of the pixels' middles, right and down, in pixels
   * @param out (output) {@code width * height} pixels
   */
  public static void expose(
      float[] fine,
      int fineWidth,
      int fineHeight,
      int pixel,
      int origin,
      double[] sigma,
      double[] shift,
      float[] out,
      int width,
      int height) {
    float[][] across = kernel(pixel, sigma[0], shift[0]);
    float[][] along = kernel(pixel, sigma[1], shift[1]);
    int firstX = (int) across[1][0];
    int firstY = (int) along[1][0];
    float[] rows = new float[width * fineHeight];
    for (int y = 0; y < fineHeight; y++) {
      for (int x = 0; x < width; x++) {
        int from = y * fineWidth + origin + x * pixel + firstX;
        float sum = 0;
        for (int k = 0; k < across[0].length; k++) {
          sum += across[0][k] * fine[from + k];
        }
        rows[y * width + x] = sum;
      }
    }
    for (int y = 0; y < height; y++) {
      int from = (origin + y * pixel + firstY) * width;
      for (int x = 0; x < width; x++) {
        float sum = 0;
        for (int k = 0; k < along[0].length; k++) {
          sum += along[0][k] * rows[from + k * width + x];
        }
        out[y * width + x] = sum;
      }
    }
  }

  /** Weights of fine samples, and in the second row the first of them, relative to the pixel's first sample. */
  private static float[][] kernel(int pixel, double sigma, double shift) {
    double middle = pixel * (0.5 + shift);
    double reach = pixel * (0.5 + REACH * sigma);
    int first = (int) Math.floor(middle - reach);
    int last = (int) Math.ceil(middle + reach);
    float[] weights = new float[last - first];
    double sum = 0;
    for (int k = 0; k < weights.length; k++) {
      double x = (first + k + 0.5 - middle) / pixel;
      weights[k] = (float) (normal((x + 0.5) / sigma) - normal((x - 0.5) / sigma));
      sum += weights[k];
    }
    for (int k = 0; k < weights.length; k++) {
      weights[k] = (float) (weights[k] / sum);
    }
    return new float[][] {weights, {first}};
  }

  /** The normal distribution function (Abramowitz and Stegun 1964, 26.2.17; error below 7.5e-8). */
  static double normal(double x) {
    double t = 1 / (1 + 0.2316419 * Math.abs(x));
    double tail = Math.exp(-x * x / 2)
        / Math.sqrt(2 * Math.PI)
        * t
        * (0.319381530
            + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
    return x >= 0 ? 1 - tail : tail;
  }
}
