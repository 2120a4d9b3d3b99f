package sharpkestrel.demo.ground;

import sharpkestrel.demo.noise.Noise;

/**
 * A pit cut into a hillside in benches.
 *
 * @param floor of the pit, metres above the geoid
 */
public record Quarry(double east, double north, double radius, double floor, Noise shape) {

  private static final double BENCH = 7;

  double reach() {
    return radius * 1.9;
  }

  /** Below 1 in the pit. */
  public double share(double e, double n) {
    double dx = e - east;
    double dy = n - north;
    double r = Math.max(1e-6, Math.hypot(dx, dy));
    double bend = 1
        + 0.45 * shape.octaves(1.3 * dx / r + 10, 1.3 * dy / r, 3)
        + 0.16 * shape.octaves(dx / 17, dy / 17, 2);
    return r / (radius * bend);
  }

  double height(double share, double ground) {
    if (share >= 1.2) {
      return ground;
    }
    double up = Math.max(0, share - 0.55) * radius * 0.8;
    double step = Math.floor(up / BENCH);
    double wall = floor + BENCH * (step + Landform.step(0.45, 1, up / BENCH - step));
    double cut = Math.min(ground, wall);
    return cut + (ground - cut) * Landform.step(0.95, 1.2, share);
  }
}
