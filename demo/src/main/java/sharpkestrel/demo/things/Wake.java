package sharpkestrel.demo.things;

/**
 * White water behind a vessel under way.
 *
 * @param cos east part of its course
 * @param sin north part of its course
 * @param length of the foam, metres
 * @param beam of the vessel
 */
public record Wake(double east, double north, double cos, double sin, double length, double beam) {

  /** How white the water is at a place, 0 to 1: a streak astern and the arms of a V (Kelvin 1887: 19.5 degrees). */
  public double foam(double e, double n) {
    double astern = -((e - east) * cos + (n - north) * sin);
    double beside = Math.abs(-(e - east) * sin + (n - north) * cos);
    if (astern < -beam * 3 || astern > length) {
      return 0;
    }
    double age = Math.max(0, astern) / length;
    double streak = beside < beam * (0.45 + 0.6 * age) && astern > 0 ? 1 - age : 0;
    double arm = Math.abs(beside - 0.35 * (astern + beam * 2.5) - beam * 0.2);
    double arms = arm < 0.6 + astern * 0.03 ? 0.75 * (1 - age) * (1 - age) : 0;
    return Math.max(streak, arms);
  }
}
