package sharpkestrel.place.fit;

/** A map of the plane onto itself. */
public interface PlaneMap {

  /** Whether it has no edges along which it bends at once. */
  default boolean isSmooth() {
    return true;
  }

  /**
   * @param xy (output) where (u, v) comes to lie; NaN where the map does not reach
   */
  void apply(double u, double v, double[] xy);
}
