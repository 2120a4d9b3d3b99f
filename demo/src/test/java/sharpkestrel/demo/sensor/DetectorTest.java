package sharpkestrel.demo.sensor;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.assertj.core.api.Assertions.withinPercentage;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class DetectorTest {

  private static final int SIDE = 300;

  @ParameterizedTest
  @ValueSource(doubles = {40, 150, 600, 1500})
  void noiseGrowsWithTheSignalAsModelled(double exact) {
    Detector detector = new Detector(5, 2, SIDE);
    double sum = 0;
    double squares = 0;
    for (int row = 0; row < SIDE; row++) {
      for (int col = 0; col < SIDE; col++) {
        double v = detector.number(exact, col, row);
        sum += v;
        squares += v * v;
      }
    }
    double n = SIDE * SIDE;
    double mean = sum / n;
    double variance = squares / n - mean * mean;
    // reading 1.5, quanta 1/9 of the signal, detectors 0.16 %, rounding 1/12
    double expected = 1.5 * 1.5 + exact / 9 + Math.pow(0.0016 * exact, 2) + 1 / 12.0;

    assertThat(mean).isCloseTo(exact, within(0.35 + 0.0002 * exact));
    assertThat(variance).isCloseTo(expected, withinPercentage(5));
    assertThat(Detector.spread(exact)).isCloseTo(Math.sqrt(expected - 1 / 12.0), within(1e-9));
  }

  @Test
  void numbersAreWholeAndKeepToElevenBitsAboveNoData() {
    Detector detector = new Detector(5, 2, 50);
    for (int i = 0; i < 50; i++) {
      for (double exact : new double[] {-10, 0, 3, 2040, 5000}) {
        float v = detector.number(exact, i, 7);
        assertThat(v).isBetween(1f, 2047f);
        assertThat((double) v).isEqualTo(Math.rint(v));
      }
    }
  }

  @Test
  void bandsAndScenesHaveNoiseOfTheirOwn() {
    Detector one = new Detector(5, 1, 400);
    Detector two = new Detector(5, 2, 400);
    double product = 0;
    for (int i = 0; i < 400; i++) {
      product += (one.number(900, i, 3) - 900) * (two.number(900, i, 3) - 900);
    }

    double spread = Detector.spread(900);
    assertThat(product / 400 / spread / spread).isCloseTo(0, within(0.2));
  }
}
