package sharpkestrel.sharpen.pan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Raster;

class AlignmentTest {

  private static final int SIZE = 480;
  private static final int RATIO = 4;

  /** A field of smooth bumps; places in panchromatic pixels. */
  private static double field(double x, double y) {
    return 200
        + 40 * Math.sin(x / 11.0 + Math.cos(y / 31.0) * 3)
        + 30 * Math.cos(y / 13.0 + Math.sin(x / 37.0) * 3)
        + 20 * Math.sin((x + 2 * y) / 19.0);
  }

  private static Raster pan() {
    return Made.placed(SIZE, SIZE, 0.5, (b, x, y) -> field(x + 0.5, y + 0.5), BandRole.PAN);
  }

  /** Band 0 lies right, band 1 is turned in brightness and lies off in both directions. */
  private static Raster multispectral(double[] right, double[] down) {
    return Made.placed(
        SIZE / RATIO,
        SIZE / RATIO,
        2,
        (b, x, y) -> {
          double v = field((x + 0.5 + right[b]) * RATIO, (y + 0.5 + down[b]) * RATIO);
          return b == 1 ? 900 - 0.7 * v : 3 * v;
        },
        BandRole.RED,
        BandRole.NEAR_INFRARED);
  }

  @Test
  void howFarBandsLieOffIsFoundToAFewHundredthsOfAPixel() {
    double[] right = {0, 0.42};
    double[] down = {0, -0.31};

    Alignment found = Alignment.find(Pair.of(pan(), multispectral(right, down)), 0.3, Job.QUIET);

    for (int b = 0; b < 2; b++) {
      assertThat(found.right()[b]).isCloseTo(right[b], within(0.03));
      assertThat(found.down()[b]).isCloseTo(down[b], within(0.03));
    }
  }

  @Test
  void bandsMovedOntoThePanchromaticOneShowTheSamePlacesThere() {
    double[] right = {0.5, -0.25};
    double[] down = {0.25, 0.5};
    Raster off = multispectral(right, down);

    float[][] moved = Made.samples(new Alignment(right, down).applyTo(off));

    float[][] there = Made.samples(multispectral(new double[2], new double[2]));
    for (int b = 0; b < 2; b++) {
      for (int i = 30 * SIZE / RATIO + 5; i < 60 * SIZE / RATIO; i++) {
        if (i % (SIZE / RATIO) > 5 && i % (SIZE / RATIO) < SIZE / RATIO - 5) {
          assertThat(moved[b][i]).isCloseTo(there[b][i], within(0.6f));
        }
      }
    }
  }

  @Test
  void whatShowsNothingIsTakenToLieRight() {
    Raster flat = Made.placed(
        SIZE / RATIO, SIZE / RATIO, 2, (b, x, y) -> 7, BandRole.RED, BandRole.NEAR_INFRARED);

    Alignment found = Alignment.find(Pair.of(pan(), flat), 0.3, Job.QUIET);

    assertThat(found.isNone()).isTrue();
  }
}
