package sharpkestrel.demo.scene;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.Set;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import sharpkestrel.demo.ground.Coast;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.GroundTile;
import sharpkestrel.demo.ground.Road;
import sharpkestrel.demo.light.Air;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Sun;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.demo.sensor.GroundSensor;
import sharpkestrel.demo.things.Plan;
import sharpkestrel.demo.things.Things;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Window;

/** What a ray straight down meets about the town. */
class CoverTest {

  private static final int SIZE = 640;
  private static final double STEP = 1.25;

  private static Ground ground;
  private static Things things;
  private static double west;
  private static double north;
  private static float[][] met;

  @BeforeAll
  static void look() {
    Coast coast = new Coast(6);
    Extent extent = Extent.around(coast.east(60, 0), coast.north(60, 0), SIZE * STEP / 2);
    ground = new Ground(6, extent.grown(60));
    things = new Plan(ground, extent, extent.grown(-30)).day(1);
    west = extent.west();
    north = extent.north();
    Sun sun = new Sun(40, 170);
    Conditions conditions = new Conditions(
        java.time.Instant.parse("2031-05-01T11:00:00Z"),
        sun,
        new Air(sun, 0, 0.1),
        0,
        0,
        5,
        200,
        0.3,
        Cloud.NONE);
    GroundSensor down = new GroundSensor(
        west, north, STEP, SIZE, SIZE, () -> ground.tiles().lookup()::height, null);
    Scene scene = new Scene("plan", down, conditions, 1, new double[Material.BANDS][2]);
    met = new Exposure(scene, ground, things, 0).met(new Window(0, 0, SIZE, SIZE));
  }

  private static int at(double e, double n) {
    int col = (int) ((e - west) / STEP);
    int row = (int) ((north - n) / STEP);
    return col < 0 || row < 0 || col >= SIZE || row >= SIZE ? -1 : (int) met[0][row * SIZE + col];
  }

  @Test
  void theTownHasWaterGrassRockRoadsRoofsTreesAndQuays() {
    Set<Integer> found = new HashSet<>();
    for (float number : met[0]) {
      found.add((int) number);
    }

    for (Material material : new Material[] {
      Material.WATER, Material.PASTURE, Material.ROCK, Material.ASPHALT, Material.CONCRETE,
      Material.BROADLEAF, Material.SLATE_ROOF, Material.METAL_ROOF, Material.TURF_ROOF,
          Material.DECK
    }) {
      assertThat(found).as(material.name()).contains(material.cover);
    }
  }

  @Test
  void middlesOfRoofsAreTheirMaterial() {
    int right = 0;
    int seen = 0;
    for (var building : things.buildings()) {
      var part = building.parts().get(0);
      int number = at(part.east, part.north);
      if (number >= 0) {
        seen++;
        right += number == building.roof().cover ? 1 : 0;
      }
    }
    assertThat(seen).isGreaterThan(200);
    // a chimney, a crown or a taller neighbour may stand over the middle of a few
    assertThat((double) right / seen).isGreaterThan(0.95);
  }

  @Test
  void seaIsWaterOrWhatFloatsOnItOrStandsInIt() {
    int water = 0;
    int sea = 0;
    for (int row = 4; row < SIZE; row += 9) {
      for (int col = 4; col < SIZE; col += 9) {
        double e = west + (col + 0.5) * STEP;
        double n = north - (row + 0.5) * STEP;
        if (ground.coast().at(e, n) < -40) {
          sea++;
          water += at(e, n) == Material.WATER.cover ? 1 : 0;
        }
      }
    }
    assertThat(sea).isGreaterThan(300);
    assertThat((double) water / sea).isBetween(0.8, 1.0);
  }

  @Test
  void roadsAreAsphaltOrWhatStandsOnThem() {
    int paved = 0;
    int seen = 0;
    for (Road road : ground.roads().all()) {
      for (int k = 0; k < road.points() && road.kind() != Road.Kind.TRACK; k++) {
        int number = at(road.e(k), road.n(k));
        if (number >= 0) {
          seen++;
          paved += number == Material.ASPHALT.cover ? 1 : 0;
        }
      }
    }
    assertThat(seen).isGreaterThan(200);
    assertThat((double) paved / seen).isGreaterThan(0.7);
  }

  @Test
  void vehiclesAndVesselsStandAboveWhatIsUnderThem() {
    for (var vehicle : things.vehicles()) {
      int number = at(vehicle.east(), vehicle.north());
      if (number >= 0) {
        assertThat(number).isNotIn(Material.ASPHALT.cover, Material.PASTURE.cover);
      }
    }
    for (var vessel : things.vessels()) {
      int number = at(vessel.east(), vessel.north());
      if (number >= 0) {
        assertThat(number).isNotEqualTo(Material.WATER.cover);
      }
    }
  }

  @Test
  void treesAreTheSameThroughWhicheverBoxTheyAreDrawn() {
    Trees trees = new Trees(ground, things);
    Chance chance = Chance.of(1, 1);
    for (int k = 0; k < 20; k++) {
      double e = west + chance.between(50, 700);
      double n = north - chance.between(50, 700);
      var small = new java.util.ArrayList<sharpkestrel.demo.things.Crown>();
      var large = new java.util.ArrayList<sharpkestrel.demo.things.Crown>();
      trees.within(Extent.around(e, n, 20), small);
      trees.within(Extent.around(e, n, GroundTile.SIDE), large);

      assertThat(large).containsAll(small);
    }
  }
}
