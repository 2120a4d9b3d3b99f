package sharpkestrel.demo;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import sharpkestrel.demo.light.Season;
import sharpkestrel.demo.light.Sun;
import sharpkestrel.demo.noise.Chance;

/**
 * The plan of one acquisition: about when, from where and through what air a scene is taken. The seed draws from it.
 *
 * @param about day and time, universal; the pass is up to {@code days} and {@code minutes} from it
 * @param offNadir angle at the ground between view and vertical, degrees
 * @param azimuth from the ground to the sensor, degrees clockwise from north
 * @param aerosol optical depth of haze at 0.55 micrometres
 * @param wetness of roads and roofs, 0 to 1
 * @param brightest reflectance of the level surface that fills the range of numbers
 * @param cloudy with thin cloud over one corner
 */
record Pass(
    String scene,
    LocalDateTime about,
    Range offNadir,
    Range azimuth,
    Range aerosol,
    Range wetness,
    double brightest,
    boolean cloudy,
    int days,
    int minutes) {

  /** A clear noon in spring after rain, seen from the east. */
  static final Pass ONE = new Pass(
      "scene-one",
      LocalDateTime.of(2031, 4, 24, 11, 50),
      new Range(16, 22),
      new Range(80, 120),
      new Range(0.06, 0.11),
      new Range(0.3, 0.55),
      0.86,
      false,
      10,
      40);

  /** A hazy, dry morning at midsummer, seen more steeply from the west. */
  static final Pass TWO = new Pass(
      "scene-two",
      LocalDateTime.of(2031, 6, 19, 10, 5),
      new Range(9, 14),
      new Range(250, 300),
      new Range(0.12, 0.2),
      new Range(0.05, 0.15),
      1.0,
      true,
      10,
      40);

  /** Lowest and highest sun that scenes are taken under, degrees. */
  private static final Range SUN = new Range(15, 65);

  /**
   * A pass drawn for a place: some day of the season, some hour at which the sun stands high enough and not too high, seen from any
   * side.
   *
   * @param longitude degrees, as {@code latitude}
   * @param steepest least and most degrees off the vertical
   */
  static Pass drawn(
      String scene,
      Scheme scheme,
      double longitude,
      double latitude,
      Range steepest,
      Chance chance) {
    Season season = scheme.season();
    LocalDateTime best = null;
    double least = Double.POSITIVE_INFINITY;
    for (int tries = 0; tries < 300 && least > 0; tries++) {
      int months = Math.floorMod(season.to - season.from, 12);
      int month = season.from + (latitude < 0 ? 6 : 0) - 1;
      double hour = chance.between(7.5, 16.5) - longitude / 15;
      LocalDateTime time = LocalDateTime.of(2031, 1, 1, 0, 0)
          .plusMonths(Math.floorMod(month, 12))
          .plusDays(chance.whole(0, 30 * months))
          .plusSeconds((long) (hour * 3600));
      double sun = Sun.at(time.toInstant(ZoneOffset.UTC), longitude, latitude).elevation();
      double off = Math.max(0, Math.max(SUN.low - sun, sun - SUN.high));
      if (off < least) {
        least = off;
        best = time;
      }
    }
    return new Pass(
        scene,
        best,
        steepest,
        new Range(0, 360),
        scheme.sky().aerosol,
        switch (season) {
          case WET -> new Range(0.7, 1);
          case DRY -> new Range(0, 0.05);
          default -> new Range(0.1, 0.4);
        },
        season == Season.SNOW ? 1.05 : chance.between(0.8, 1),
        scheme.sky().thickest > 0,
        0,
        0);
  }

  /** The same so many years later. */
  Pass later(int years) {
    return new Pass(
        scene,
        about.plusYears(years),
        offNadir,
        azimuth,
        aerosol,
        wetness,
        brightest,
        cloudy,
        days,
        minutes);
  }

  record Range(double low, double high) {

    double draw(Chance chance) {
      return chance.between(low, high);
    }
  }

  Instant time(Chance chance) {
    return about
        .plusDays(chance.whole(-days, days))
        .plusSeconds(chance.whole(-60 * minutes, 60 * minutes))
        .toInstant(ZoneOffset.UTC);
  }
}
