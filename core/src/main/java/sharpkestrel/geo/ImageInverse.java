package sharpkestrel.geo;

/** From the image to the ground through a model that only leads the other way, by Newton's steps. */
public final class ImageInverse {

  private static final int STEPS = 30;
  private static final double SETTLED = 1e-4;

  private ImageInverse() {}

  /** Heights above the ellipsoid by place; NaN where not known. */
  public interface Ground {
    double at(double x, double y);
  }

  /**
   * The point of the ground that is seen at an image place.
   *
   * @param ground (modified) x and y to begin from; where the steps come to rest, or NaN where they do not within {@value
   *     #SETTLED} pixels
   * @param step about a pixel, in the units of the ground
   */
  public static void toGround(
      ImageModel model, Ground heights, double col, double row, double step, double[] ground) {
    double[] at = new double[2];
    double[] right = new double[2];
    double[] up = new double[2];
    double height = 0;
    for (int k = 0; k < STEPS; k++) {
      double known = model.usesHeights() ? heights.at(ground[0], ground[1]) : 0;
      height = Double.isNaN(known) ? height : known;
      model.toImage(ground[0], ground[1], height, at);
      double dc = col - at[0];
      double dr = row - at[1];
      if (Math.hypot(dc, dr) < SETTLED) {
        return;
      }
      model.toImage(ground[0] + step, ground[1], height, right);
      model.toImage(ground[0], ground[1] + step, height, up);
      double a = (right[0] - at[0]) / step;
      double b = (up[0] - at[0]) / step;
      double c = (right[1] - at[1]) / step;
      double d = (up[1] - at[1]) / step;
      double det = a * d - b * c;
      ground[0] += (d * dc - b * dr) / det;
      ground[1] += (a * dr - c * dc) / det;
    }
    ground[0] = Double.NaN;
    ground[1] = Double.NaN;
  }
}
