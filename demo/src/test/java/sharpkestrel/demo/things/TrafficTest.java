package sharpkestrel.demo.things;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import sharpkestrel.demo.ground.Coast;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.ground.Road;
import sharpkestrel.demo.ground.Terrace;
import sharpkestrel.demo.ground.TownPlan;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.raster.Extent;

/** Vehicles and what stands in yards, on one day about the town. */
class TrafficTest {

  private static Ground ground;
  private static Plan plan;
  private static Things things;

  @BeforeAll
  static void fill() {
    Coast coast = new Coast(9);
    Extent extent = Extent.around(coast.east(90, 0), coast.north(90, 0), 520);
    ground = new Ground(9, extent.grown(60));
    plan = new Plan(ground, extent, extent.grown(-100));
    things = plan.day(1);
  }

  private static List<Vehicle> at(Vehicle.Place place) {
    return things.vehicles().stream().filter(v -> v.place() == place).toList();
  }

  private static Terrace terrace(TownPlan.Purpose purpose) {
    return TownPlan.yards(ground.coast()).stream()
        .filter(y -> y.purpose() == purpose)
        .findFirst()
        .orElseThrow()
        .terrace();
  }

  /** Metres along and across a yard from its middle. */
  private static double[] inYard(Terrace yard, double e, double n) {
    double cos = Math.cos(yard.angle());
    double sin = Math.sin(yard.angle());
    double de = e - yard.east();
    double dn = n - yard.north();
    return new double[] {de * cos + dn * sin, -de * sin + dn * cos};
  }

  @Test
  void noVehicleStandsInAnotherOrInABuilding() {
    List<Vehicle> vehicles = things.vehicles();
    assertThat(vehicles).hasSizeGreaterThan(250);
    for (Vehicle one : vehicles) {
      for (Vehicle other : vehicles) {
        if (one != other
            && Math.hypot(one.east() - other.east(), one.north() - other.north()) < 25) {
          assertThat(Polygons.overlap(one.plan(), other.plan())).isFalse();
        }
      }
      for (Building building : things.buildings()) {
        for (Solid part : building.parts()) {
          if (Math.hypot(one.east() - part.east, one.north() - part.north) < part.reach + 12) {
            assertThat(Polygons.overlap(one.plan(), part.plan())).isFalse();
          }
        }
      }
    }
  }

  @Test
  void vehiclesForTheFerryStandInTheMiddleOfTheirLanes() {
    Terrace yard = terrace(TownPlan.Purpose.FERRY);
    for (Vehicle vehicle : at(Vehicle.Place.FERRY)) {
      double[] uv = inYard(yard, vehicle.east(), vehicle.north());
      double lane = uv[1] / 3.1 - 0.5;

      assertThat(Math.abs(uv[0])).isLessThan(yard.length() / 2);
      // lines are painted every 3.1 m from the yard's middle
      assertThat((lane - Math.rint(lane)) * 3.1).isCloseTo(0, within(0.26));
      // they head for the slip, along the yard
      double course = 90 - Math.toDegrees(yard.angle());
      assertThat(Math.IEEEremainder(vehicle.heading() - course, 360)).isCloseTo(0, within(4.0));
    }
  }

  @Test
  void someLorriesPullATrailerCloseBehind() {
    List<Vehicle> ferry = at(Vehicle.Place.FERRY);
    long pulled = ferry.stream()
        .filter(v -> v.kind() == Vehicle.Kind.TRAILER)
        .filter(trailer -> ferry.stream()
            .anyMatch(v -> v.kind() == Vehicle.Kind.LORRY
                && Math.hypot(v.east() - trailer.east(), v.north() - trailer.north()) < 14))
        .count();

    assertThat(pulled).isGreaterThanOrEqualTo(2);
  }

