package sharpkestrel.sharpen.contrast;

import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Statistics;

/**
 * The values over which contrast is shared out: how many bins lie between which ends, and how shadows are lifted first.
 *
 * @param low lower end of the first bin
 * @param high upper end of the last
 * @param each whether every value is a whole number with a bin of its own
 * @param middle values under it are shadow
 * @param lift power by which shadows come nearer to the middle; 0 leaves them
 */
record Tone(double low, double high, int bins, boolean each, double middle, double lift) {

  /** Bins of one number each up to so many; more numbers share bins. */
  static final int MOST = 4096;

  private static final int FEWEST = 256;

  /** Pixels for each of the bins that numbers share, as far as a tile has so many: in emptier ones there is chance only. */
  private static final int IN_ONE = 4;

  /** Share of the pixels at either end that is left as it is where numbers share bins. */
  private static final double OUTLIERS = 1e-4;

  /**
   * @param pixels in a tile
   */
  static Tone of(Statistics statistics, SampleType type, double lift, long pixels) {
    double low = statistics.min();
    double high = statistics.max();
    double middle = statistics.histogram().quantile(0.5);
    if (type.isWhole() && high - low < MOST) {
      return new Tone(low - 0.5, high + 0.5, (int) (high - low) + 1, lift == 0, middle, lift);
    }
    low = statistics.histogram().quantile(OUTLIERS);
    high = statistics.histogram().quantile(1 - OUTLIERS);
    int bins = (int) Math.max(FEWEST, Math.min(MOST, pixels / IN_ONE));
    return new Tone(low, high, bins, false, middle, lift);
  }

  /** Whether there is any contrast to share out. */
  boolean isFlat() {
    return !(high > low) || bins < 2;
  }

  /** Lifts shadows in place. */
  void liftShadows(float[] values) {
    if (lift == 0 || !(middle > low)) {
      return;
    }
    double range = middle - low;
    PowerTable power = new PowerTable(1 - lift);
    for (int i = 0; i < values.length; i++) {
      if (values[i] < middle && values[i] > low) {
        values[i] = (float) (low + range * power.of((float) ((values[i] - low) / range)));
      }
    }
  }
}
