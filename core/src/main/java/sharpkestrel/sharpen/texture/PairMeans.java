package sharpkestrel.sharpen.texture;

import java.util.EnumSet;
import java.util.Set;

/** Measures that are means over pairs, from sums over the pairs in the window about each pixel, row after row. */
final class PairMeans {

  private final PairSums sums;
  private final int[] totals;
  private final double[] shares;

  /**
   * @param sums of the terms of the measures
   * @param width of a row
   */
  PairMeans(PairSums sums, int width) {
    this.sums = sums;
    totals = sums.of(PairSums.Term.ONE);
    shares = new double[width];
  }

  /** What a measure is made of, beside the number of pairs. */
  static Set<PairSums.Term> terms(Measure measure) {
    return switch (measure) {
      case CONTRAST -> EnumSet.of(PairSums.Term.SQUARED_DIFFERENCE);
      case DISSIMILARITY -> EnumSet.of(PairSums.Term.DIFFERENCE);
      case HOMOGENEITY -> EnumSet.of(PairSums.Term.INVERSE);
      case PAIR_MEAN -> EnumSet.of(PairSums.Term.SUM);
      case PAIR_VARIANCE -> EnumSet.of(PairSums.Term.SUM, PairSums.Term.SQUARES);
      case CORRELATION ->
        EnumSet.of(PairSums.Term.SUM, PairSums.Term.SQUARES, PairSums.Term.PRODUCT);
      case DIFFERENCE_VARIANCE ->
        EnumSet.of(PairSums.Term.DIFFERENCE, PairSums.Term.SQUARED_DIFFERENCE);
      default -> EnumSet.noneOf(PairSums.Term.class);
    };
  }

  /** To be called after the sums went on to a row. */
  void next() {
    for (int i = 0; i < shares.length; i++) {
      // infinite where there is no pair: nothing times that is NaN
      shares[i] = 1.0 / totals[i];
    }
  }

  /** One over the number of pairs in each window of the row; infinite where there is none. */
  double[] shares() {
    return shares;
  }

  /**
   * @param out (output) from {@code at} on, for each pixel of the row; NaN where its window holds no pair
   */
  void of(Measure measure, float[] out, int at) {
    switch (measure) {
      case CONTRAST -> means(PairSums.Term.SQUARED_DIFFERENCE, 1, out, at);
      case DISSIMILARITY -> means(PairSums.Term.DIFFERENCE, 1, out, at);
      case HOMOGENEITY -> means(PairSums.Term.INVERSE, 1.0 / PairSums.INVERSE_ONE, out, at);
      case PAIR_MEAN -> means(PairSums.Term.SUM, 0.5, out, at);
      case PAIR_VARIANCE -> variances(out, at);
      case CORRELATION -> correlations(out, at);
      case DIFFERENCE_VARIANCE -> differenceVariances(out, at);
      default -> throw new IllegalArgumentException(measure + " is no mean over pairs");
    }
  }

  private void means(PairSums.Term term, double factor, float[] out, int at) {
    int[] sum = sums.of(term);
    for (int i = 0; i < shares.length; i++) {
      out[at + i] = (float) (factor * sum[i] * shares[i]);
    }
  }

  private void variances(float[] out, int at) {
    int[] sum = sums.of(PairSums.Term.SUM);
    int[] squares = sums.of(PairSums.Term.SQUARES);
    for (int i = 0; i < shares.length; i++) {
      double half = 0.5 * shares[i];
      out[at + i] = (float) (spread(2.0 * totals[i] * squares[i], sum[i]) * half * half);
    }
  }

  private void correlations(float[] out, int at) {
    int[] sum = sums.of(PairSums.Term.SUM);
    int[] squares = sums.of(PairSums.Term.SQUARES);
    int[] products = sums.of(PairSums.Term.PRODUCT);
    for (int i = 0; i < shares.length; i++) {
      double variance = spread(2.0 * totals[i] * squares[i], sum[i]);
      double covariance = spread(4.0 * totals[i] * products[i], sum[i]);
      // one colour goes with itself; nothing times infinity is NaN
      double apart = (variance - covariance) / Math.max(variance, 1) + 0 * shares[i];
      out[at + i] = (float) (1 - apart);
    }
  }

  private void differenceVariances(float[] out, int at) {
    int[] differences = sums.of(PairSums.Term.DIFFERENCE);
    int[] squared = sums.of(PairSums.Term.SQUARED_DIFFERENCE);
    for (int i = 0; i < shares.length; i++) {
      double spread = spread((double) totals[i] * squared[i], differences[i]);
      out[at + i] = (float) (spread * shares[i] * shares[i]);
    }
  }

  /** Of whole numbers, none so large that a double would round it: never below 0 by rounding, and 0 for one colour. */
  private static double spread(double squares, double sum) {
    return squares - sum * sum;
  }
}
