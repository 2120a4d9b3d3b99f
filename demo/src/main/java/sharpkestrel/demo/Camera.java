package sharpkestrel.demo;

/**
 * A pushbroom sensor in map coordinates (east, north, height above the ellipsoid): parallel along its track,
 * perspective across it. Both directions are closed forms, so that truth is exact.
 */
final class Camera {

  static final double ALTITUDE = 500_000;

  private final double[] start;
  private final double[] track;
  private final double[] look;
  private final double[] across;
  private final double[] normal;
  private final double metresPerLine;
  private final double focal;
  private final double middle;

  /**
   * @param east of the ground point in the middle of the image, at {@code height}
   * @param offNadir angle at the ground between the view and the vertical, degrees
   * @param azimuth from the ground towards the sensor, degrees clockwise from north
   * @param heading of the flight, degrees
   * @param gsd metres of ground in a pixel
   */
  Camera(
      double east,
      double north,
      double height,
      double offNadir,
      double azimuth,
      double heading,
      double gsd,
      int width,
      int lines) {
    double tangent = Math.tan(Math.toRadians(offNadir));
    double az = Math.toRadians(azimuth);
    double[] sensor = {
      east + ALTITUDE * tangent * Math.sin(az),
      north + ALTITUDE * tangent * Math.cos(az),
      height + ALTITUDE
    };
    double course = Math.toRadians(heading);
    track = new double[] {Math.sin(course), Math.cos(course), 0};
    double[] centre = {east, north, height};
    look = unit(minus(centre, sensor));
    // The line of detectors is level and at right angles to the track.
    across = new double[] {-track[1], track[0], 0};
    normal = unit(cross(across, look));
    metresPerLine = gsd;
    middle = width / 2.0;
    start = new double[3];
    for (int i = 0; i < 3; i++) {
      start[i] = sensor[i] - metresPerLine * lines / 2.0 * track[i];
    }
    double range = length(minus(centre, sensor));
    // Pixels a unit of tangent, such that a pixel is one GSD of level ground across the track.
    double[] beside = {centre[0] + gsd * across[0], centre[1] + gsd * across[1], centre[2]};
    double[] ray = minus(beside, sensor);
    focal = 1 / (dot(ray, across) / dot(ray, look) - dot(minus(centre, sensor), across) / range);
  }

  /** Column and row, corner of the first pixel at (0, 0), of a point. */
  void toImage(double east, double north, double height, double[] image) {
    double dx = east - start[0];
    double dy = north - start[1];
    double dz = height - start[2];
    double line = (dx * normal[0] + dy * normal[1] + dz * normal[2])
        / (metresPerLine * (track[0] * normal[0] + track[1] * normal[1]));
    double ex = dx - metresPerLine * line * track[0];
    double ey = dy - metresPerLine * line * track[1];
    double lookPart = ex * look[0] + ey * look[1] + dz * look[2];
    double acrossPart = ex * across[0] + ey * across[1];
    image[0] = middle + focal * (acrossPart / lookPart - offset());
    image[1] = line;
  }

  private double offset() {
    return across[0] * look[0] + across[1] * look[1];
  }

  /**
   * The ray of an image point as a line over heights: east, north at height 0, and their change for a metre of
   * height, in {@code ray[0..3]}.
   */
  void ray(double col, double row, double[] ray) {
    double t = (col - middle) / focal + offset();
    // direction = look + s * across with (direction.across) / (direction.look) = t
    double o = offset();
    double s = (t - o) / (1 - t * o);
    double dx = look[0] + s * across[0];
    double dy = look[1] + s * across[1];
    double dz = look[2];
    double sx = start[0] + metresPerLine * row * track[0];
    double sy = start[1] + metresPerLine * row * track[1];
    ray[2] = dx / dz;
    ray[3] = dy / dz;
    ray[0] = sx - start[2] * ray[2];
    ray[1] = sy - start[2] * ray[3];
  }

  private static double[] minus(double[] a, double[] b) {
    return new double[] {a[0] - b[0], a[1] - b[1], a[2] - b[2]};
  }

  private static double dot(double[] a, double[] b) {
    return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
  }

  private static double length(double[] a) {
    return Math.sqrt(dot(a, a));
  }

  private static double[] unit(double[] a) {
    double l = length(a);
    return new double[] {a[0] / l, a[1] / l, a[2] / l};
  }

  private static double[] cross(double[] a, double[] b) {
    return new double[] {
      a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]
    };
  }
}
