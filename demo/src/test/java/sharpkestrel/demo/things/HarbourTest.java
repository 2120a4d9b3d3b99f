package sharpkestrel.demo.things;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import sharpkestrel.demo.ground.Coast;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.light.Material;
import sharpkestrel.raster.Extent;

/** What is built by the water, and the vessels of a day there. */
class HarbourTest {

  private static Ground ground;
  private static Coast coast;
  private static Harbour harbour;
  private static Things built;
  private static Things things;

  @BeforeAll
  static void build() {
    coast = new Coast(5);
    Extent extent = Extent.around(coast.east(-100, 0), coast.north(-100, 0), 900);
    ground = new Ground(5, extent.grown(60));
    built = new Things();
    harbour = new Harbour(ground, built);
    harbour.build(extent);
    things = new Plan(ground, extent, extent.grown(-100)).day(1);
  }

  @Test
  void jettiesAndPontoonsRunFromTheQuayIntoTheWater() {
    assertThat(harbour.jetties()).hasSizeGreaterThanOrEqualTo(5);
    for (Harbour.Jetty jetty : harbour.jetties()) {
      Frame out = harbour.seaward(jetty.v());
      double end = jetty.length() - 4;

      assertThat(coast.at(out.e(-8, 0), out.n(-8, 0))).isGreaterThan(-3);
      assertThat(coast.at(out.e(end, 0), out.n(end, 0))).isLessThan(-15);
    }
    for (Harbour.Marina marina : harbour.marinas()) {
      Frame out = harbour.seaward(marina.v());
      double end = marina.length();

      assertThat(coast.at(out.e(end, 0), out.n(end, 0))).isLessThan(-15);
    }
  }

  @Test
  void theFerrySlipFallsFromTheQuayIntoTheWater() {
    Frame out = harbour.seaward(222);
    List<double[]> roof = new ArrayList<>();
    for (Solid solid : built.solids(Extent.around(out.e(11, 0), out.n(11, 0), 2))) {
      if (Math.hypot(solid.east - out.e(11, 0), solid.north - out.n(11, 0)) < 1e-6) {
        roof.addAll(List.of(solid.facet(0)));
      }
    }
    assertThat(roof).hasSize(4);
    double highest = roof.stream().mapToDouble(c -> c[2]).max().orElseThrow();
    double lowest = roof.stream().mapToDouble(c -> c[2]).min().orElseThrow();

    assertThat(highest).isCloseTo(Harbour.QUAY_LEVEL + 0.1, within(1e-6));
    assertThat(lowest).isCloseTo(0.1, within(1e-6));
  }

  @Test
  void noVesselLiesOnAJettyAQuayAPontoonOrABoulder() {
    assertThat(things.vessels()).hasSizeGreaterThan(150);
    for (Vessel vessel : things.vessels()) {
      if (vessel.state() == Vessel.State.ASHORE) {
        continue;
      }
      for (Solid solid : built.solids(Extent.around(vessel.east(), vessel.north(), 40))) {
        assertThat(Polygons.overlap(vessel.deck(), solid.plan()))
            .as("%s and a solid of %s", vessel, solid.over(0).material())
            .isFalse();
      }
    }
  }

  @Test
  void boatsOnBuoysLieToOneWind() {
    List<Vessel> moored = things.vessels().stream()
        .filter(v -> v.state() == Vessel.State.MOORED && v.place().equals(Harbour.TOWN))
        .toList();
    assertThat(moored).hasSizeGreaterThan(20);
    double cos = moored.stream()
        .mapToDouble(v -> Math.cos(Math.toRadians(v.heading())))
        .average()
        .orElseThrow();
    double sin = moored.stream()
        .mapToDouble(v -> Math.sin(Math.toRadians(v.heading())))
        .average()
        .orElseThrow();

    // of headings that scatter by 0.14 radians about one
    assertThat(Math.hypot(cos, sin)).isCloseTo(Math.exp(-0.14 * 0.14 / 2), within(0.01));
  }

  @Test
  void raftsHoldTwoToFiveAndSayHowMany() {
    List<Vessel> rafted =
        things.vessels().stream().filter(v -> v.state() == Vessel.State.RAFTED).toList();

    assertThat(rafted).hasSizeGreaterThan(20);
    assertThat(rafted).allMatch(v -> v.abreast() >= 2 && v.abreast() <= 5);
    for (Vessel vessel : rafted) {
      long beside = rafted.stream()
          .filter(o -> o != vessel
              && o.abreast() == vessel.abreast()
              && Math.hypot(o.east() - vessel.east(), o.north() - vessel.north()) < 36)
          .count();
      assertThat(beside).isGreaterThanOrEqualTo(vessel.abreast() - 1L);
    }
  }

  @Test
  void whatIsTakenForVesselsLiesInTheSoundToo() {
    Extent all = Extent.around(coast.east(-100, 0), coast.north(-100, 0), 900);
    List<Pen> pens = new ArrayList<>();
    things.pens(all).forEach(pens::add);
    int buoys = 0;
    for (Crown crown : things.crowns(all)) {
      buoys += crown.material() == Material.BUOY ? 1 : 0;
    }

    assertThat(pens).allMatch(p -> coast.at(p.east(), p.north()) < -p.radius());
    assertThat(buoys).isGreaterThan(15);
  }

  @Test
  void vesselsAreFromFourToSixtyMetresLongAndLongerThanWide() {
    double shortest = 1e9;
    double longest = 0;
    for (Vessel vessel : things.vessels()) {
      shortest = Math.min(shortest, vessel.length());
      longest = Math.max(longest, vessel.length());
      assertThat(vessel.length()).isBetween(3.5, 60.0);
      assertThat(vessel.beam()).isLessThan(vessel.length() * 0.6);
    }
    assertThat(shortest).isLessThan(5);
    assertThat(longest).isGreaterThan(30);
  }
}
