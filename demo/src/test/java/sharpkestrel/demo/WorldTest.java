package sharpkestrel.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.index.quadtree.Quadtree;
import org.locationtech.jts.index.strtree.STRtree;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.things.Building;
import sharpkestrel.demo.things.Vehicle;
import sharpkestrel.demo.things.Vessel;
import sharpkestrel.demo.truth.Outlines;
import sharpkestrel.raster.Extent;

/** What the simulated ground holds at the usual size, checked against plain geometry. */
class WorldTest {

  private static World world;

  @BeforeAll
  static void makeWorld() {
    world = new World(4, 4096);
  }

  @Test
  void aSurveyHoldsWhatTheQuestionsNeed() {
    assertThat(world.things().buildings()).hasSizeGreaterThanOrEqualTo(600);
    assertThat(world.things().vessels()).hasSizeGreaterThanOrEqualTo(250);
    assertThat(world.things().vehicles()).hasSizeGreaterThanOrEqualTo(400);
    assertThat(world.things().marks()).hasSizeGreaterThan(15);
  }

  @Test
  void theLandRisesByThreeHundredMetres() {
    Extent extent = world.extent();
    double highest = 0;
    for (double n = extent.south(); n < extent.north(); n += 40) {
      for (double e = extent.west(); e < extent.east(); e += 40) {
        highest = Math.max(highest, world.ground().height(e, n));
      }
    }

    assertThat(highest).isBetween(300.0, 520.0);
  }

  @Test
  void houseStandsOnNoOther() {
    STRtree tree = new STRtree();
    List<Geometry> plans =
        world.things().buildings().stream().map(Outlines::footprint).toList();
    for (Geometry plan : plans) {
      tree.insert(plan.getEnvelopeInternal(), plan);
    }
    for (Geometry plan : plans) {
      for (Object other : tree.query(plan.getEnvelopeInternal())) {
        if (other != plan) {
          assertThat(plan.intersection((Geometry) other).getArea()).isLessThan(1e-6);
        }
      }
    }
  }

  @Test
  void housesStandOnLandAndNotOnRoads() {
    for (Building building : world.things().buildings()) {
      for (var part : building.parts()) {
        double[] plan = part.plan();
        for (int i = 0; i < plan.length; i += 2) {
          assertThat(world.ground().coast().at(plan[i], plan[i + 1])).isPositive();
          assertThat(world.ground().roads().beyondEdge(plan[i], plan[i + 1])).isPositive();
        }
      }
    }
  }

  @Test
  void plansRoofsAndHeightsAreOfAllKinds() {
    List<Building> buildings = world.things().buildings();
    Set<Building.Shape> shapes =
        buildings.stream().map(Building::shape).collect(Collectors.toSet());
    Set<Material> roofs = buildings.stream().map(Building::roof).collect(Collectors.toSet());

    assertThat(shapes).isEqualTo(EnumSet.allOf(Building.Shape.class));
    assertThat(roofs)
        .containsExactlyInAnyOrder(
            Material.TURF_ROOF,
            Material.SLATE_ROOF,
            Material.METAL_ROOF,
            Material.RUSTED_METAL_ROOF,
            Material.FELT_ROOF);
    assertThat(buildings.stream().mapToDouble(Building::height).max().orElseThrow())
        .isBetween(24.0, 45.0);
    assertThat(buildings.stream().mapToDouble(Building::height).min().orElseThrow())
        .isGreaterThanOrEqualTo(3);
  }

  @Test
  void vesselsLieOnWaterWithoutRunningIntoEachOther() {
    Quadtree tree = new Quadtree();
    List<Vessel> vessels = world.things().vessels();
    for (Vessel vessel : vessels) {
      Geometry hull = hull(vessel);
      for (Object other : tree.query(hull.getEnvelopeInternal())) {
        double common = hull.intersection((Geometry) other).getArea();
        // rafted ones touch; their ends may lap by a hand
        assertThat(common).isLessThan(0.6);
      }
      tree.insert(hull.getEnvelopeInternal(), hull);
      boolean afloat = vessel.state() != Vessel.State.ASHORE;
      assertThat(world.ground().coast().at(vessel.east(), vessel.north()) < 0).isEqualTo(afloat);
      assertThat(vessel.length()).isBetween(4.0, 60.0);
    }
    assertThat(vessels.stream().map(Vessel::state).collect(Collectors.toSet()))
        .isEqualTo(EnumSet.allOf(Vessel.State.class));
    assertThat(vessels.stream().map(Vessel::kind).collect(Collectors.toSet()))
        .isEqualTo(EnumSet.allOf(Vessel.Kind.class));
  }

  private static Geometry hull(Vessel vessel) {
    return Outlines.vessel(vessel, 0, Outlines.above());
  }

  @Test
  void raftedVesselsLieSideBySideWithinAHandOfEachOther() {
    List<Vessel> rafted = world.things().vessels().stream()
        .filter(v -> v.state() == Vessel.State.RAFTED)
        .toList();
    assertThat(rafted).hasSizeGreaterThan(20);
    for (Vessel vessel : rafted) {
      double nearest = rafted.stream()
          .filter(other -> other != vessel)
          .mapToDouble(other -> hull(other).distance(hull(vessel)))
          .min()
          .orElseThrow();
      assertThat(nearest).isLessThan(0.6);
      assertThat(vessel.abreast()).isBetween(2, 5);
    }
  }

