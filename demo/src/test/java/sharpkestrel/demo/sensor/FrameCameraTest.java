package sharpkestrel.demo.sensor;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;

class FrameCameraTest {

  private static final double[] STRAIGHT = {1, 0, 0, 1};

  @Test
  void aRayAndItsProjectionAgreeThroughTiltDistortionAndFilm() {
    FrameCamera camera = new FrameCamera(
        1200, 1000, new double[] {500, 800, 1500}, 0.04, -0.03, -0.7, 2400, 0.025, new double[] {
          1.006, 0.004, 0.001, 0.994
        });
    Random random = new Random(4);
    double[] ray = new double[4];
    double[] image = new double[2];
    for (int i = 0; i < 300; i++) {
      double col = 1200 * random.nextDouble();
      double row = 1000 * random.nextDouble();
      double h = 300 * random.nextDouble();
      camera.ray(col, row, ray);

      camera.toImage(ray[0] + h * ray[2], ray[1] + h * ray[3], h, image);

      assertThat(image).containsExactly(new double[] {col, row}, within(1e-6));
    }
  }

  @Test
  void anUprightCameraShowsTheGroundAtFocalLengthOverHeightNorthUp() {
    FrameCamera camera =
        new FrameCamera(1000, 1000, new double[] {0, 0, 1000}, 0, 0, 0, 2000, 0, STRAIGHT);
    double[] image = new double[2];

    camera.toImage(100, 50, 0, image);
    assertThat(image).containsExactly(new double[] {500 + 200, 500 - 100}, within(1e-9));

    // something 100 m high is moved out from the middle by a ninth
    camera.toImage(90, 45, 100, image);
    assertThat(image).containsExactly(new double[] {500 + 200, 500 - 100}, within(1e-9));
  }

  @Test
  void theLensMovesPointsOutwardsByTheCubeOfTheirDistance() {
    double radial = 0.02;
    FrameCamera camera =
        new FrameCamera(1000, 1000, new double[] {0, 0, 1000}, 0, 0, 0, 2000, radial, STRAIGHT);
    double[] image = new double[2];

    camera.toImage(200, 0, 0, image);

    double plain = 0.2 * 2000;
    assertThat(image[0] - 500).isCloseTo(plain * (1 + radial * 0.04), within(1e-9));
  }
}
