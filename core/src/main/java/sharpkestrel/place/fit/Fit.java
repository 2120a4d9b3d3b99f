package sharpkestrel.place.fit;

import java.util.Arrays;
import java.util.List;
import sharpkestrel.geo.ImageModel;

/**
 * A model fitted to points, and how far it is off.
 *
 * @param residuals of all points, in their order
 * @param rms of the control points, pixels: what the fit made small
 * @param leftOut RMS over the control points of what the model says of a point when fitted without it; NaN where a point
 *     fewer would not determine it
 */
public record Fit(
    ModelKind kind, ImageModel model, List<Residual> residuals, double rms, double leftOut) {

  /**
   * Where the model puts a point less where it was seen, pixels.
   *
   * @param leftOut the same of the model fitted without the point; NaN for points it was not fitted to
   */
  public record Residual(TiePoint point, double dx, double dy, double leftOut) {

    public double length() {
      return Math.hypot(dx, dy);
    }
  }

  public int controlPoints() {
    return (int)
        residuals.stream().filter(r -> r.point().use() == TiePoint.Use.CONTROL).count();
  }

  /** RMS of the points of a use, pixels; NaN where there are none. */
  public double rms(TiePoint.Use use) {
    return rootMeanSquare(residuals.stream()
        .filter(r -> r.point().use() == use)
        .mapToDouble(Residual::length)
        .toArray());
  }

  static double rootMeanSquare(double[] lengths) {
    double sum = 0;
    for (double length : lengths) {
      sum += length * length / lengths.length;
    }
    return lengths.length == 0 ? Double.NaN : Math.sqrt(sum);
  }

  /**
   * Radius that holds nine of ten of the errors there are: between the two nearest in order by their places (Hyndman and Fan
   * 1996, American Statistician 50(4), definition 7), so never above the largest.
   *
   * @param lengths of the errors; NaN where there are none
   */
  public static double withinWhichNineOfTen(double[] lengths) {
    if (lengths.length == 0) {
      return Double.NaN;
    }
    double[] sorted = lengths.clone();
    Arrays.sort(sorted);
    double place = 0.9 * (sorted.length - 1);
    int below = (int) place;
    double above = sorted[Math.min(sorted.length - 1, below + 1)];
    return sorted[below] + (place - below) * (above - sorted[below]);
  }

  /**
   * Radius that holds nine of ten errors, where those in x and y are normal and alike: 1.5174 times the RMS of their
   * length (Greenwalt and Schultz 1962; FGDC-STD-007.3-1998, appendix A).
   */
  public static double circularError90(double rms) {
    return 1.5174 * rms;
  }
}
