package sharpkestrel.demo.sensor;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.RpcFit;
import sharpkestrel.raster.CrsName;

/** The pushbroom against its own geometry. */
class PushbroomTest {

  private static final double[] PLACE = {512_000, 6_702_000, 60};
  private static final CrsName CRS = CrsName.epsg(32630);

  private static Pushbroom sensor(int size, double jitter) {
    return new Pushbroom(PLACE, 20, 100, 190, 0.5, size, size, jitter, Chance.of(3, 1));
  }

  @Test
  void aRayAndItsProjectionAgreeAtEveryHeight() {
    Pushbroom sensor = sensor(4096, 0.06);
    Random random = new Random(1);
    double[] ray = new double[4];
    double[] image = new double[2];
    for (int i = 0; i < 300; i++) {
      double col = random.nextDouble() * 4096;
      double row = random.nextDouble() * 4096;
      double h = random.nextDouble() * 500;
      sensor.ray(col, row, ray);

      sensor.toImage(ray[0] + h * ray[2], ray[1] + h * ray[3], h, image);

      assertThat(image[0]).isCloseTo(col, within(1e-6));
      assertThat(image[1]).isCloseTo(row, within(1e-6));
    }
  }

  @Test
  void aRoofCornerLeansAwayFromTheSensorByItsHeightTimesTheTangent() {
    Pushbroom sensor = sensor(1024, 0);
    double[] top = new double[2];
    double[] ray = new double[4];
    sensor.toImage(PLACE[0], PLACE[1], PLACE[2] + 12, top);
    sensor.ray(top[0], top[1], ray);

    double dx = ray[0] + PLACE[2] * ray[2] - PLACE[0];
    double dy = ray[1] + PLACE[2] * ray[3] - PLACE[1];

    assertThat(Math.hypot(dx, dy)).isCloseTo(12 * Math.tan(Math.toRadians(20)), within(0.01));
    double away = Math.toDegrees(Math.atan2(-dx, -dy));
    assertThat(Math.IEEEremainder(away - 100, 360)).isCloseTo(0, within(0.1));
  }

  @Test
  void theMiddleOfTheImageLooksAtItsPlaceAndPixelsAreAsLargeAsSaid() {
    Pushbroom sensor = sensor(1024, 0);
    double[] image = new double[2];
    sensor.toImage(PLACE[0], PLACE[1], PLACE[2], image);
    double[] here = new double[4];
    double[] beside = new double[4];
    double[] next = new double[4];
    sensor.ray(512, 512, here);
    sensor.ray(513, 512, beside);
    sensor.ray(512, 513, next);

    assertThat(image).containsExactly(new double[] {512, 512}, within(0.01));
    // the attitude drifts by some microradians over the image, which stretches lines by half a
    // percent
    assertThat(ground(here, next)).isCloseTo(0.5, within(0.004));
    // across the look a pixel is one GSD, along it a little more: the ground is seen aslant
    assertThat(ground(here, beside)).isBetween(0.499, 0.5 / Math.cos(Math.toRadians(20)) + 0.002);
  }

  private static double ground(double[] one, double[] two) {
    return Math.hypot(
        two[0] - one[0] + PLACE[2] * (two[2] - one[2]),
        two[1] - one[1] + PLACE[2] * (two[3] - one[3]));
  }

  @Test
  void jitterMovesRowsByHundredthsOfAPixel() {
    Pushbroom still = sensor(1024, 0);
    Pushbroom trembling = sensor(1024, 0.06);
    double worst = 0;
    double sum = 0;
    double[] a = new double[4];
    double[] image = new double[2];
    for (int row = 0; row < 1024; row += 8) {
      trembling.ray(512, row, a);
      still.toImage(a[0], a[1], 0, image);
      double off = Math.hypot(image[0] - 512, image[1] - row);
      worst = Math.max(worst, off);
      sum += off;
    }

    assertThat(worst).isBetween(0.02, 0.25);
    assertThat(sum / 128).isGreaterThan(0.01);
  }

  @Test
  void theFittedRpcIsTheSensorToATenthOfAPixelAndSaysHowNear() {
    Pushbroom sensor = sensor(4096, 0.06);

    RpcFit fit = SensorView.rpc(sensor, CRS, 40, 560);

    Random random = new Random(2);
    double[] ray = new double[4];
    double[] image = new double[2];
    double squares = 0;
    double worst = 0;
    for (int i = 0; i < 2000; i++) {
      double col = random.nextDouble() * 4096;
      double row = random.nextDouble() * 4096;
      double h = 47 + random.nextDouble() * 450;
      sensor.ray(col, row, ray);
      double[] point = {ray[0] + h * ray[2], ray[1] + h * ray[3]};
      Crs.of(CRS).to(Crs.of(Crs.WGS84)).apply(point, 1);
      fit.rpc().toImage(point[0], point[1], h, image);
      double off = Math.hypot(image[0] - col, image[1] - row);
      worst = Math.max(worst, off);
      squares += off * off / 2000;
    }
    assertThat(worst).isLessThan(0.1);
    assertThat(fit.rms()).isCloseTo(Math.sqrt(squares), within(0.01)).isLessThan(0.06);
    assertThat(fit.worst()).isLessThan(0.1);
  }
}
