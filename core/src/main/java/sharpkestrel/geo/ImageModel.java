package sharpkestrel.geo;

import sharpkestrel.raster.CrsName;

/**
 * Where an image shows a point of the ground. Image coordinates put the corner of the first pixel at (0, 0) and its
 * centre at (0.5, 0.5).
 */
public interface ImageModel {

  /** The system of the ground's x and y. */
  CrsName crs();

  /** Whether it matters how high a point lies. */
  boolean usesHeights();

  /** Whether it has no edges along which it bends at once, so that it may be interpolated. */
  default boolean isSmooth() {
    return true;
  }

  /**
   * @param height metres, from where the model counts them; any number where heights are not used
   * @param image (output) column and row; NaN where the image cannot show the point
   */
  void toImage(double x, double y, double height, double[] image);
}
