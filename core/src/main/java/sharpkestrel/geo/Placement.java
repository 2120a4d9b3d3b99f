package sharpkestrel.geo;

/**
 * How a scene was placed and how far it is off, carried with it.
 *
 * @param model in words
 * @param points it was fitted to
 * @param fit RMS of those points, pixels of the scene; NaN where not known, as are the numbers below
 * @param leftOut RMS of each of those points left out in turn
 * @param checkPoints it was not fitted to
 * @param check RMS of those, pixels
 * @param metres in a pixel
 */
public record Placement(
    String model,
    int points,
    double fit,
    double leftOut,
    int checkPoints,
    double check,
    double metres) {

  /** The most honest of the numbers: of check points, else of points left out, else of the fit; pixels. */
  public double rms() {
    return !Double.isNaN(check) ? check : !Double.isNaN(leftOut) ? leftOut : fit;
  }
}
