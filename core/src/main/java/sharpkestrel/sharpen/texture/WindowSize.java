package sharpkestrel.sharpen.texture;

import java.util.Locale;
import sharpkestrel.raster.RasterException;

/** The side of a window: an odd number of pixels, or metres that come nearest to one. */
public final class WindowSize {

  public static final int LEAST = 3;
  public static final int MOST = 101;

  private static final double USUAL_METRES = 20;
  private static final int LEAST_USUAL = 9;

  private WindowSize() {}

  /** Pixels of 20 m, as far as pixels allow. */
  public static int usual(double metresPerPixel) {
    int odd = 2 * (int) Math.round((USUAL_METRES / metresPerPixel - 1) / 2) + 1;
    return Math.max(LEAST_USUAL, Math.min(MOST, odd));
  }

  /**
   * @param text a number of pixels, or of metres with an m behind it
   * @param metresPerPixel of the scene
   * @return pixels
   * @throws RasterException where it is even, too small, too large or no number; it says what would do
   */
  public static int parse(String text, double metresPerPixel) {
    String plain = text.strip().toLowerCase(Locale.ROOT);
    boolean metres = plain.endsWith("m");
    double number;
    try {
      number = Double.parseDouble(metres ? plain.substring(0, plain.length() - 1) : plain);
    } catch (NumberFormatException notANumber) {
      throw new RasterException("The window is '" + text
          + "'; give an odd number of pixels such as 9, or metres such as 4.5 m.");
    }
    if (metres) {
      double pixels = number / metresPerPixel;
      int odd = 2 * (int) Math.round((pixels - 1) / 2) + 1;
      return checked(odd, text);
    }
    if (number != Math.rint(number) || number % 2 == 0) {
      int below = 2 * (int) Math.floor((number - 1) / 2) + 1;
      throw new RasterException(
          "The window must be an odd number of pixels, so that it has a middle; " + text.strip()
              + " is not. " + below + " or " + (below + 2) + " would do.");
    }
    return checked((int) number, text);
  }

  private static int checked(int pixels, String text) {
    if (pixels < LEAST || pixels > MOST) {
      throw new RasterException("A window of " + text.strip() + " has " + pixels
          + " pixels a side here; from " + LEAST + " to " + MOST + " can be had.");
    }
    return pixels;
  }
}
