package sharpkestrel.demo;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import sharpkestrel.demo.noise.Chance;

/**
 * The plan of one acquisition: about when, from where and through what air a scene is taken. The seed draws from it.
 *
 * @param about day and time, universal; the pass is up to ten days and forty minutes from it
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
    boolean cloudy) {

  /** A clear noon in spring after rain, seen from the east. */
  static final Pass ONE = new Pass(
      "scene-one",
      LocalDateTime.of(2031, 4, 24, 11, 50),
      new Range(16, 22),
      new Range(80, 120),
      new Range(0.06, 0.11),
      new Range(0.3, 0.55),
      0.86,
      false);

  /** A hazy, dry morning at midsummer, seen more steeply from the west. */
  static final Pass TWO = new Pass(
      "scene-two",
      LocalDateTime.of(2031, 6, 19, 10, 5),
      new Range(9, 14),
      new Range(250, 300),
      new Range(0.12, 0.2),
      new Range(0.05, 0.15),
      1.0,
      true);

  record Range(double low, double high) {

    double draw(Chance chance) {
      return chance.between(low, high);
    }
  }

  Instant time(Chance chance) {
    return about
        .plusDays(chance.whole(-10, 10))
        .plusSeconds(chance.whole(-2400, 2400))
        .toInstant(ZoneOffset.UTC);
  }
}