  @Test
  void vehiclesQueueAtTheFerryParkInYardsAndDriveOnRoads() {
    List<Vehicle> vehicles = world.things().vehicles();
    assertThat(vehicles.stream().filter(v -> v.place() == Vehicle.Place.FERRY).count())
        .isGreaterThan(30);
    assertThat(vehicles.stream().map(Vehicle::place).collect(Collectors.toSet()))
        .isEqualTo(EnumSet.allOf(Vehicle.Place.class));
    assertThat(vehicles.stream().map(Vehicle::kind).collect(Collectors.toSet()))
        .isEqualTo(EnumSet.allOf(Vehicle.Kind.class));
    for (Vehicle vehicle : vehicles) {
      if (vehicle.place() == Vehicle.Place.ROAD) {
        assertThat(world.ground().roads().beyondEdge(vehicle.east(), vehicle.north()))
            .isNegative();
      }
    }
  }

  @Test
  void aDayChangesVesselsAndVehiclesAndNothingElse() {
    var later = world.thingsOfDayTwo();

    assertThat(later.buildings()).isEqualTo(world.things().buildings());
    assertThat(later.marks()).isEqualTo(world.things().marks());
    assertThat(later.vessels()).isNotEqualTo(world.things().vessels());
    assertThat(later.vehicles()).isNotEqualTo(world.things().vehicles());
  }

  @Test
  void oneSeedMakesOneWorldWhateverTheSize() {
    World small = new World(4, 512);
    World again = new World(4, 512);
    List<String> inSmall = places(small, small.extent());

    assertThat(places(again, small.extent())).isEqualTo(inSmall);
    assertThat(new World(5, 512).things().buildings())
        .isNotEqualTo(small.things().buildings());
    // the town of the small survey stands in the large one too
    assertThat(places(world, small.extent()).stream().filter(inSmall::contains).count())
        .isGreaterThan(inSmall.size() * 9L / 10);
  }

  private static List<String> places(World world, Extent extent) {
    return world.things().buildings().stream()
        .filter(b -> extent.holds(b.east(), b.north()))
        .map(b -> String.format("%.3f %.3f %s", b.east(), b.north(), b.roof()))
        .toList();
  }

  @Test
  void theScenesDifferInDaySunAndViewAndShareTwoFifths() {
    var one = world.one();
    var two = world.two();
    assertThat(two.conditions().sun().elevation())
        .isNotCloseTo(one.conditions().sun().elevation(), within(3.0));
    assertThat(two.gain(2)).isNotCloseTo(one.gain(2), within(one.gain(2) * 0.05));
    double[] image = new double[2];
    double[] ray = new double[4];
    int shared = 0;
    for (int k = 0; k < 2500; k++) {
      one.sensor().ray((k % 50 + 0.5) * 4096 / 50, (k / 50 + 0.5) * 4096 / 50, ray);
      double h = World.UNDULATION;
      two.sensor().toImage(ray[0] + h * ray[2], ray[1] + h * ray[3], h, image);
      shared += image[0] > 0 && image[1] > 0 && image[0] < 4096 && image[1] < 4096 ? 1 : 0;
    }
    assertThat(shared / 2500.0).isBetween(0.33, 0.47);
  }

  /** Every ray of both scenes comes down where heights and truth are written for. */
  @Test
  void theExtentHoldsAllThatTheScenesSee() {
    double[] ray = new double[4];
    for (var scene : List.of(world.one(), world.two())) {
      for (int k = 0; k <= 160; k++) {
        double t = 4096.0 * (k % 41) / 40;
        double[] at = switch (k / 41) {
          case 0 -> new double[] {t, 0};
          case 1 -> new double[] {t, 4096};
          case 2 -> new double[] {0, t};
          default -> new double[] {4096, t};
        };
        scene.sensor().ray(at[0], at[1], ray);
        for (double h : new double[] {0, 450}) {
          double z = h + World.UNDULATION;
          assertThat(world.extent().holds(ray[0] + z * ray[2], ray[1] + z * ray[3]))
              .as("%s at %.0f %.0f, %.0f m up", scene.name(), at[0], at[1], h)
              .isTrue();
        }
      }
    }
  }

  @Test
  void sizesOutOfReachAreRefused() {
    assertThatThrownBy(() -> new World(1, 100)).hasMessageContaining("256 to 40000");
    assertThatThrownBy(() -> Scenario.of("village")).hasMessageContaining("harbour, town or moor");
  }

  @Test
  void scenariosLookAtWhatTheySay() {
    World moor = new World(4, 512, Scenario.MOOR);
    World harbour = new World(4, 512, Scenario.HARBOUR);

    assertThat(inView(moor)).isLessThan(15);
    assertThat(harbour.things().vessels().stream()
            .filter(v -> harbour.extent().holds(v.east(), v.north()))
            .count())
        .isGreaterThan(60);
  }

  private static long inView(World world) {
    double[] image = new double[2];
    return world.things().buildings().stream()
        .filter(b -> {
          world.one().sensor().toImage(b.east(), b.north(), b.base() + World.UNDULATION, image);
          return image[0] > 0 && image[1] > 0 && image[0] < 512 && image[1] < 512;
        })
        .count();
  }
}
