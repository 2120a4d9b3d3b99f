package sharpkestrel.sharpen.texture;

/**
 * Entropies of counts from sums of {@code n ln n}, in fixed point: sums of whole numbers come out alike in any order.
 */
final class LogTable {

  /** {@code n ln n} in units of 2^-32. */
  private static final double UNIT = 0x1p32;

  private final long[] xLogX;
  private final double[] shares;

  /**
   * @param most things that are counted together, below 65,536
   */
  LogTable(int most) {
    // a power of two, as a masked index needs no check
    xLogX = new long[Integer.highestOneBit(most) << 1];
    shares = new double[xLogX.length];
    shares[0] = Double.NaN;
    for (int n = 1; n < xLogX.length; n++) {
      xLogX[n] = Math.round(UNIT * n * Math.log(n));
      shares[n] = 1 / (UNIT * n);
    }
  }

  /** By count, a power of two of them. */
  long[] xLogX() {
    return xLogX;
  }

  /**
   * @param sum of {@code n ln n} over counts, in units of the table
   * @param total of the counts
   * @return NaN where there is nothing; exactly 0 where all is one
   */
  double entropy(long sum, int total) {
    return (xLogX[total] - sum) * shares[total];
  }
}
