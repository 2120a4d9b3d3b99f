package sharpkestrel.demo.things;

import sharpkestrel.demo.ground.Polygons;

/**
 * A place and a direction to build in: {@code u} along, {@code v} to the left of it, metres.
 *
 * @param angle of {@code u}, radians anticlockwise from east
 */
record Frame(double east, double north, double angle, double cos, double sin) {

  static Frame at(double east, double north, double angle) {
    return new Frame(east, north, angle, Math.cos(angle), Math.sin(angle));
  }

  double e(double u, double v) {
    return east + u * cos - v * sin;
  }

  double n(double u, double v) {
    return north + u * sin + v * cos;
  }

  /** An oblong about a point of the frame, its length along {@code u}. */
  double[] oblong(double u, double v, double length, double width) {
    return Polygons.oblong(e(u, v), n(u, v), angle, length, width);
  }

  /** A frame about a point of this one, turned by quarter turns or less. */
  Frame moved(double u, double v, double turn) {
    return at(e(u, v), n(u, v), angle + turn);
  }

  /** Points of the frame, u and v in turn, on the map. */
  double[] ring(double... points) {
    double[] ring = new double[points.length];
    for (int i = 0; i < points.length; i += 2) {
      ring[i] = e(points[i], points[i + 1]);
      ring[i + 1] = n(points[i], points[i + 1]);
    }
    return ring;
  }
}
