package sharpkestrel.demo;

import sharpkestrel.demo.Pass.Range;
import sharpkestrel.demo.words.Labelled;

/** The air over a survey. Where it is not plain, sun and view stand on any side that the place and the season allow. */
public enum Sky implements Labelled {
  /** As the two passes over the archipelago have it; elsewhere clear. */
  PLAIN(0.05, 0.14, 0),
  CLEAR(0.04, 0.10, 0),
  HAZY(0.28, 0.55, 0),
  /** A bank of thin cloud. */
  VEILED(0.08, 0.2, 0.62),
  /** Clouds that nothing is seen through, with their shadows. */
  CLOUDY(0.08, 0.2, 0.97);

  final Range aerosol;
  final double thickest;

  Sky(double least, double most, double thickest) {
    aerosol = new Range(least, most);
    this.thickest = thickest;
  }

  /**
   * The sky of a label.
   *
   * @throws sharpkestrel.raster.RasterException that names those there are
   */
  public static Sky of(String label) {
    return Labelled.of(values(), label, "A sky");
  }
}
