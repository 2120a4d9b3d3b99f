package sharpkestrel.demo.survey;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import sharpkestrel.demo.noise.Noise;
import sharpkestrel.raster.Window;

class SqueezedTest {

  private static final Noise NOISE = new Noise(4);

  private static float[][] planes(Window window) {
    float[][] planes = new float[3][window.area()];
    for (int b = 0; b < 3; b++) {
      for (int i = 0; i < window.area(); i++) {
        double x = window.x() + i % window.width();
        double y = window.y() + i / (double) window.width();
        planes[b][i] = (float) Math.rint(120 + 60 * NOISE.at(x / 9 + b, Math.floor(y) / 9));
      }
    }
    return planes;
  }

  @Test
  void aPixelIsTheSameWhicheverWindowItIsIn() {
    Window whole = new Window(0, 0, 128, 64);
    Window right = new Window(64, 0, 64, 64);
    float[][] all = Squeezed.through(planes(whole), whole, 80);
    float[][] part = Squeezed.through(planes(right), right, 80);

    for (int b = 0; b < 3; b++) {
      for (int i = 0; i < right.area(); i++) {
        // what lies by the seam borrows colour from beyond it
        if (i % 64 > 1) {
          assertThat(part[b][i]).isEqualTo(all[b][i / 64 * 128 + 64 + i % 64]);
        }
      }
    }
  }

  @Test
  void theStrongerTheCompressionTheMoreIsLost() {
    Window window = new Window(0, 0, 128, 128);
    float[][] before = planes(window);
    double mild = off(before, Squeezed.through(planes(window), window, 95));
    double strong = off(before, Squeezed.through(planes(window), window, 50));

    assertThat(mild).isBetween(0.1, 6.0);
    assertThat(strong).isGreaterThan(1.2 * mild);
  }

  private static double off(float[][] before, float[][] after) {
    double squares = 0;
    for (int b = 0; b < 3; b++) {
      for (int i = 0; i < before[b].length; i++) {
        squares += Math.pow(after[b][i] - before[b][i], 2) / before[b].length / 3;
      }
    }
    return Math.sqrt(squares);
  }
}
