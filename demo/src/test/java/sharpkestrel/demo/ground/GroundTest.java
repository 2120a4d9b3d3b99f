package sharpkestrel.demo.ground;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import sharpkestrel.raster.Extent;

class GroundTest {

  private static final long SEED = 4;

  private static Ground ground;
  private static double east;
  private static double north;

  @BeforeAll
  static void makeGround() {
    Coast coast = new Coast(SEED);
    east = coast.east(100, 0);
    north = coast.north(100, 0);
    ground = new Ground(SEED, Extent.around(east, north, 700));
  }

  private static double[] place(Random random) {
    return new double[] {
      east + 1300 * (random.nextDouble() - 0.5), north + 1300 * (random.nextDouble() - 0.5)
    };
  }

  @Test
  void tilesAreTheGroundToAFewCentimetres() {
    Random random = new Random(1);
    double squares = 0;
    for (int i = 0; i < 3000; i++) {
      double[] at = place(random);
      double e = Math.rint(at[0]);
      double n = Math.rint(at[1]);
      double off = ground.tiles().height(e, n) - ground.height(e, n);
      squares += off * off / 3000;
    }

    assertThat(Math.sqrt(squares)).isLessThan(0.05);
  }

  @Test
  void tilesMeetWithoutSteps() {
    GroundTiles tiles = ground.tiles();
    double edge = Math.floor(east / GroundTile.SIDE) * GroundTile.SIDE;
    for (double n = north - 300; n < north + 300; n += 7.3) {
      float left = tiles.at(edge - 1e-6, n).height(edge - 1e-6, n);
      float right = tiles.at(edge + 1e-6, n).height(edge + 1e-6, n);
      assertThat(left).isCloseTo(right, within(1e-3f));
    }
  }

  @Test
  void theSeaLiesAtItsLevelAndTheLandAbove() {
    Random random = new Random(2);
    int land = 0;
    int sea = 0;
    for (int i = 0; i < 4000; i++) {
      double[] at = place(random);
      double shore = ground.coast().at(at[0], at[1]);
      double h = ground.height(at[0], at[1]);
      if (shore < 0) {
        sea++;
        assertThat(h).isCloseTo(0, within(1e-9));
      } else if (shore > 3) {
        land++;
        assertThat(h).isPositive();
      }
    }
    assertThat(land).isGreaterThan(500);
    assertThat(sea).isGreaterThan(200);
  }

  @Test
  void raysMeetTheGroundWhereItIs() {
    Random random = new Random(3);
    for (int i = 0; i < 1000; i++) {
      double[] at = place(random);
      double[] ray = {
        at[0], at[1], 0.4 * (random.nextDouble() - 0.5), 0.4 * (random.nextDouble() - 0.5)
      };
      double h = ground.tiles().meet(ray, 20);

      assertThat(ground.tiles().height(ray[0] + h * ray[2], ray[1] + h * ray[3]))
          .isCloseTo(h, within(0.01));
    }
  }

  @Test
  void twoExtentsOfOneSeedAgreeAboutTheGroundTheyShare() {
    Ground larger = new Ground(SEED, Extent.around(east + 150, north, 1000));
    Random random = new Random(4);
    for (int i = 0; i < 400; i++) {
      double[] at = place(random);
      assertThat(larger.height(at[0], at[1])).isEqualTo(ground.height(at[0], at[1]));
      assertThat(larger.parcels().at(at[0], at[1]).ring())
          .isEqualTo(ground.parcels().at(at[0], at[1]).ring());
    }
  }

  @Test
  void aPlaceLiesInThePolygonOfItsParcel() {
    Random random = new Random(5);
    for (int i = 0; i < 2000; i++) {
      double[] at = place(random);
      double[] ring = ground.parcels().at(at[0], at[1]).ring();
      for (int k = 0; k < ring.length; k += 2) {
        int j = (k + 2) % ring.length;
        double side = (ring[j] - ring[k]) * (at[1] - ring[k + 1])
            - (ring[j + 1] - ring[k + 1]) * (at[0] - ring[k]);
        assertThat(side).isGreaterThan(-1e-3);
      }
    }
  }

