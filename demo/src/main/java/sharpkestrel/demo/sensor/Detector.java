package sharpkestrel.demo.sensor;

import sharpkestrel.demo.noise.Noise;

/**
 * Radiance to numbers: {@code radiance / gain}, with noise whose variance is that of reading, of the light's quanta and
 * of detectors that do not answer alike, rounded and cut off at the range.
 */
public final class Detector {

  public static final double FULL_SCALE = 2047;
  static final double READ_NOISE = 1.5;
  static final double ELECTRONS_PER_NUMBER = 9;
  /** Spread of the detectors' answers, which the maker's calibration leaves. */
  static final double UNEVEN = 0.0016;

  private static final int QUANTILES = 1 << 14;
  private static final float[] QUANTILE = quantiles();

  private final Noise noise;
  private final float[] uneven;
  private final double full;
  private final double read;
  private final double electrons;
  private final double curve;

  /**
   * @param stream tells bands and scenes apart
   * @param width detectors in the line
   */
  public Detector(long seed, long stream, int width) {
    this(seed, stream, width, FULL_SCALE, 1);
  }

  /**
   * @param full largest number; what is read and how many electrons make a number go with it
   * @param curve numbers go as light to the power of one over it
   */
  public Detector(long seed, long stream, int width, double full, double curve) {
    this.full = full;
    this.curve = curve;
    double coarser = full / FULL_SCALE;
    read = READ_NOISE * coarser;
    electrons = ELECTRONS_PER_NUMBER / coarser;
    noise = new Noise(Noise.mix(seed * 31 + 6) ^ Noise.mix(stream));
    uneven = new float[width];
    for (int col = 0; col < width; col++) {
      uneven[col] = (float) (UNEVEN * noise.gaussianAt(col, -7_000_000));
    }
  }

  /** Normal deviates at the middles of equal shares of chance, by bisection of the distribution function. */
  private static float[] quantiles() {
    float[] table = new float[QUANTILES];
    for (int i = 0; i < QUANTILES; i++) {
      double wanted = (i + 0.5) / QUANTILES;
      double low = -6;
      double high = 6;
      while (high - low > 1e-6) {
        double middle = (low + high) / 2;
        if (Optics.normal(middle) < wanted) {
          low = middle;
        } else {
          high = middle;
        }
      }
      table[i] = (float) low;
    }
    return table;
  }

  private static double quantile(double chance) {
    return QUANTILE[(int) (chance * QUANTILES)];
  }

  /** Standard deviation of a number whose expectation is {@code exact}. */
  public static double spread(double exact) {
    double signal = Math.max(0, exact);
    return Math.sqrt(READ_NOISE * READ_NOISE
        + signal / ELECTRONS_PER_NUMBER
        + UNEVEN * UNEVEN * signal * signal);
  }

  /** A number, before rounding, as the tone curve has it. */
  public double curved(double plain) {
    return curve == 1 ? plain : full * Math.pow(Math.max(0, plain) / full, 1 / curve);
  }

  /** The number a pixel of column and row gets, from 1 on; 0 is kept for no data. */
  public float number(double exact, int col, int row) {
    double signal = Math.max(0, exact);
    double even = Math.sqrt(read * read + signal / electrons);
    double noisy = exact + even * quantile(noise.unitAt(col, row)) + signal * uneven[col];
    return (float) Math.max(1, Math.min(full, Math.floor(curved(noisy) + 0.5)));
  }
}
