package sharpkestrel.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.ZoneOffset;
import org.junit.jupiter.api.Test;
import sharpkestrel.demo.noise.Chance;

class PassTest {

  @Test
  void timesScatterByTenDaysAndFortyMinutesAboutThePlan() {
    long earliest = Long.MAX_VALUE;
    long latest = Long.MIN_VALUE;
    for (int seed = 1; seed <= 300; seed++) {
      Duration off = Duration.between(
          Pass.ONE.about().toInstant(ZoneOffset.UTC), Pass.ONE.time(Chance.of(seed, 1)));
      earliest = Math.min(earliest, off.toMinutes());
      latest = Math.max(latest, off.toMinutes());
    }
    long most = 10 * 24 * 60 + 40;

    assertThat(earliest).isBetween(-most, -most + 24L * 60);
    assertThat(latest).isBetween(most - 24L * 60, most);
  }

  @Test
  void drawsStayWithinTheirRange() {
    Chance chance = Chance.of(3, 3);
    for (int k = 0; k < 1000; k++) {
      assertThat(Pass.TWO.azimuth().draw(chance)).isBetween(250.0, 300.0);
    }
  }

  @Test
  void scenesOfOneSeedAreTakenFromOppositeSidesAndOneHasClouds() {
    World world = new World(3, 512);
    var one = world.one().conditions();
    var two = world.two().conditions();

    assertThat(one.offNadir())
        .isBetween(Pass.ONE.offNadir().low(), Pass.ONE.offNadir().high());
    assertThat(Math.abs(one.viewAzimuth() - two.viewAzimuth())).isBetween(130.0, 230.0);
    assertThat(one.cloud().radius()).isZero();
    assertThat(two.cloud().radius()).isPositive();
    assertThat(two.wetness()).isLessThan(one.wetness());
  }
}
