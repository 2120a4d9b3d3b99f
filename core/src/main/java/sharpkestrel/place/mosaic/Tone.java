package sharpkestrel.place.mosaic;

import java.util.Arrays;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Window;

/**
 * What a band of a scene is put through so that it agrees with the others: a curve, straight between its knots and beyond
 * them, times a factor that changes slowly over the block.
 *
 * @param from (input) values of the scene, ascending, two or more
 * @param to what they become, not descending
 * @param trend coefficients of the terms of {@link #terms}; empty for none
 */
record Tone(double[] from, double[] to, double[] trend) {

  static final Tone UNCHANGED = new Tone(new double[] {0, 1}, new double[] {0, 1}, new double[0]);

  /** How many terms a trend of a degree has. */
  static int terms(int degree) {
    return degree == 0 ? 0 : degree == 1 ? 2 : 5;
  }

  /** x, y, and for the second degree their squares and product; of places that run from -1 to 1. */
  static double term(int k, double x, double y) {
    return switch (k) {
      case 0 -> x;
      case 1 -> y;
      case 2 -> x * x;
      case 3 -> x * y;
      default -> y * y;
    };
  }

  boolean isUnchanged() {
    return trend.length == 0 && Arrays.equals(from, to);
  }

  Tone with(double[] newTrend) {
    return new Tone(from, to, newTrend);
  }

  double curve(double value) {
    int k = 1;
    while (k + 1 < from.length && value > from[k]) {
      k++;
    }
    double share = (value - from[k - 1]) / (from[k] - from[k - 1]);
    return to[k - 1] + share * (to[k] - to[k - 1]);
  }

  double factor(double x, double y) {
    double factor = 1;
    for (int k = 0; k < trend.length; k++) {
      factor += trend[k] * term(k, x, y);
    }
    return factor;
  }

  /**
   * Changes values in place.
   *
   * @param whole the block's grid at the window's level
   */
  void apply(float[] plane, Grid whole, Window window) {
    if (isUnchanged()) {
      return;
    }
    boolean straight = from.length == 2;
    double gain = (to[1] - to[0]) / (from[1] - from[0]);
    double offset = to[0] - gain * from[0];
    for (int row = 0; row < window.height(); row++) {
      double y = 2 * (window.y() + row + 0.5) / whole.height() - 1;
      for (int col = 0; col < window.width(); col++) {
        int i = row * window.width() + col;
        float v = plane[i];
        double toned = straight ? gain * v + offset : Float.isNaN(v) ? v : curve(v);
        if (trend.length > 0) {
          toned *= factor(2 * (window.x() + col + 0.5) / whole.width() - 1, y);
        }
        plane[i] = (float) toned;
      }
    }
  }
}
