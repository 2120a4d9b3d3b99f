package sharpkestrel.demo;

import java.util.Locale;
import sharpkestrel.raster.RasterException;

/** Which part of the sound a survey looks at. */
public enum Scenario {
  /** Town, harbour and the land behind, as much as fits. */
  WHOLE,
  HARBOUR,
  TOWN,
  MOOR;

  public String label() {
    return name().toLowerCase(Locale.ROOT);
  }

  /**
   * The scenario of a label.
   *
   * @throws RasterException that names those there are
   */
  public static Scenario of(String label) {
    for (Scenario scenario : values()) {
      if (scenario.label().equals(label)) {
        return scenario;
      }
    }
    throw new RasterException(
        "A scenario is harbour, town, moor or whole, not '" + label + "'. Leave it out for whole.");
  }
}
