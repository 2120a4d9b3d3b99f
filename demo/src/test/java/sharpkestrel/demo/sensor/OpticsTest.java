package sharpkestrel.demo.sensor;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import org.junit.jupiter.api.Test;

class OpticsTest {

  private static final double[] BLUR = {0.42, 0.5};
  private static final int PIXEL = 2;
  private static final int ORIGIN = 16;
  private static final int SIZE = 16;
  private static final int FINE = SIZE * PIXEL + 2 * ORIGIN;

  private static float[] exposed(float[] fine, double[] shift) {
    float[] out = new float[SIZE * SIZE];
    Optics.expose(fine, FINE, FINE, PIXEL, ORIGIN, BLUR, shift, out, SIZE, SIZE);
    return out;
  }

  @Test
  void anEvenFieldStaysEven() {
    float[] fine = new float[FINE * FINE];
    Arrays.fill(fine, 0.3f);

    for (float v : exposed(fine, new double[] {0.1, -0.2})) {
      assertThat(v).isCloseTo(0.3f, within(1e-5f));
    }
  }

  /** The spread of a point is that of the blur and of the detector's square, and its middle is moved by the shift. */
  @Test
  void aPointIsSpreadByBlurAndDetectorAndMovedByTheShift() {
    double[] shift = {0.3, -0.25};
    float[] fine = new float[FINE * FINE];
    int at = ORIGIN + SIZE * PIXEL / 2;
    fine[at * FINE + at] = 4;

    float[] out = exposed(fine, shift);

    double sum = 0;
    double x = 0;
    double y = 0;
    for (int i = 0; i < out.length; i++) {
      sum += out[i];
      x += out[i] * (i % SIZE + 0.5);
      y += out[i] * (i / SIZE + 0.5);
    }
    double middle = SIZE / 2.0 + 0.25;
    assertThat(sum).isCloseTo(1, within(0.02));
    // a pixel looks beside itself, so what it sees appears on the other side
    assertThat(x / sum).isCloseTo(middle - shift[0], within(0.02));
    assertThat(y / sum).isCloseTo(middle - shift[1], within(0.02));
    double spread = 0;
    for (int i = 0; i < out.length; i++) {
      spread += out[i] * Math.pow(i % SIZE + 0.5 - x / sum, 2) / sum;
    }
    assertThat(spread).isCloseTo(BLUR[0] * BLUR[0] + 1 / 12.0, within(0.03));
  }

  @Test
  void theNormalDistributionIsThatOfTables() {
    assertThat(Optics.normal(0)).isCloseTo(0.5, within(1e-7));
    assertThat(Optics.normal(1)).isCloseTo(0.8413447, within(1e-6));
    assertThat(Optics.normal(-1.96)).isCloseTo(0.0249979, within(1e-6));
  }
}
