package sharpkestrel.demo.light;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class LightTest {

  /** Declination and equation of time by Spencer's series (1971): another formula than the one under test. */
  @ParameterizedTest
  @CsvSource({
    "2031-04-24T11:50:00Z, 114",
    "2031-06-19T10:05:00Z, 170",
    "2031-12-21T12:30:00Z, 355",
    "2031-09-05T16:00:00Z, 248"
  })
  void theSunStandsWhereAnotherFormulaPutsIt(String time, int dayOfYear) {
    double longitude = -2.8;
    double latitude = 60.4;
    Instant instant = Instant.parse(time);
    double hours = (instant.getEpochSecond() % 86_400) / 3600.0;
    double g = 2 * Math.PI * (dayOfYear - 1 + hours / 24) / 365;
    double declination = 0.006918
        - 0.399912 * Math.cos(g)
        + 0.070257 * Math.sin(g)
        - 0.006758 * Math.cos(2 * g)
        + 0.000907 * Math.sin(2 * g)
        - 0.002697 * Math.cos(3 * g)
        + 0.00148 * Math.sin(3 * g);
    double minutes = 229.18
        * (0.000075
            + 0.001868 * Math.cos(g)
            - 0.032077 * Math.sin(g)
            - 0.014615 * Math.cos(2 * g)
            - 0.040849 * Math.sin(2 * g));
    double hourAngle = Math.toRadians(15 * (hours + minutes / 60 - 12) + longitude);
    double phi = Math.toRadians(latitude);
    double elevation = Math.toDegrees(Math.asin(Math.sin(phi) * Math.sin(declination)
        + Math.cos(phi) * Math.cos(declination) * Math.cos(hourAngle)));

    Sun sun = Sun.at(instant, longitude, latitude);

    assertThat(sun.elevation()).isCloseTo(elevation, within(0.35));
    // before noon in the east, after it in the west
    assertThat(Math.signum(180 - sun.azimuth())).isEqualTo(Math.signum(-hourAngle));
  }

  @Test
  void theSunsDirectionIsOfUnitLengthAndPointsToIt() {
    double[] d = new Sun(30, 90).direction();

    assertThat(d).containsExactly(new double[] {Math.cos(Math.PI / 6), 0, 0.5}, within(1e-12));
  }

  @Test
  void airIsClearerInRedThanInVioletAndHazeDoesHarmInAllBands() {
    Sun sun = new Sun(38, 160);
    Air clear = new Air(sun, 15, 0.05);
    Air hazy = new Air(sun, 15, 0.25);
    for (int b = 0; b < Material.BANDS; b++) {
      if (b > 0) {
        assertThat(clear.down(b)).isGreaterThan(clear.down(b - 1));
        assertThat(clear.haze(b)).isLessThan(clear.haze(b - 1));
        assertThat(clear.sky(b)).isLessThan(clear.sky(b - 1));
      }
      assertThat(hazy.down(b)).isLessThan(clear.down(b));
      assertThat(hazy.up(b)).isLessThan(clear.up(b));
      assertThat(hazy.haze(b)).isGreaterThan(clear.haze(b));
      // no more light arrives than came
      double sine = Math.sin(Math.toRadians(38));
      assertThat(hazy.down(b) * sine + hazy.sky(b)).isLessThan(sine);
    }
  }

  /** Molecular optical depth at 0.55 micrometres and sea level is 0.098 in the tables (Hansen and Travis 1974). */
  @Test
  void withoutHazeTheMoleculesOfTheTablesAreLeft() {
    Sun zenith = new Sun(90, 0);
    Air pure = new Air(zenith, 0, 0);

    double depthAtGreen = -Math.log(pure.down(2));

    // the green band lies at 0.545
    assertThat(depthAtGreen).isCloseTo(0.098 * Math.pow(0.545 / 0.55, -4.08), within(0.002));
  }

  @Test
  void glintIsStrongestWhereSensorAndSunAreMirrorImages() {
    double[] sun = {0, -Math.sin(0.6), Math.cos(0.6)};
    double[] mirror = {0, Math.sin(0.6), Math.cos(0.6)};
    double[] beside = {Math.sin(0.6), 0, Math.cos(0.6)};
    double calm = new Glint(sun, mirror, 2).at(0, 0);

    assertThat(new Glint(sun, beside, 2).at(0, 0)).isLessThan(0.1 * calm);
    assertThat(new Glint(sun, mirror, 12).at(0, 0)).isLessThan(calm);
    assertThat(new Glint(sun, mirror, 2).at(0.2, 0)).isLessThan(calm);
  }

  @Test
  void everyMaterialReflectsBetweenNothingAndAll() {
    for (Material material : Material.values()) {
      for (int b = 0; b < Material.BANDS; b++) {
        assertThat(material.reflectance(b)).as(material.name()).isBetween(0.001f, 0.9f);
      }
      assertThat(material.toned(1, 0))
          .containsExactly(material.spectrum(), org.assertj.core.data.Offset.offset(0.002f));
    }
    assertThat(Material.RUSTED_METAL_ROOF.label()).isEqualTo("rusted metal");
    assertThat(Material.WET_ASPHALT.label()).isEqualTo("wet asphalt");
  }
}