  @Test
  void roadsKeepToDryLandAndHangTogether() {
    List<Road> roads = ground.roads().all();
    assertThat(roads).hasSizeGreaterThan(10);
    for (Road road : roads) {
      for (int k = 0; k < road.points(); k++) {
        assertThat(ground.coast().at(road.e(k), road.n(k))).isPositive();
      }
      boolean joined = false;
      for (Road other : roads) {
        for (int k = 0; other != road && k < other.points() && !joined; k++) {
          for (int j = 0; j < road.points() && !joined; j++) {
            joined = Math.hypot(other.e(k) - road.e(j), other.n(k) - road.n(j)) < 12;
          }
        }
      }
      assertThat(joined).as("a road from %.0f %.0f", road.e(0), road.n(0)).isTrue();
    }
  }

  @Test
  void lakesAreLevelAndBanksStandAboveThem() {
    Lake lake = new Lake(0, 0, 50, 31.5, new sharpkestrel.demo.noise.Noise(3));
    for (int k = 0; k < 64; k++) {
      double a = k * Math.PI / 32;
      double previous = 31.5;
      for (double r = 1; r < 130; r += 1) {
        double share = lake.share(r * Math.cos(a), r * Math.sin(a));
        double h = lake.height(share, 40);
        if (share <= 1) {
          assertThat(h).isEqualTo(31.5);
        } else {
          assertThat(h).isBetween(31.5, 40.0);
        }
        assertThat(Math.abs(h - previous)).isLessThan(2);
        previous = h;
      }
    }
  }

  @Test
  void aTerraceIsLevelAndItsBanksMeetTheGround() {
    Terrace terrace = new Terrace(10, 20, 0.5, 60, 30, 5);

    assertThat(terrace.height(10, 20, 9)).isEqualTo(5);
    assertThat(terrace.height(200, 20, 9)).isEqualTo(9);
    double u = 30 + 7;
    assertThat(terrace.height(10 + u * Math.cos(0.5), 20 + u * Math.sin(0.5), 9))
        .isCloseTo(7, within(1e-9));
  }

  @Test
  void cellsHoldEveryThingWhoseBoxCoversThePoint() {
    Random random = new Random(6);
    Cells<Integer> cells = new Cells<>(8);
    List<double[]> boxes = new ArrayList<>();
    for (int i = 0; i < 80; i++) {
      double x = 220 * random.nextDouble() - 110;
      double y = 220 * random.nextDouble() - 110;
      double[] box = {x, y, x + 30 * random.nextDouble(), y + 30 * random.nextDouble()};
      boxes.add(box);
      cells.enter(i, box[0], box[1], box[2], box[3]);
    }
    for (int k = 0; k < 2000; k++) {
      double x = 240 * random.nextDouble() - 120;
      double y = 240 * random.nextDouble() - 120;
      List<Integer> held = cells.at(x, y);
      for (int i = 0; i < boxes.size(); i++) {
        double[] box = boxes.get(i);
        if (x >= box[0] && x <= box[2] && y >= box[1] && y <= box[3]) {
          assertThat(held).contains(i);
          assertThat(cells.within(x, y, x, y)).contains(i);
        }
      }
    }
    assertThat(cells.all()).hasSize(80);
  }

  @Test
  void clippingHalvesASquareAndOverlapIsSeen() {
    double[] square = {0, 0, 10, 0, 10, 10, 0, 10};

    assertThat(Polygons.area(Polygons.clip(square, 1, 0, 4))).isCloseTo(40, within(1e-12));
    assertThat(Polygons.area(Polygons.clip(square, 1, 1, 10))).isCloseTo(50, within(1e-12));
    assertThat(Polygons.clip(square, 1, 0, -1)).isEmpty();
    assertThat(Polygons.overlap(square, Polygons.oblong(12, 5, 0, 5, 2))).isTrue();
    assertThat(Polygons.overlap(square, Polygons.oblong(13, 5, 0, 5, 2))).isFalse();
    assertThat(Polygons.overlap(square, Polygons.oblong(12.2, 12.2, Math.PI / 4, 4, 4)))
        .isFalse();
  }
}
