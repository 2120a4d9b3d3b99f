package sharpkestrel.geo;

import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;

/** A change of ground coordinates. */
public interface CoordinateMap {

  /**
   * Transforms points in place.
   *
   * @param xy (modified) x and y of each point in turn; NaN where a point lies outside of the map's domain
   * @param count number of points
   */
  void apply(double[] xy, int count);

  /** A copy of a shape, its corners moved. */
  default Geometry of(Geometry shape) {
    Geometry moved = shape.copy();
    double[] xy = new double[2];
    moved.apply((Coordinate corner) -> {
      xy[0] = corner.x;
      xy[1] = corner.y;
      apply(xy, 1);
      corner.x = xy[0];
      corner.y = xy[1];
    });
    moved.geometryChanged();
    return moved;
  }

  /** This map, then another. */
  default CoordinateMap then(CoordinateMap next) {
    return (xy, count) -> {
      apply(xy, count);
      next.apply(xy, count);
    };
  }

  CoordinateMap IDENTITY = (xy, count) -> {};
}
