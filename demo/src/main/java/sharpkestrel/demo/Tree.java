package sharpkestrel.demo;

/** A single crown: a sphere whose middle is {@code centre} metres above the geoid. */
record Tree(double east, double north, double radius, double centre, float tone) {

  /** The highest point where a ray meets the crown; NaN where it misses. */
  double meet(double[] ray) {
    double x = ray[0] - east;
    double y = ray[1] - north;
    double a = ray[2] * ray[2] + ray[3] * ray[3] + 1;
    double b = x * ray[2] + y * ray[3] - centre;
    double c = x * x + y * y + centre * centre - radius * radius;
    double d = b * b - a * c;
    return d < 0 ? Double.NaN : (-b + Math.sqrt(d)) / a;
  }
}
