package sharpkestrel.demo;

/**
 * A thing with an oblong plan: a house with walls and a gabled or flat roof, a polytunnel, a yard of no height.
 *
 * @param angle of its long side, degrees anticlockwise from east
 * @param base ground height above the geoid
 * @param eaves height of the walls; 0 for yards
 * @param ridge height of the ridge above the eaves; 0 for flat roofs
 * @param tone factors of the roof's reflectance by band: age, wetness, paint
 */
record Block(
    double east,
    double north,
    double angle,
    double length,
    double width,
    double base,
    double eaves,
    double ridge,
    Material roof,
    float[] tone,
    int building,
    double cos,
    double sin) {

  static Block of(
      double east,
      double north,
      double angle,
      double length,
      double width,
      double base,
      double eaves,
      double ridge,
      Material roof,
      float[] tone,
      int building) {
    double radians = Math.toRadians(angle);
    return new Block(
        east,
        north,
        angle,
        length,
        width,
        base,
        eaves,
        ridge,
        roof,
        tone,
        building,
        Math.cos(radians),
        Math.sin(radians));
  }

  double top() {
    return base + eaves + ridge;
  }

  double reach() {
    return Math.hypot(length, width) / 2;
  }

  /** Corners at the eaves in turn, then the two ends of the ridge: east, north, height. */
  double[][] roofPoints() {
    double[][] points = new double[6][];
    double l = length / 2;
    double w = width / 2;
    double[][] plan = {{-l, -w}, {l, -w}, {l, w}, {-l, w}, {-l, 0}, {l, 0}};
    for (int i = 0; i < 6; i++) {
      points[i] = new double[] {
        east + plan[i][0] * cos - plan[i][1] * sin,
        north + plan[i][0] * sin + plan[i][1] * cos,
        base + eaves + (i >= 4 ? ridge : 0)
      };
    }
    return points;
  }

  boolean covers(double e, double n, double margin) {
    double u = (e - east) * cos + (n - north) * sin;
    double v = -(e - east) * sin + (n - north) * cos;
    return Math.abs(u) <= length / 2 + margin && Math.abs(v) <= width / 2 + margin;
  }

  /**
   * The highest point where a ray meets this thing; NaN where it misses.
   *
   * @param side (output) 0 roof falling to +v, 1 roof falling to -v, 2 wall; in {@code side[0]}
   */
  double meet(double[] ray, int[] side) {
    double u0 = (ray[0] - east) * cos + (ray[1] - north) * sin;
    double v0 = -(ray[0] - east) * sin + (ray[1] - north) * cos;
    double du = ray[2] * cos + ray[3] * sin;
    double dv = -ray[2] * sin + ray[3] * cos;
    double low = base - 3;
    double high = top();
    double l = length / 2;
    double w = width / 2;
    // The heights at which the ray is over the plan.
    if (Math.abs(du) > 1e-12) {
      double a = (-l - u0) / du;
      double b = (l - u0) / du;
      low = Math.max(low, Math.min(a, b));
      high = Math.min(high, Math.max(a, b));
    } else if (Math.abs(u0) > l) {
      return Double.NaN;
    }
    if (Math.abs(dv) > 1e-12) {
      double a = (-w - v0) / dv;
      double b = (w - v0) / dv;
      low = Math.max(low, Math.min(a, b));
      high = Math.min(high, Math.max(a, b));
    } else if (Math.abs(v0) > w) {
      return Double.NaN;
    }
    if (low > high) {
      return Double.NaN;
    }
    double pitch = ridge / w;
    double eavesHeight = base + eaves;
    double vHigh = v0 + high * dv;
    if (high < top() && high <= eavesHeight + pitch * (w - Math.abs(vHigh))) {
      side[0] = 2;
      return high;
    }
    double best = Double.NaN;
    for (int facet = 0; facet < 2; facet++) {
      double sign = facet == 0 ? 1 : -1;
      // h = eaves + pitch * (w - sign * (v0 + h * dv))
      double h = (eavesHeight + pitch * (w - sign * v0)) / (1 + pitch * sign * dv);
      double v = v0 + h * dv;
      if (h >= low && h <= high + 1e-9 && sign * v >= 0 && !(h <= best)) {
        best = h;
        side[0] = facet;
      }
    }
    return best;
  }
}
