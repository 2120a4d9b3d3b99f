package sharpkestrel.geo;

/** A change of ground coordinates. */
public interface CoordinateMap {

  /**
   * Transforms points in place.
   *
   * @param xy (modified) x and y of each point in turn; NaN where a point lies outside of the map's domain
   * @param count number of points
   */
  void apply(double[] xy, int count);

  CoordinateMap IDENTITY = (xy, count) -> {};
}
