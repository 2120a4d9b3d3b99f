package sharpkestrel.place.mosaic;

import java.util.Arrays;
import java.util.stream.IntStream;

/**
 * A line through points of which nearly half may be wrong: the median over all points of the median slope to all others
 * (repeated medians; Siegel 1982, Biometrika 69(1), 242-244).
 *
 * @param offset where {@code x} is 0
 */
record MedianLine(double gain, double offset) {

  /** Points that the line is laid through; more would not tell more. */
  private static final int MOST = 300;

  /** Residuals of more usual ones than this are of another kind (that of a biweight). */
  private static final double FAR = 4.685 * 1.4826;

  static MedianLine through(double[] x, double[] y) {
    int n = Math.min(MOST, x.length);
    int[] taken =
        IntStream.range(0, n).map(i -> (int) ((long) i * x.length / n)).toArray();
    double[] slopes = new double[n];
    double[] to = new double[n];
    int count = 0;
    for (int i : taken) {
      int others = 0;
      for (int j : taken) {
        if (x[j] != x[i]) {
          to[others++] = (y[j] - y[i]) / (x[j] - x[i]);
        }
      }
      if (others > 0) {
        slopes[count++] = median(Arrays.copyOf(to, others));
      }
    }
    double gain = count > 0 ? median(Arrays.copyOf(slopes, count)) : 1;
    return new MedianLine(
        gain, median(Arrays.stream(taken).mapToDouble(i -> y[i] - gain * x[i]).toArray()));
  }

  /** The points that lie on it as well as most do. */
  int[] near(double[] x, double[] y) {
    double[] off = new double[x.length];
    Arrays.setAll(off, i -> Math.abs(y[i] - gain * x[i] - offset));
    double limit = FAR * median(off.clone());
    return IntStream.range(0, off.length).filter(i -> off[i] <= limit).toArray();
  }

  private static double median(double[] values) {
    Arrays.sort(values);
    int half = values.length / 2;
    return values.length % 2 == 1 ? values[half] : (values[half - 1] + values[half]) / 2;
  }
}
