package sharpkestrel.demo.ground;

/**
 * Ground made level for a yard: an oblong with banks around it.
 *
 * @param angle of its long side, radians anticlockwise from east
 */
public record Terrace(
    double east, double north, double angle, double length, double width, double level) {

  private static final double BANK = 14;

  double reach() {
    return Math.hypot(length, width) / 2 + BANK;
  }

  double height(double e, double n, double ground) {
    double u = (e - east) * Math.cos(angle) + (n - north) * Math.sin(angle);
    double v = -(e - east) * Math.sin(angle) + (n - north) * Math.cos(angle);
    double out =
        Math.hypot(Math.max(0, Math.abs(u) - length / 2), Math.max(0, Math.abs(v) - width / 2));
    return level + (ground - level) * Landform.step(0, BANK, out);
  }
}
