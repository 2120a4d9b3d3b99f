package sharpkestrel.place.match;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PatchCorrelatorTest {

  private static final int SIDE = 64;
  private static final int REACH = 6;

  /** A smooth scene of blobs, sampled with its origin moved. */
  private static float[] scene(int side, double x0, double y0, long seed) {
    Random random = new Random(seed);
    double[][] blobs = new double[60][];
    for (int k = 0; k < blobs.length; k++) {
      blobs[k] = new double[] {
        -20 + 104 * random.nextDouble(),
        -20 + 104 * random.nextDouble(),
        2 + 6 * random.nextDouble(),
        random.nextGaussian()
      };
    }
    float[] pixels = new float[side * side];
    for (int y = 0; y < side; y++) {
      for (int x = 0; x < side; x++) {
        for (double[] b : blobs) {
          double d2 = Math.pow(x + x0 - b[0], 2) + Math.pow(y + y0 - b[1], 2);
          pixels[y * side + x] += (float) (b[3] * Math.exp(-d2 / (2 * b[2] * b[2])));
        }
      }
    }
    return pixels;
  }

  private static PatchCorrelator.Match match(double dx, double dy, double contrast, double noise) {
    float[] small = scene(SIDE, 0, 0, 4);
    int wide = SIDE + 2 * REACH;
    float[] large = scene(wide, -REACH - dx, -REACH - dy, 4);
    Random random = new Random(9);
    for (int i = 0; i < large.length; i++) {
      large[i] = (float) (contrast * large[i] + noise * random.nextGaussian() + 100);
    }
    return PatchCorrelator.find(
        GradientField.of(small, SIDE, SIDE), GradientField.of(large, wide, wide), REACH);
  }

  @ParameterizedTest
  @CsvSource({"0,0", "1,-3", "0.5,0.25", "-2.3,1.7", "3.9,-4.4", "-0.4,-0.1"})
  void aShiftIsFoundToAFewHundredthsOfAPixel(double dx, double dy) {
    PatchCorrelator.Match match = match(dx, dy, 1, 0);

    assertThat(match.dx()).isCloseTo(dx, within(0.06));
    assertThat(match.dy()).isCloseTo(dy, within(0.06));
    assertThat(match.score()).isGreaterThan(0.9);
    assertThat(match.distinct()).isTrue();
  }

  @Test
  void whatIsDarkInOneMayBeBrightInTheOther() {
    PatchCorrelator.Match match = match(1.5, -2.25, -3, 0);

    assertThat(match.dx()).isCloseTo(1.5, within(0.06));
    assertThat(match.dy()).isCloseTo(-2.25, within(0.06));
  }

  @Test
  void noiseLowersTheScoreAndMovesTheMatchLittle() {
    PatchCorrelator.Match match = match(1.5, -2.25, 1, 0.15);

    assertThat(match.score()).isBetween(0.2, 0.95);
    assertThat(match.dx()).isCloseTo(1.5, within(0.3));
    assertThat(match.dy()).isCloseTo(-2.25, within(0.3));
  }

  @Test
  void aMatchAtTheEdgeOfTheSearchIsNotDistinct() {
    assertThat(match(6.5, 0, 1, 0).distinct()).isFalse();
  }

  @Test
  void rowsThatRepeatAreNotDistinct() {
    float[] small = new float[SIDE * SIDE];
    int wide = SIDE + 2 * REACH;
    float[] large = new float[wide * wide];
    for (int i = 0; i < small.length; i++) {
      small[i] = (float) (Math.sin((i % SIDE) * 1.3) + Math.sin((i / SIDE) * 1.1));
    }
    for (int i = 0; i < large.length; i++) {
      large[i] = (float) (Math.sin((i % wide - REACH) * 1.3) + Math.sin((i / wide - REACH) * 1.1));
    }
    PatchCorrelator.Match match = PatchCorrelator.find(
        GradientField.of(small, SIDE, SIDE), GradientField.of(large, wide, wide), REACH);

    assertThat(match.distinct()).isFalse();
  }

  @Test
  void withoutAnyStructureThereIsNoMatch() {
    int wide = SIDE + 2 * REACH;
    PatchCorrelator.Match match = PatchCorrelator.find(
        GradientField.of(new float[SIDE * SIDE], SIDE, SIDE),
        GradientField.of(new float[wide * wide], wide, wide),
        REACH);

    assertThat(match.distinct()).isFalse();
    assertThat(match.score()).isZero();
  }
}
