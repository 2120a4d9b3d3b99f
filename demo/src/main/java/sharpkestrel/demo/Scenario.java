package sharpkestrel.demo;

import sharpkestrel.demo.words.Labelled;

/** Which part of the sound a survey looks at. */
public enum Scenario implements Labelled {
  /** Town, harbour and the land behind, as much as fits. */
  WHOLE,
  HARBOUR,
  TOWN,
  MOOR;

  /**
   * The scenario of a label.
   *
   * @throws sharpkestrel.raster.RasterException that names those there are
   */
  public static Scenario of(String label) {
    return Labelled.of(values(), label, "A scenario");
  }
}
