package sharpkestrel.app.viewer;

/** A ramp that rises evenly in lightness from dark blue over teal to pale yellow, made in CIE L*a*b*. */
public final class Ramp {

  private static final double[][] STOPS = {
    {18, 18, -42}, {38, -8, -34}, {56, -34, -4}, {76, -30, 42}, {94, -4, 52}
  };
  private static final int[] COLOURS = new int[256];

  static {
    for (int i = 0; i < 256; i++) {
      double t = i / 255.0 * (STOPS.length - 1);
      int k = Math.min(STOPS.length - 2, (int) t);
      double f = t - k;
      double[] lab = new double[3];
      for (int c = 0; c < 3; c++) {
        lab[c] = STOPS[k][c] * (1 - f) + STOPS[k + 1][c] * f;
      }
      COLOURS[i] = toRgb(lab);
    }
  }

  private Ramp() {}

  /** Opaque colour for a share between 0 and 1. */
  public static int colour(double share) {
    return COLOURS[(int) (255 * Math.max(0, Math.min(1, share)))];
  }

  /** CIE 1976 L*a*b* under D65 to sRGB (IEC 61966-2-1). */
  private static int toRgb(double[] lab) {
    double fy = (lab[0] + 16) / 116;
    double x = 0.95047 * inverse(fy + lab[1] / 500);
    double y = inverse(fy);
    double z = 1.08883 * inverse(fy - lab[2] / 200);
    return 0xff000000
        | gamma(3.2406 * x - 1.5372 * y - 0.4986 * z) << 16
        | gamma(-0.9689 * x + 1.8758 * y + 0.0415 * z) << 8
        | gamma(0.0557 * x - 0.2040 * y + 1.0570 * z);
  }

  private static double inverse(double t) {
    return t > 6.0 / 29 ? t * t * t : 3 * 36.0 / 841 * (t - 4.0 / 29);
  }

  private static int gamma(double linear) {
    double v = linear <= 0.0031308 ? 12.92 * linear : 1.055 * Math.pow(linear, 1 / 2.4) - 0.055;
    return (int) Math.round(255 * Math.max(0, Math.min(1, v)));
  }
}
