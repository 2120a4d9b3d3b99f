package sharpkestrel.app.viewer;

/** Low and high ends for red, green and blue, between which values run from dark to bright. */
record Stretch(float[] low, float[] high) {

  boolean sameAs(Stretch other) {
    return other != null
        && java.util.Arrays.equals(low, other.low)
        && java.util.Arrays.equals(high, other.high);
  }
}
