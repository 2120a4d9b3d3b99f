package sharpkestrel.demo.things;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.demo.ground.Coast;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.demo.truth.Outlines;
import sharpkestrel.raster.Extent;

/** Buildings of every plan on a level meadow. */
class BuilderTest {

  private static final double LENGTH = 22;
  private static final double WIDTH = 6;
  private static final double EAVES = 4;
  private static final double PITCH = 0.5;

  private static Ground ground;
  private static Frame meadow;

  private final Things things = new Things();
  private final Builder builder = new Builder(ground, things);

  /** Somewhere level, dry and away from roads. */
  @BeforeAll
  static void findAMeadow() {
    Coast coast = new Coast(3);
    ground = new Ground(3, Extent.around(coast.east(150, 0), coast.north(150, 0), 400));
    double best = 99;
    for (double u = 60; u < 500; u += 12) {
      for (double v = -380; v < 380; v += 12) {
        double e = coast.east(u, v);
        double n = coast.north(u, v);
        double fall = 0;
        double near = 99;
        for (int k = 0; k < 12; k++) {
          double pe = e + 22 * Math.cos(k * Math.PI / 6);
          double pn = n + 22 * Math.sin(k * Math.PI / 6);
          fall = Math.max(fall, Math.abs(ground.height(pe, pn) - ground.height(e, n)));
          near = Math.min(near, ground.roads().beyondEdge(pe, pn));
          near = ground.buildable(pe, pn) ? near : -1;
        }
        if (near > 3 && fall < best) {
          best = fall;
          meadow = Frame.at(e, n, 0.6);
        }
      }
    }
    assertThat(meadow).isNotNull();
  }

  private static Builder.Order order(Building.Shape shape, Builder.Form form) {
    return new Builder.Order(
        Building.Use.SHOP, shape, Material.TURF_ROOF, form, LENGTH, WIDTH, EAVES, PITCH);
  }

  @ParameterizedTest
  @EnumSource(
      value = Building.Shape.class,
      mode = EnumSource.Mode.EXCLUDE,
      names = {"OCTAGON"})
  void everyPlanIsOneWholeUnderOneMaterial(Building.Shape shape) {
    boolean built = builder.build(meadow, order(shape, Builder.Form.GABLE), 1, Chance.of(1, 2));

    assertThat(built).isTrue();
    Building building = things.buildings().get(0);
    Geometry plan = Outlines.footprint(building);
    assertThat(plan.getNumGeometries()).as("%s hangs together", shape).isEqualTo(1);
    assertThat(building.parts()).allMatch(part -> part.over(0).material() == Material.TURF_ROOF);
    boolean court = shape == Building.Shape.COURT;
    int holes = ((org.locationtech.jts.geom.Polygon) plan.getGeometryN(0)).getNumInteriorRing();
    assertThat(holes).isEqualTo(court ? 1 : 0);
    double oblong = LENGTH * WIDTH;
    if (shape == Building.Shape.OBLONG) {
      assertThat(plan.getArea()).isCloseTo(oblong, within(1e-3));
    } else if (shape != Building.Shape.ROW) {
      assertThat(plan.getArea()).isGreaterThan(oblong * 1.05);
    }
  }

  @Test
  void aGableIsAsHighAsItsWallsAndHalfItsWidthTimesThePitch() {
    builder.build(meadow, order(Building.Shape.OBLONG, Builder.Form.GABLE), 1, Chance.of(1, 2));

    Solid range = things.buildings().get(0).parts().get(0);
    double foot = range.base;
    assertThat(range.top - foot).isCloseTo(EAVES + PITCH * WIDTH / 2, within(1e-9));
    assertThat(range.facets()).isEqualTo(2);
  }

  @Test
  void hipsHaveFourFacetsFlatRoofsAndSinglePitchesOne() {
    builder.build(meadow, order(Building.Shape.OBLONG, Builder.Form.HIP), 1, Chance.of(1, 2));
    Things flat = new Things();
    new Builder(ground, flat)
        .build(meadow, order(Building.Shape.OBLONG, Builder.Form.FLAT), 1, Chance.of(1, 2));
    Things mono = new Things();
    new Builder(ground, mono)
        .build(meadow, order(Building.Shape.OBLONG, Builder.Form.MONO), 1, Chance.of(1, 2));

    assertThat(things.buildings().get(0).parts().get(0).facets()).isEqualTo(4);
    assertThat(flat.buildings().get(0).parts().get(0).facets()).isEqualTo(1);
    Solid lean = mono.buildings().get(0).parts().get(0);
    double[][] corners = lean.facet(0);
    double low = 1e9;
    double high = 0;
    for (double[] corner : corners) {
      low = Math.min(low, corner[2]);
      high = Math.max(high, corner[2]);
    }
    // a single pitch is never steeper than 0.3
    assertThat(high - low).isCloseTo(0.3 * WIDTH, within(1e-6));
  }

  @Test
  void nothingIsBuiltTwiceInOnePlaceOrOnReservedGround() {
    assertThat(builder.build(
            meadow, order(Building.Shape.OBLONG, Builder.Form.FLAT), 1, Chance.of(1, 2)))
        .isTrue();
    assertThat(builder.build(
            meadow.moved(5, 2, 0.3),
            order(Building.Shape.OBLONG, Builder.Form.FLAT),
            1,
            Chance.of(1, 2)))
        .isFalse();
    Things kept = new Things();
    kept.reserve(meadow.oblong(0, 0, 4, 4));

    assertThat(new Builder(ground, kept)
            .build(meadow, order(Building.Shape.OBLONG, Builder.Form.FLAT), 1, Chance.of(1, 2)))
        .isFalse();
  }

  @Test
  void nothingIsBuiltInTheSeaOrOnARoad() {
    Coast coast = ground.coast();
    Frame sea = Frame.at(coast.east(-250, 0), coast.north(-250, 0), 0);
    var road = ground.roads().all().get(0);
    Frame street = Frame.at(road.e(3), road.n(3), 0);

    for (Frame frame : new Frame[] {sea, street}) {
      assertThat(builder.build(
              frame, order(Building.Shape.OBLONG, Builder.Form.GABLE), 1, Chance.of(1, 2)))
          .isFalse();
    }
    assertThat(things.buildings()).isEmpty();
  }

  @Test
  void aTowerHasEightSidesAndTheHeightThatWasOrdered() {
    boolean built = builder.tower(
        meadow.east(),
        meadow.north(),
        3,
        25,
        Material.SLATE_ROOF,
        Building.Use.TOWER,
        Chance.of(1, 2));

    assertThat(built).isTrue();
    Building tower = things.buildings().get(0);
    assertThat(tower.height()).isCloseTo(25, within(1e-6));
    assertThat(tower.parts().get(0).facets()).isEqualTo(8);
    assertThat(Outlines.footprint(tower).getArea()).isCloseTo(2 * Math.sqrt(2) * 9, within(0.01));
  }
}
