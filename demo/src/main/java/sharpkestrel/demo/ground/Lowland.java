package sharpkestrel.demo.ground;

import sharpkestrel.demo.noise.Noise;

/**
 * Rolling land without a sea, with a river that winds through it or without one. A town lies about its origin.
 *
 * <p>The middle of the river is the curve on which a slow noise is nought; how far a place is from it follows from the noise
 * and its slope, so that the river is about as wide everywhere.
 */
public final class Lowland implements Landform {

  private static final double FAR = 9999;
  private static final double BANK = 26;

  /**
   * What such land is like.
   *
   * @param east the origin
   * @param level height of the ground at a river, or the mean height, metres above the geoid
   * @param swell how much the land rises and falls, metres, over {@code length} metres
   * @param knolls small forms, metres
   * @param river half of the river's width, metres; 0 for none
   * @param town radius of the town, metres; 0 for none
   */
  public record Form(
      double east,
      double north,
      double level,
      double swell,
      double length,
      double knolls,
      double river,
      double town) {}

  private final Form form;
  private final Noise course;
  private final Noise hills;
  private final Noise bumps;
  private final double offset;

  public Lowland(long seed, Form form) {
    this.form = form;
    course = new Noise(seed * 31 + 51);
    hills = new Noise(seed * 31 + 52);
    bumps = new Noise(seed * 31 + 53);
    // the river passes by the middle of the town
    offset = course.octaves(form.east / WIND, (form.north - 260) / WIND, 2);
  }

  private static final double WIND = 2400;

  private double across(double e, double n) {
    return course.octaves(e / WIND, n / WIND, 2) - offset;
  }

  @Override
  public double smooth(double e, double n) {
    if (form.river == 0) {
      return FAR;
    }
    double arm = 20;
    double here = across(e, n);
    double de = (across(e + arm, n) - across(e - arm, n)) / (2 * arm);
    double dn = (across(e, n + arm) - across(e, n - arm)) / (2 * arm);
    double slope = Math.max(Math.hypot(de, dn), 0.25 / WIND);
    return Math.min(FAR, Math.abs(here) / slope) - form.river;
  }

  @Override
  public double jagged(double smooth, double e, double n) {
    if (Math.abs(smooth) > 60) {
      return smooth;
    }
    return smooth + (1 - front(e, n)) * 3 * bumps.octaves(e / 30, n / 30, 3);
  }

  @Override
  public Broad broad(double e, double n) {
    return new Broad(
        hills.octaves(e / form.length, n / form.length, 3),
        bumps.octaves(e / 260, n / 260, 3),
        bumps.octaves(e / 60 + 9, n / 60, 2));
  }

  @Override
  public double height(double shore, Broad broad, double e, double n) {
    if (shore <= 0) {
      return form.level;
    }
    double town = town(e, n);
    double rise = Landform.step(0, 900, Math.min(shore, 900));
    double bank = form.river == 0 ? 0 : 3.2 * Landform.step(0, front(e, n) > 0 ? 2.5 : BANK, shore);
    double valley = form.river == 0 ? 1 : rise;
    return form.level
        + bank
        + valley * form.swell * (0.5 + broad.cliff())
        + (1 - 0.7 * town) * Math.min(1, shore / 80) * form.knolls * broad.drop()
        + 0.25 * Math.min(1, shore / 20) * broad.ridge();
  }

  @Override
  public boolean isSea() {
    return false;
  }

  private double toTown(double e, double n) {
    return Math.hypot(e - form.east, n - form.north);
  }

  @Override
  public double front(double e, double n) {
    return form.town == 0 || form.river == 0
        ? 0
        : 1 - Landform.step(form.town * 0.7, form.town * 0.9, toTown(e, n));
  }

  @Override
  public double town(double e, double n) {
    return form.town == 0 ? 0 : 1 - Landform.step(form.town * 0.9, form.town * 1.3, toTown(e, n));
  }

  @Override
  public double built(double e, double n) {
    return form.town == 0 ? 0 : 1 - Landform.step(form.town * 0.9, form.town * 1.05, toTown(e, n));
  }
}