  @Test
  void parkedAlongAKerbTheyStandAtTheEdgeOfARoadAndPointAlongIt() {
    assertThat(at(Vehicle.Place.STREET)).hasSizeGreaterThan(40);
    for (Vehicle vehicle : at(Vehicle.Place.STREET)) {
      boolean along = false;
      for (Road road : ground.roads().all()) {
        for (int k = 0; k + 1 < road.points(); k++) {
          double de = road.e(k + 1) - road.e(k);
          double dn = road.n(k + 1) - road.n(k);
          double length = Math.hypot(de, dn);
          double ahead =
              ((vehicle.east() - road.e(k)) * de + (vehicle.north() - road.n(k)) * dn) / length;
          double off =
              Math.abs((vehicle.east() - road.e(k)) * dn - (vehicle.north() - road.n(k)) * de)
                  / length;
          double turn =
              Math.IEEEremainder(90 - Math.toDegrees(Math.atan2(dn, de)) - vehicle.heading(), 180);
          along |= ahead > -4
              && ahead < length + 4
              && Math.abs(turn) < 5
              && off < road.kind().half
              && off > road.kind().half - 1.4;
        }
      }
      assertThat(along).as("%s", vehicle).isTrue();
    }
  }

  @Test
  void someStandHardByAWallOnItsShadySide() {
    double toSun = Math.toRadians(170);
    int shady = 0;
    for (Vehicle vehicle : at(Vehicle.Place.YARD)) {
      for (Building building : things.buildings()) {
        Solid part = building.parts().get(0);
        double de = vehicle.east() - part.east;
        double dn = vehicle.north() - part.north;
        double away = de * Math.sin(toSun) + dn * Math.cos(toSun);
        if (Math.hypot(de, dn) < part.reach + 4 && away < -2 && -away < building.height() * 1.5) {
          shady++;
          break;
        }
      }
    }
    assertThat(shady).isGreaterThan(10);
  }

  @Test
  void anotherDayHasOtherVehiclesInTheSameYards() {
    Things later = plan.day(2);
    Terrace yard = terrace(TownPlan.Purpose.MARKET);
    List<Integer> counts = new ArrayList<>();
    for (Things day : List.of(things, later)) {
      counts.add((int) day.vehicles().stream()
          .map(v -> inYard(yard, v.east(), v.north()))
          .filter(uv -> Math.abs(uv[0]) < yard.length() / 2 && Math.abs(uv[1]) < yard.width() / 2)
          .count());
    }

    assertThat(counts).allMatch(c -> c > 10);
    assertThat(later.vehicles().get(0)).isNotEqualTo(things.vehicles().get(0));
  }

  @ParameterizedTest
  @EnumSource(Vehicle.Kind.class)
  void aVehicleIsAsLongAsItsPlanAndLowerThanALorryMayBe(Vehicle.Kind kind) {
    Things bare = new Things();
    Garage garage = new Garage(bare);
    Chance chance = Chance.of(4, kind.ordinal());
    Frame spot = Frame.at(1000, 2000, 0.7);
    double[] size = Garage.size(kind, chance);
    garage.park(spot, kind, size[0], size[1], 12, Vehicle.Place.YARD, chance);
    Vehicle vehicle = bare.vehicles().get(0);

    assertThat(Polygons.area(vehicle.plan())).isCloseTo(size[0] * size[1], within(1e-6));
    assertThat(vehicle.level()).isBetween(12.8, 16.1);
    assertThat(vehicle.heading()).isCloseTo(90 - Math.toDegrees(0.7), within(1e-9));
    // no part of it reaches out of its plan
    for (Solid part : bare.solids(Extent.around(1000, 2000, 30))) {
      for (int i = 0; i < part.plan().length; i += 2) {
        double u =
            (part.plan()[i] - 1000) * Math.cos(0.7) + (part.plan()[i + 1] - 2000) * Math.sin(0.7);
        assertThat(Math.abs(u)).isLessThanOrEqualTo(size[0] / 2 + 1e-6);
      }
    }
    assertThat(garage.fits(spot, size[0], size[1])).isFalse();
    assertThat(garage.fits(spot.moved(0, size[1] + 0.3, 0), size[0], size[1])).isTrue();
  }

  @Test
  void mostCarsInABayAreCars() {
    Map<Vehicle.Kind, Integer> kinds = new EnumMap<>(Vehicle.Kind.class);
    Chance chance = Chance.of(5, 5);
    for (int k = 0; k < 4000; k++) {
      kinds.merge(Garage.kind(chance, 84, 15, 1), 1, Integer::sum);
    }
    // four standard errors of a share of 0.84
    assertThat(kinds.get(Vehicle.Kind.CAR) / 4000.0).isCloseTo(0.84, within(0.024));
    assertThat(kinds.get(Vehicle.Kind.LORRY)).isPositive();
  }
}
