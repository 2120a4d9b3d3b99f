package sharpkestrel.demo.noise;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The noise of which the world is made has the distribution it claims. */
class NoiseTest {

  private static final int SIDE = 300;

  @Test
  void theFinaliserIsThatOfItsAuthors() {
    // The first outputs of SplitMix64 (Steele, Lea and Flood 2014) from the seed 1234567.
    long golden = 0x9E3779B97F4A7C15L;

    assertThat(Long.toUnsignedString(Noise.mix(1234567 + golden))).isEqualTo("6457827717110365317");
    assertThat(Long.toUnsignedString(Noise.mix(1234567 + 2 * golden)))
        .isEqualTo("3203168211198807973");
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 77})
  void hashesOfALatticeAreUniformAndDoNotHangTogether(long seed) {
    Noise noise = new Noise(seed);
    int[] tenths = new int[10];
    double sum = 0;
    double neighbours = 0;
    for (int y = 0; y < SIDE; y++) {
      for (int x = 0; x < SIDE; x++) {
        double v = noise.unitAt(x, y);
        tenths[(int) (10 * v)]++;
        sum += v;
        neighbours += (v - 0.5) * (noise.unitAt(x + 1, y) - 0.5) * 12;
      }
    }
    int n = SIDE * SIDE;
    assertThat(sum / n).isCloseTo(0.5, within(0.005));
    assertThat(neighbours / n).isCloseTo(0, within(0.015));
    for (int count : tenths) {
      // Four standard deviations of a binomial count.
      assertThat(count).isCloseTo(n / 10, within((int) (4 * Math.sqrt(n * 0.09))));
    }
  }

  @Test
  void gaussiansHaveTheirMomentsAndTails() {
    Noise noise = new Noise(5);
    double sum = 0;
    double squares = 0;
    int beyondTwo = 0;
    for (int y = 0; y < SIDE; y++) {
      for (int x = 0; x < SIDE; x++) {
        double v = noise.gaussianAt(x, y);
        sum += v;
        squares += v * v;
        beyondTwo += Math.abs(v) > 2 ? 1 : 0;
      }
    }
    double n = SIDE * SIDE;
    assertThat(sum / n).isCloseTo(0, within(0.02));
    assertThat(squares / n).isCloseTo(1, within(0.03));
    assertThat(beyondTwo / n).isCloseTo(0.0455, within(0.004));
  }

  @Test
  void smoothNoiseMeetsItsLatticeAndHasNoSteps() {
    Noise noise = new Noise(9);
    for (int i = -20; i < 20; i++) {
      assertThat(noise.at(i, 3)).isCloseTo(2 * noise.unitAt(i, 3) - 1, within(1e-12));
    }
    double before = noise.at(-5, 0.37);
    for (double x = -5; x < 5; x += 0.001) {
      double v = noise.at(x, 0.37);
      // The steepest slope of the blend is 1.875 times the largest difference, which is 2.
      assertThat(Math.abs(v - before)).isLessThanOrEqualTo(0.001 * 3.75 + 1e-9);
      assertThat(v).isBetween(-1.0, 1.0);
      before = v;
    }
  }

  @Test
  void oneSeedIsOneNoiseAndAnotherIsAnother() {
    assertThat(new Noise(3).octaves(1.5, -2.5, 5)).isEqualTo(new Noise(3).octaves(1.5, -2.5, 5));
    assertThat(new Noise(3).octaves(1.5, -2.5, 5)).isNotEqualTo(new Noise(4).octaves(1.5, -2.5, 5));
  }
}
