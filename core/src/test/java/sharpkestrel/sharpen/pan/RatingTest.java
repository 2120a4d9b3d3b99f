package sharpkestrel.sharpen.pan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Window;

class RatingTest {

  private static float[] random(long seed, int count) {
    Random random = new Random(seed);
    float[] values = new float[count];
    for (int i = 0; i < count; i++) {
      values[i] = 100 + 20 * (float) random.nextGaussian();
    }
    return values;
  }

  private static float[] times(float[] values, float factor) {
    float[] out = new float[values.length];
    for (int i = 0; i < out.length; i++) {
      out[i] = factor * values[i];
    }
    return out;
  }

  @Test
  void theQualityIndexOfAScaledBandHasAClosedForm() {
    float[] x = random(1, 1024);

    assertThat(Likeness.q(x, x, 1024)).isCloseTo(1, within(1e-9));
    // means and contrasts both differ by c: (2c / (1 + c²))²
    assertThat(Likeness.q(x, times(x, 0.5f), 1024)).isCloseTo(0.64, within(1e-6));
  }

  @Test
  void theHypercomplexIndexOfScaledBandsHasTheSameClosedForm() {
    float[][] x = {
      random(1, 1024), random(2, 1024), random(3, 1024), random(4, 1024), random(5, 1024)
    };
    float[][] half = new float[5][];
    for (int b = 0; b < 5; b++) {
      half[b] = times(x[b], 0.5f);
    }

    assertThat(Likeness.q2n(x, x, 1024)).isCloseTo(1, within(1e-9));
    assertThat(Likeness.q2n(x, half, 1024)).isCloseTo(0.64, within(1e-6));
  }

  @Test
  void oneBandAsAHypercomplexNumberIsTheQualityIndexItself() {
    float[] x = random(1, 1024);
    float[] y = random(2, 1024);
    for (int i = 0; i < 1024; i++) {
      y[i] += x[i];
    }

    double q = Likeness.q(x, y, 1024);

    assertThat(Likeness.q2n(new float[][] {x}, new float[][] {y}, 1024)).isCloseTo(q, within(1e-9));
  }

  @Test
  void unitsOfTheAlgebraMultiplyAsQuaternionsAndOctonionsDo() {
    // i j = k, j k = i, k i = j, and the other way round with a minus
    assertThat(Likeness.sign(1, 2, 4)).isEqualTo(1);
    assertThat(Likeness.sign(2, 3, 4)).isEqualTo(1);
    assertThat(Likeness.sign(3, 1, 4)).isEqualTo(1);
    assertThat(Likeness.sign(2, 1, 4)).isEqualTo(-1);
    for (int a = 1; a < 8; a++) {
      assertThat(Likeness.sign(a, a, 8)).isEqualTo(-1);
      for (int b = 1; b < 8; b++) {
        if (a != b) {
          assertThat(Likeness.sign(a, b, 8)).isEqualTo(-Likeness.sign(b, a, 8));
        }
      }
    }
  }

  @Test
  void theLengthOfAProductOfOctonionsIsTheProductOfTheirLengths() {
    Random random = new Random(3);
    double[] x = random.doubles(8).toArray();
    double[] y = random.doubles(8).toArray();
    double[] product = new double[8];
    double xx = 0;
    double yy = 0;
    for (int a = 0; a < 8; a++) {
      xx += x[a] * x[a];
      yy += y[a] * y[a];
      for (int b = 0; b < 8; b++) {
        product[a ^ b] += Likeness.sign(a, b, 8) * x[a] * y[b];
      }
    }

    double pp = 0;
    for (double p : product) {
      pp += p * p;
    }

    assertThat(pp).isCloseTo(xx * yy, within(1e-9));
  }

  @Test
  void theSpectralAngleBetweenTwoAxesIsARightOne() {
    float[][] x = {{1, 1}, {0, 0}};
    float[][] y = {{0, 1}, {3, 1}};

    double angle = Math.toDegrees(Rater.angle(x, y, 2));

    assertThat(angle).isCloseTo((90 + 45) / 2.0, within(1e-6));
  }

  private static final int COARSE = 160;

  private static double field(int band, double x, double y) {
    return 300
        + 50 * band
        + (40 - 10 * band) * Math.sin(x / 5.0) * Math.cos(y / 6.0)
        + 25 * Math.sin((x + y) / 3.0);
  }

  private static Raster multispectral() {
    return Made.placed(
        COARSE,
        COARSE,
        2,
        (b, x, y) -> field(b, x + 0.5, y + 0.5),
        BandRole.RED,
        BandRole.NEAR_INFRARED);
  }

  private static Raster pan() {
    return Made.placed(
        4 * COARSE,
        4 * COARSE,
        0.5,
        (b, x, y) ->
            0.5 * (field(0, (x + 0.5) / 4, (y + 0.5) / 4) + field(1, (x + 0.5) / 4, (y + 0.5) / 4)),
        BandRole.PAN);
  }

  @Test
  void methodsAreRankedByTheirErrorWithPlainInterpolationAmongThem() {
    Ratings ratings = new Rater(
            Pair.of(pan(), multispectral()),
            0.3,
            false,
            new Window(0, 0, COARSE, COARSE),
            Job.QUIET)
        .rate(List.of(Method.ADAPTIVE, Method.LAPLACIAN));

    assertThat(ratings.rows())
        .hasSize(3)
        .isSortedAccordingTo(java.util.Comparator.comparingDouble(Rating::ergas));
    assertThat(ratings.rows().get(2).method()).isEmpty();
    assertThat(ratings.toText()).contains("Adaptive Gram-Schmidt").contains("ERGAS");
    assertThat(ratings.toJson().get("methods")).hasSize(3);
    Rating best = ratings.rows().get(0);
    assertThat(best.q2n()).isBetween(0.5, 1.0);
    assertThat(best.qnr()).isBetween(0.5, 1.0);
  }

  @Test
  void anAreaTooSmallToRateIsRefusedWithTheSizeThatDoes() {
    Rater rater = new Rater(
        Pair.of(pan(), multispectral()), 0.3, false, new Window(40, 40, 20, 20), Job.QUIET);

    assertThatThrownBy(() -> rater.rate(List.of(Method.ADAPTIVE)))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("32 x 32");
  }

  @Test
  void aSceneWithoutDataCannotBeRated() {
    Raster nothing = Made.placed(
        COARSE, COARSE, 2, (b, x, y) -> Double.NaN, BandRole.RED, BandRole.NEAR_INFRARED);
    Rater rater =
        new Rater(Pair.of(pan(), nothing), 0.3, false, new Window(0, 0, COARSE, COARSE), Job.QUIET);

    assertThatThrownBy(() -> rater.rate(List.of(Method.SMOOTHING)))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("data");
  }
}
