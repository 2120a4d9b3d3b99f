package sharpkestrel.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static org.assertj.core.api.Assertions.withinPercentage;

import java.util.Random;
import org.junit.jupiter.api.Test;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.Rpc;

class CameraTest {

  private static final World WORLD = new World(5, 512);

  @Test
  void aRayAndItsProjectionAgreeAtEveryHeight() {
    Random random = new Random(1);
    double[] ray = new double[4];
    double[] image = new double[2];
    for (int i = 0; i < 100; i++) {
      double col = random.nextDouble() * 512;
      double row = random.nextDouble() * 512;
      double h = 40 + random.nextDouble() * 200;
      WORLD.camera().ray(col, row, ray);

      WORLD.camera().toImage(ray[0] + h * ray[2], ray[1] + h * ray[3], h, image);

      assertThat(image[0]).isCloseTo(col, within(1e-5));
      assertThat(image[1]).isCloseTo(row, within(1e-5));
    }
  }

  @Test
  void aRoofLeansAwayFromTheSensorByItsHeightTimesTheTangent() {
    double east = WORLD.east();
    double north = WORLD.north();
    double base = WORLD.terrain().height(east, north) + World.UNDULATION;
    double[] foot = new double[2];
    double[] ray = new double[4];
    WORLD.camera().toImage(east, north, base, foot);
    double[] top = new double[2];
    WORLD.camera().toImage(east, north, base + 12, top);
    WORLD.camera().ray(top[0], top[1], ray);

    double dx = ray[0] + base * ray[2] - east;
    double dy = ray[1] + base * ray[3] - north;

    double lean = 12 * Math.tan(Math.toRadians(WORLD.offNadir));
    assertThat(Math.hypot(dx, dy)).isCloseTo(lean, within(0.01));
    double away = Math.toDegrees(Math.atan2(-dx, -dy));
    assertThat(Math.IEEEremainder(away - WORLD.viewAzimuth, 360)).isCloseTo(0, within(0.1));
  }

  @Test
  void theFittedRpcIsTheCameraToATenthOfAPixel() {
    Rpc rpc = RpcFit.of(WORLD);
    Random random = new Random(2);
    double[] ray = new double[4];
    double[] image = new double[2];
    double worst = 0;
    for (int i = 0; i < 300; i++) {
      double col = random.nextDouble() * 512;
      double row = random.nextDouble() * 512;
      double h = World.UNDULATION + random.nextDouble() * WORLD.terrain().highest();
      WORLD.camera().ray(col, row, ray);
      double[] point = {ray[0] + h * ray[2], ray[1] + h * ray[3]};
      Crs.of(RpcFit.GRID_CRS).to(Crs.of(Crs.WGS84)).apply(point, 1);
      rpc.toImage(point[0], point[1], h, image);
      worst = Math.max(worst, Math.hypot(image[0] - col, image[1] - row));
    }

    assertThat(worst).isLessThan(0.1);
  }

  @Test
  void aGabledBlockIsMetOnRoofWallAndNotBeside() {
    Block house = Block.of(100, 200, 30, 20, 8, 5, 4, 2, Material.SLATE_ROOF, new float[6], 0);
    int[] side = new int[1];

    assertThat(house.meet(new double[] {100, 200, 0, 0}, side)).isCloseTo(11, within(1e-9));
    double across = Math.toRadians(120);
    double[] halfway = {100 + 2 * Math.cos(across), 200 + 2 * Math.sin(across), 0, 0};
    assertThat(house.meet(halfway, side)).isCloseTo(10, within(1e-9));
    double[] outside = {100 + 4.1 * Math.cos(across), 200 + 4.1 * Math.sin(across), 0, 0};
    assertThat(house.meet(outside, side)).isNaN();
  }

  @Test
  void oneSeedMakesOneWorld() {
    World again = new World(5, 512);

    assertThat(again.blocks()).hasSameSizeAs(WORLD.blocks());
    assertThat(again.terrain().nodes()).isEqualTo(WORLD.terrain().nodes());
    assertThat(new World(6, 512).terrain().nodes()).isNotEqualTo(WORLD.terrain().nodes());
  }

  /** One ray in 64 pixels against all of them: the same land and sea, each band as bright on the whole. */
  @Test
  void theQuickLookIsTheScene() {
    World world = new World(5, 256);
    Renderer renderer = new Renderer(world);

    float[][] sketch = renderer.sketch(8);
    float[][] fine = renderer.render(new sharpkestrel.raster.Window(0, 0, 256, 256));

    for (int b = 0; b < Material.BANDS; b++) {
      double coarse = 0;
      double whole = 0;
      for (float v : sketch[b]) {
        coarse += v / sketch[b].length;
      }
      for (float v : fine[b + 1]) {
        whole += v / fine[b + 1].length;
      }
      assertThat(coarse).as("band " + b).isCloseTo(whole, withinPercentage(8));
    }
  }

  @Test
  void numbersKeepToElevenBits() {
    World world = new World(6, 256);
    float[][] planes = new Renderer(world).render(new sharpkestrel.raster.Window(0, 0, 128, 128));

    for (float[] plane : planes) {
      for (float v : plane) {
        assertThat(v).isBetween(1f, 2047f);
        assertThat((double) v).isCloseTo(Math.rint(v), within(1e-6));
      }
    }
  }

  @Test
  void worldsOfTwoSeedsDifferAndTooSmallOnesAreRefused() {
    World one = new World(7, 256);
    World two = new World(8, 256);

    assertThat(one.sunElevation).isNotEqualTo(two.sunElevation);
    assertThatThrownBy(() -> new World(1, 100)).hasMessageContaining("256 to 8192");
  }
}
