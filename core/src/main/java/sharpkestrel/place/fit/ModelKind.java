package sharpkestrel.place.fit;

import java.util.Locale;

/** Models that can be fitted to points, the stiffest first. */
public enum ModelKind {
  /** Nothing is fitted: how far a scene is off where it says it lies. */
  UNCHANGED(0),
  SHIFT(1),
  SIMILARITY(2),
  AFFINE(3),
  PROJECTIVE(4),
  POLYNOMIAL_2(6),
  POLYNOMIAL_3(10),
  SPLINE(4),
  PIECEWISE(4),
  CAMERA(Resection.FEWEST);

  private final int fewest;

  ModelKind(int fewest) {
    this.fewest = fewest;
  }

  /** Points without which it is not determined. */
  public int fewest() {
    return fewest;
  }

  /** Whether it passes through every point, whatever that point's error. */
  public boolean interpolates() {
    return this == SPLINE || this == PIECEWISE;
  }

  public String label() {
    if (this == UNCHANGED) {
      return "As it lies";
    }
    if (this == CAMERA) {
      return "Camera over heights";
    }
    String words = name().toLowerCase(Locale.ROOT).replace('_', ' ');
    return Character.toUpperCase(words.charAt(0)) + words.substring(1);
  }
}
