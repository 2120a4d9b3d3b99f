package sharpkestrel.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import sharpkestrel.demo.light.Season;
import sharpkestrel.demo.light.Sun;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.demo.region.Region;
import sharpkestrel.demo.sensor.Instrument;

/** Passes that are not planned: the sun stands where the place lets it, the view comes from any side. */
class DrawnPassTest {

  private static List<Sun> suns(Season season, double latitude) {
    Scheme scheme = new Scheme(Region.PLATEAU, season, Instrument.SIX_BANDS, Sky.CLEAR);
    List<Sun> suns = new ArrayList<>();
    for (int k = 0; k < 200; k++) {
      Chance chance = Chance.of(k, 1);
      Pass pass = Pass.drawn("one", scheme, 9, latitude, new Pass.Range(2, 24), chance);
      suns.add(Sun.at(pass.time(chance), 9, latitude));
    }
    return suns;
  }

  @Test
  void theSunStandsHighEnoughAndNotTooHigh() {
    for (double latitude : new double[] {-34, -17, 33, 44, 54}) {
      for (Season season : Season.values()) {
        assertThat(suns(season, latitude))
            .allSatisfy(sun -> assertThat(sun.elevation()).isBetween(14.5, 65.5));
      }
    }
  }

  @Test
  void southOfTheEquatorItStandsInTheNorth() {
    assertThat(suns(Season.LEAF_OFF, -34))
        .allSatisfy(sun -> assertThat(Math.cos(Math.toRadians(sun.azimuth()))).isPositive());
    assertThat(suns(Season.LEAF_OFF, 44))
        .allSatisfy(sun -> assertThat(Math.cos(Math.toRadians(sun.azimuth()))).isNegative());
  }

  @Test
  void itComesFromTheEastAndFromTheWest() {
    assertThat(suns(Season.DRY, 44)).anyMatch(sun -> sun.azimuth() < 120);
    assertThat(suns(Season.DRY, 44)).anyMatch(sun -> sun.azimuth() > 240);
  }

  @Test
  void winterIsColderInItsOwnHemisphere() {
    double north =
        suns(Season.SNOW, 44).stream().mapToDouble(Sun::elevation).max().orElseThrow();
    double south =
        suns(Season.SNOW, -44).stream().mapToDouble(Sun::elevation).max().orElseThrow();

    assertThat(north).isLessThan(50);
    assertThat(south).isLessThan(50);
  }
}
