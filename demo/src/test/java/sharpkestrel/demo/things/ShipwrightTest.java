package sharpkestrel.demo.things;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import sharpkestrel.demo.ground.Coast;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.raster.Extent;

class ShipwrightTest {

  private final Coast coast = new Coast(2);
  private final Ground ground =
      new Ground(2, Extent.around(coast.east(-400, 0), coast.north(-400, 0), 60));
  private final Things things = new Things();
  private final Shipwright ships = new Shipwright(ground, things);
  private final Frame water = Frame.at(coast.east(-400, 0), coast.north(-400, 0), 1.1);

  private Vessel launched(Vessel.Kind kind, Vessel.State state) {
    ships.launch(water, kind, 20, 6, 0, "here", state, 1, Chance.of(5, kind.ordinal()));
    return things.vessels().get(0);
  }

  @ParameterizedTest
  @EnumSource(Vessel.Kind.class)
  void aHullIsAsLongAndWideAsOrderedAndPointsWhereItHeads(Vessel.Kind kind) {
    Vessel vessel = launched(kind, Vessel.State.MOORED);

    double[] ring = vessel.deck();
    double foremost = -1e9;
    double aftmost = 1e9;
    double widest = 0;
    for (int i = 0; i < ring.length; i += 2) {
      double u =
          (ring[i] - water.east()) * water.cos() + (ring[i + 1] - water.north()) * water.sin();
      double v =
          -(ring[i] - water.east()) * water.sin() + (ring[i + 1] - water.north()) * water.cos();
      foremost = Math.max(foremost, u);
      aftmost = Math.min(aftmost, u);
      widest = Math.max(widest, Math.abs(v));
    }
    assertThat(foremost - aftmost).isCloseTo(20, within(1e-6));
    assertThat(2 * widest).isCloseTo(6, within(1e-6));
    assertThat(Polygons.area(ring)).isBetween(20 * 6 * 0.6, 20.0 * 6);
    // headings go clockwise from north
    assertThat(Math.IEEEremainder(vessel.heading() - (90 - Math.toDegrees(1.1)), 360))
        .isCloseTo(0, within(1e-9));
  }

  @Test
  void onlyVesselsUnderWayHaveAWake() {
    launched(Vessel.Kind.WORKBOAT, Vessel.State.MOORED);
    assertThat(things.wakes(Extent.around(water.east(), water.north(), 50))).isEmpty();

    launched(Vessel.Kind.WORKBOAT, Vessel.State.UNDER_WAY);
    assertThat(things.wakes(Extent.around(water.east(), water.north(), 50))).hasSize(1);
  }

  @Test
  void vesselsFitOnWaterAndOnlyOnce() {
    assertThat(ships.fits(water, 20, 6, true)).isTrue();
    assertThat(ships.fits(water, 20, 6, false)).isFalse();
    launched(Vessel.Kind.BARGE, Vessel.State.MOORED);

    assertThat(ships.fits(water.moved(0, 3, 0), 20, 6, true)).isFalse();
    // side by side they may touch
    assertThat(ships.fits(water.moved(0, 6.1, 0), 20, 6, true)).isTrue();
  }

  @ParameterizedTest
  @EnumSource(Vessel.Kind.class)
  void sizesKeepToTheirClass(Vessel.Kind kind) {
    Chance chance = Chance.of(9, 9);
    for (int i = 0; i < 300; i++) {
      double[] size = Shipwright.size(kind, chance);
      double[] bounds = switch (kind) {
        case DINGHY -> new double[] {4, 6.6};
        case WORKBOAT -> new double[] {7.5, 25.5};
        case BARGE -> new double[] {18, 60};
      };
      assertThat(size[0]).isBetween(bounds[0], bounds[1]);
      assertThat(size[0] / size[1]).isBetween(2.2, 4.6);
    }
  }

  @Test
  void aWakeIsWhiteAsternAndAlongTheArmsOfKelvinsAngle() {
    Wake wake = new Wake(0, 0, 1, 0, 100, 4);

    assertThat(wake.foam(-20, 0)).isGreaterThan(0.5);
    assertThat(wake.foam(20, 0)).isZero();
    assertThat(wake.foam(-200, 0)).isZero();
    double arm = 0;
    for (double beside = 4; beside < 60; beside += 0.2) {
      if (wake.foam(-60, beside) > 0) {
        arm = beside;
      }
    }
    // 19.5 degrees behind a point a few metres ahead of the stern
    assertThat(Math.toDegrees(Math.atan2(arm, 70))).isBetween(17.0, 24.0);
    assertThat(wake.foam(-60, -arm)).isEqualTo(wake.foam(-60, arm));
  }
}
