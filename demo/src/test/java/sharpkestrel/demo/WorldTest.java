package sharpkestrel.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.locationtech.jts.geom.Geometry;

/** What the simulated ground holds, checked against plain geometry. */
class WorldTest {

  private static World world;
  private static List<Truth.Roof> roofs;

  @BeforeAll
  static void makeWorld() {
    world = new World(4, 1024);
    roofs = new Truth(world).roofs();
  }

  @Test
  void houseStandsOnNoOther() {
    assertThat(roofs).hasSizeGreaterThan(20);
    for (int i = 0; i < roofs.size(); i++) {
      for (int j = i + 1; j < roofs.size(); j++) {
        Geometry common = roofs.get(i).footprint().intersection(roofs.get(j).footprint());
        assertThat(common.getArea()).as("buildings %d and %d", i, j).isZero();
      }
    }
  }

  @Test
  void housesStandOnLandAndNotOnRoads() {
    for (Block block : world.blocks()) {
      if (block.building() < 0) {
        continue;
      }
      assertThat(world.terrain().shore(block.east(), block.north())).isPositive();
      assertThat(world.terrain().road(block.east(), block.north())).isGreaterThan(3);
    }
  }

  @Test
  void roofsAreOfThreeMaterials() {
    Set<String> materials = roofs.stream()
        .map(roof -> roof.material().name().toLowerCase(java.util.Locale.ROOT))
        .collect(Collectors.toSet());

    assertThat(materials).containsExactlyInAnyOrder("metal_roof", "slate_roof", "turf_roof");
  }

  @Test
  void aRoofInTheOrthoIsTheFootprintPushedAwayByNoMoreThanItsHeightAllows() {
    double[] ray = new double[4];
    world.camera().ray(512, 512, ray);
    double lean = Math.hypot(ray[2], ray[3]);
    for (Truth.Roof roof : roofs) {
      double tallest = world.blocks().stream()
          .filter(block -> block.building() == roof.building())
          .mapToDouble(block -> block.eaves() + block.ridge())
          .max()
          .orElseThrow();
      double moved = roof.ortho().getCentroid().distance(roof.footprint().getCentroid());

      // The ground under a leaning roof may fall away by half a metre more, hence the margin.
      assertThat(moved).isLessThan((tallest + 6) * lean);
      assertThat(roof.ortho().getArea())
          .isCloseTo(roof.footprint().getArea(), within(0.35 * roof.footprint().getArea() + 12));
    }
  }

  @Test
  void theGroundIsWhereItsRaysMeetIt() {
    Random random = new Random(8);
    double[] ray = new double[4];
    for (int i = 0; i < 500; i++) {
      world.camera().ray(1024 * random.nextDouble(), 1024 * random.nextDouble(), ray);
      ray[0] += World.UNDULATION * ray[2];
      ray[1] += World.UNDULATION * ray[3];

      double h = world.terrain().meet(ray, 0);

      assertThat(world.terrain().height(ray[0] + h * ray[2], ray[1] + h * ray[3]))
          .isCloseTo(h, within(0.05));
    }
  }

  @Test
  void theSeaLiesAtItsLevelAndTheLandAbove() {
    Terrain terrain = world.terrain();
    Random random = new Random(9);
    int land = 0;
    for (int i = 0; i < 2000; i++) {
      double e = world.east() + (random.nextDouble() - 0.5) * 400;
      double n = world.north() + (random.nextDouble() - 0.5) * 400;
      double height = terrain.height(e, n);
      if (terrain.shore(e, n) < -0.01) {
        assertThat(height).isCloseTo(0, within(0.2));
      } else if (terrain.shore(e, n) > 0.05) {
        land++;
        assertThat(height).isGreaterThan(0);
      }
      assertThat(height).isLessThanOrEqualTo(terrain.highest());
    }
    assertThat(land).isPositive();
  }

  private static Block house(Random random) {
    return Block.of(
        100,
        200,
        360 * random.nextDouble(),
        8 + 10 * random.nextDouble(),
        5 + 4 * random.nextDouble(),
        12,
        2 + 4 * random.nextDouble(),
        random.nextBoolean() ? 0 : 1 + 3 * random.nextDouble(),
        Material.values()[0],
        new float[6],
        1);
  }

  /** The height of the roof's surface over a point of the plan. */
  private static double surface(Block block, double e, double n) {
    double v = -(e - block.east()) * block.sin() + (n - block.north()) * block.cos();
    double fall = 1 - Math.abs(v) / (block.width() / 2);
    return block.base() + block.eaves() + block.ridge() * fall;
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4})
  void aRayMeetsAHouseWhereStepByStepItFirstRunsIntoIt(long seed) {
    Random random = new Random(seed);
    int met = 0;
    for (int i = 0; i < 400; i++) {
      Block block = house(random);
      double[] ray = {
        block.east() + 30 * (random.nextDouble() - 0.5),
        block.north() + 30 * (random.nextDouble() - 0.5),
        0.6 * (random.nextDouble() - 0.5),
        0.6 * (random.nextDouble() - 0.5)
      };
      double expected = Double.NaN;
      for (double h = block.top() + 0.5; h > block.base() - 3; h -= 0.002) {
        double e = ray[0] + h * ray[2];
        double n = ray[1] + h * ray[3];
        if (block.covers(e, n, 0) && h <= surface(block, e, n)) {
          expected = h;
          break;
        }
      }

      double found = block.meet(ray, new int[1]);

      if (Double.isNaN(expected)) {
        assertThat(found).as("ray %s at %s", Arrays.toString(ray), block).isNaN();
      } else {
        met++;
        assertThat(found)
            .as("ray %s at %s", Arrays.toString(ray), block)
            .isCloseTo(expected, within(0.01));
      }
    }
    assertThat(met).isGreaterThan(20);
  }

  @Test
  void cellsHoldEveryThingWhoseBoxCoversThePoint() {
    Random random = new Random(6);
    CellIndex index = new CellIndex(0, 0, 100);
    List<double[]> boxes = new ArrayList<>();
    for (int i = 0; i < 80; i++) {
      double x = 220 * random.nextDouble() - 110;
      double y = 220 * random.nextDouble() - 110;
      double[] box = {x, y, x + 30 * random.nextDouble(), y + 30 * random.nextDouble()};
      boxes.add(box);
      index.enter(i, box[0], box[1], box[2], box[3]);
    }
    index.closed();

    for (int k = 0; k < 2000; k++) {
      double x = 200 * random.nextDouble() - 100;
      double y = 200 * random.nextDouble() - 100;
      int[] held = index.at(x, y);
      for (int i = 0; i < boxes.size(); i++) {
        double[] box = boxes.get(i);
        if (x >= box[0] && x <= box[2] && y >= box[1] && y <= box[3]) {
          assertThat(held).contains(i);
        }
      }
    }
  }
}
