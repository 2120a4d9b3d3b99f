package sharpkestrel.demo.things;

import sharpkestrel.demo.light.Material;

/**
 * A crown, or a buoy: an ellipsoid about a point above the geoid.
 *
 * @param radius across, metres
 * @param tall half its height, metres
 * @param tone factor of its reflectance
 */
public record Crown(
    double east,
    double north,
    double centre,
    double radius,
    double tall,
    Material material,
    float tone) {

  /** The highest point where a ray meets it; NaN where it misses. */
  public double meet(double[] ray) {
    // heights scaled so that the ellipsoid is a sphere
    double scale = radius / tall;
    double x = ray[0] - east;
    double y = ray[1] - north;
    double dx = ray[2];
    double dy = ray[3];
    double a = dx * dx + dy * dy + scale * scale;
    double b = x * dx + y * dy - scale * scale * centre;
    double c = x * x + y * y + scale * scale * centre * centre - radius * radius;
    double d = b * b - a * c;
    return d < 0 ? Double.NaN : (-b + Math.sqrt(d)) / a;
  }

  /** Unit normal at a point on it. */
  public void normal(double e, double n, double z, double[] normal) {
    double s = radius / tall;
    double x = e - east;
    double y = n - north;
    double h = (z - centre) * s * s;
    double l = Math.sqrt(x * x + y * y + h * h);
    normal[0] = x / l;
    normal[1] = y / l;
    normal[2] = h / l;
  }

  public double top() {
    return centre + tall;
  }
}
