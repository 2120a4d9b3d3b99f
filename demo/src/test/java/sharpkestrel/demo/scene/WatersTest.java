package sharpkestrel.demo.scene;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import org.junit.jupiter.api.Test;
import sharpkestrel.demo.ground.Coast;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.light.Air;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Sun;
import sharpkestrel.demo.noise.SmoothTexture;
import sharpkestrel.demo.things.Things;
import sharpkestrel.demo.things.Wake;
import sharpkestrel.raster.Extent;

/** The sea by depth, wind and exposure. */
class WatersTest {

  private static final double EAST = 500_000;
  private static final double NORTH = 6_700_000;

  private final SceneTile open = tile();

  private static SceneTile tile() {
    Coast coast = new Coast(2);
    double e = coast.east(-700, 0);
    double n = coast.north(-700, 0);
    Ground ground = new Ground(2, Extent.around(e, n, 60));
    Things things = new Things();
    return new SceneTile(
        ground.tiles().at(e, n),
        ground,
        things,
        new Trees(ground, things),
        new double[] {0, 1},
        new double[][] {{0, 0}});
  }

  private static Waters waters(double wind) {
    Sun sun = new Sun(40, 170);
    return new Waters(
        new SmoothTexture(5),
        new Conditions(
            Instant.parse("2031-05-01T11:00:00Z"),
            sun,
            new Air(sun, 10, 0.1),
            10,
            90,
            wind,
            230,
            0.3,
            Cloud.NONE));
  }

  private double mean(Waters waters, int band, double out, double front) {
    double sum = 0;
    for (int k = 0; k < 4000; k++) {
      waters.sea(open, EAST + k % 63 * 3.1, NORTH + k / 63 * 3.1, -out, front);
      sum += waters.rho[band] / 4000;
    }
    return sum;
  }

  private double white(double wind, double out, double front) {
    Waters waters = waters(wind);
    int white = 0;
    for (int k = 0; k < 10_000; k++) {
      waters.sea(open, EAST + k % 100 * 2.3, NORTH + k / 100 * 2.3, -out, front);
      white += waters.material == Material.SURF ? 1 : 0;
    }
    return white / 10_000.0;
  }

  @Test
  void farOutItIsTheReflectanceOfDeepWater() {
    Waters calm = waters(1);
    calm.sea(open, EAST, NORTH, -300, 1);

    for (int b = 0; b < Material.BANDS; b++) {
      assertThat(calm.rho[b]).isCloseTo(Material.WATER.reflectance(b), within(1e-6f));
    }
  }

  @Test
  void theBedShowsThroughShallowWaterInBlueAndNotInInfrared() {
    Waters calm = waters(1);
    double shallow = mean(calm, 1, 4, 1);
    double deep = mean(calm, 1, 40, 1);

    assertThat(shallow).isGreaterThan(deep * 1.2);
    // four metres of way and more: nothing of the infrared comes back
    assertThat(mean(calm, 5, 12, 1)).isCloseTo(Material.WATER.reflectance(5), within(2e-3));
  }

  @Test
  void surfBreaksAlongOpenShoresAndNotBehindTheTown() {
    assertThat(white(7, 5, 0)).isGreaterThan(0.08);
    assertThat(white(7, 5, 0)).isGreaterThan(white(7, 22, 0));
    assertThat(white(7, 5, 1)).isLessThan(0.01);
  }

  @Test
  void whitecapsComeWithTheWind() {
    assertThat(white(2, 200, 0)).isLessThan(1e-3);
    assertThat(white(9, 200, 0)).isBetween(5e-4, 0.1);
  }

  @Test
  void rocksAreAwashOffOpenShoresOnly() {
    Waters waters = waters(2);
    int open = 0;
    int harbour = 0;
    for (int k = 0; k < 10_000; k++) {
      double e = EAST + k % 100 * 2.3;
      double n = NORTH + k / 100 * 2.3;
      waters.sea(this.open, e, n, -8, 0);
      open += waters.material == Material.ROCK || waters.material == Material.WEED ? 1 : 0;
      waters.sea(this.open, e, n, -8, 1);
      harbour += waters.material == Material.ROCK || waters.material == Material.WEED ? 1 : 0;
    }
    assertThat(open).isBetween(100, 6000);
    assertThat(harbour).isZero();
  }

  @Test
  void theArmsOfAWakeOpenByKelvinsAngle() {
    Wake wake = new Wake(0, 0, 1, 0, 200, 5);
    // of the outermost white point on each side, by the distance astern
    double near = outermost(wake, 40);
    double far = outermost(wake, 120);

    assertThat(Math.toDegrees(Math.atan((far - near) / 80))).isCloseTo(19.5, within(2.5));
    assertThat(wake.foam(30, 0)).as("ahead").isZero();
    assertThat(wake.foam(-220, 0)).as("beyond its end").isZero();
    assertThat(wake.foam(-20, 0)).isGreaterThan(wake.foam(-150, 0));
  }

  /** Middle of the arm at a distance astern. */
  private static double outermost(Wake wake, double astern) {
    double sum = 0;
    double weights = 0;
    for (double beside = 8; beside < 80; beside += 0.05) {
      double foam = wake.foam(-astern, beside);
      sum += foam * beside;
      weights += foam;
    }
    return sum / weights;
  }

  @Test
  void lakesAreDarkAndPeatShowsAtTheirEdges() {
    Waters calm = waters(1);
    calm.fresh(open.ground, EAST, NORTH, 6);
    float deep = calm.rho[3];
    calm.fresh(open.ground, EAST, NORTH, 0.1);

    assertThat(deep).isCloseTo(Material.LAKE_WATER.reflectance(3), within(1e-4f));
    assertThat(calm.rho[3]).isGreaterThan(deep);
  }
}
