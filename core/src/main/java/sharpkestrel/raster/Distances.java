package sharpkestrel.raster;

import java.util.Arrays;

/**
 * Distances to a set of pixels, exact between pixel centres (Felzenszwalb and Huttenlocher 2012, Distance transforms of
 * sampled functions, Theory of Computing 8, 415-428).
 */
public final class Distances {

  private static final double FAR = 1e12;

  private Distances() {}

  /**
   * @param set (input) height * width, row by row
   * @return pixels to the nearest centre of the set; infinite where it is empty
   */
  public static float[] to(boolean[] set, int width, int height) {
    double[] squares = new double[set.length];
    Arrays.setAll(squares, i -> set[i] ? 0 : FAR);
    int longest = Math.max(width, height);
    double[] line = new double[longest];
    double[] out = new double[longest];
    int[] roots = new int[longest];
    double[] meets = new double[longest + 1];
    for (int x = 0; x < width; x++) {
      for (int y = 0; y < height; y++) {
        line[y] = squares[y * width + x];
      }
      envelope(line, height, roots, meets, out);
      for (int y = 0; y < height; y++) {
        squares[y * width + x] = out[y];
      }
    }
    float[] distances = new float[set.length];
    for (int y = 0; y < height; y++) {
      System.arraycopy(squares, y * width, line, 0, width);
      envelope(line, width, roots, meets, out);
      for (int x = 0; x < width; x++) {
        distances[y * width + x] =
            out[x] >= FAR / 2 ? Float.POSITIVE_INFINITY : (float) Math.sqrt(out[x]);
      }
    }
    return distances;
  }

  /**
   * Distances to the border of a set, which runs half a pixel from the centres on both sides of it.
   *
   * @return pixels, above 0 inside of the set and below 0 outside; infinite where it has no border
   */
  public static float[] inside(boolean[] set, int width, int height) {
    boolean[] others = new boolean[set.length];
    for (int i = 0; i < others.length; i++) {
      others[i] = !set[i];
    }
    float[] toSet = to(set, width, height);
    float[] toOthers = to(others, width, height);
    float[] signed = new float[set.length];
    for (int i = 0; i < signed.length; i++) {
      signed[i] = set[i] ? toOthers[i] - 0.5f : 0.5f - toSet[i];
    }
    return signed;
  }

  /** The lower envelope of parabolas that stand on a line's values. */
  private static void envelope(double[] f, int n, int[] roots, double[] meets, double[] out) {
    int k = 0;
    roots[0] = 0;
    meets[0] = Double.NEGATIVE_INFINITY;
    meets[1] = Double.POSITIVE_INFINITY;
    for (int q = 1; q < n; q++) {
      double s = meet(f, q, roots[k]);
      while (s <= meets[k]) {
        k--;
        s = meet(f, q, roots[k]);
      }
      k++;
      roots[k] = q;
      meets[k] = s;
      meets[k + 1] = Double.POSITIVE_INFINITY;
    }
    k = 0;
    for (int q = 0; q < n; q++) {
      while (meets[k + 1] < q) {
        k++;
      }
      double away = q - roots[k];
      out[q] = away * away + f[roots[k]];
    }
  }

  private static double meet(double[] f, int q, int p) {
    return (f[q] + (double) q * q - f[p] - (double) p * p) / (2.0 * q - 2.0 * p);
  }
}
