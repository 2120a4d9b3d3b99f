package sharpkestrel.demo.ground;

import sharpkestrel.demo.noise.Noise;

/**
 * A lake of level water in a hollow of its own making.
 *
 * @param level of the water, metres above the geoid
 */
record Lake(double east, double north, double radius, double level, Noise shape) {

  private static final double BANK = 1.9;

  double reach() {
    return radius * 1.4 * BANK;
  }

  boolean nears(double e, double n) {
    double dx = e - east;
    double dy = n - north;
    return dx * dx + dy * dy < reach() * reach();
  }

  /** Distance from the middle as a share of the way to the shore: below 1 in the water. */
  double share(double e, double n) {
    double dx = e - east;
    double dy = n - north;
    double r = Math.hypot(dx, dy);
    if (r < 1e-9) {
      return 0;
    }
    double bend = 1
        + 0.34 * shape.octaves(1.6 * dx / r + 10, 1.6 * dy / r, 2)
        + 0.02 * shape.at(dx / 14, dy / 14);
    return r / (radius * bend);
  }

  /** Ground once the hollow is there: the water inside, banks that rise to the ground outside. */
  double height(double share, double ground) {
    if (share <= 1) {
      return level;
    }
    if (share >= BANK) {
      return ground;
    }
    double bank = level + 0.15 + 0.07 * radius * (share - 1);
    return bank + (ground - bank) * Landform.step(1, BANK, share);
  }
}
