package sharpkestrel.segment.regions;

/**
 * Natural logarithms of floats by a table, to about 1e-6: a fifth of the time of {@link Math#log}, which the space in which
 * pixels are alike spends most of its time on.
 */
public final class Logarithm {

  private static final int BITS = 11;
  private static final int LOW_BITS = 23 - BITS;
  private static final int HALF = 1 << LOW_BITS - 1;
  private static final int BIAS = 127;

  /** Of the middle of each stretch of mantissas, and the slope there for each step of the bits below. */
  private static final float[] MIDDLE = new float[1 << BITS];

  private static final float[] SLOPE = new float[1 << BITS];
  private static final float[] EXPONENT = new float[1 << 8];

  static {
    for (int i = 0; i < MIDDLE.length; i++) {
      double middle = 1 + (i + 0.5) / MIDDLE.length;
      MIDDLE[i] = (float) Math.log(middle);
      SLOPE[i] = (float) (1 / middle / (1 << 23));
    }
    for (int i = 0; i < EXPONENT.length; i++) {
      EXPONENT[i] = (float) ((i - BIAS) * Math.log(2));
    }
  }

  private Logarithm() {}

  /**
   * @param value a normal number above 0; what it is of others says nothing
   */
  public static float of(float value) {
    int bits = Float.floatToRawIntBits(value);
    int stretch = bits >>> LOW_BITS & MIDDLE.length - 1;
    int below = (bits & (1 << LOW_BITS) - 1) - HALF;
    return EXPONENT[bits >>> 23 & EXPONENT.length - 1] + (MIDDLE[stretch] + below * SLOPE[stretch]);
  }
}
