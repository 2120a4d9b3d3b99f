package sharpkestrel.sharpen.pan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Pixels;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;
import sharpkestrel.sharpen.PanInputs;
import sharpkestrel.sharpen.Pansharpen;

class MethodsTest {

  private static final int SIZE = 96;
  private static final int RATIO = 4;
  private static final double CONTRAST = 0.3;

  /** Two bands and the panchromatic one made of them, with edges, waves and a fine texture. */
  private static double fine(int band, double x, double y) {
    double wave = Math.sin(x / 7.0) * Math.cos(y / 9.0);
    double roof = x > 30 && x < 58 && y > 20 && y < 66 ? 1 : 0;
    double grain = Math.sin(x * 2.1 + y * 1.7) + Math.sin(x * 0.9 - y * 2.6);
    return switch (band) {
      case 0 -> 300 + 60 * wave + 120 * roof + 12 * grain + 0.8 * y;
      case 1 -> 220 + 25 * wave + 150 * roof - 6 * grain + 0.3 * x;
      default -> 0.55 * fine(0, x, y) + 0.45 * fine(1, x, y) + 15;
    };
  }

  private static MemoryRaster pan() {
    return Made.placed(SIZE, SIZE, 0.5, (b, x, y) -> fine(2, x, y), BandRole.PAN);
  }

  private static MemoryRaster multispectral() {
    return Made.placed(
        SIZE / RATIO,
        SIZE / RATIO,
        2,
        (b, x, y) -> {
          double sum = 0;
          for (int j = 0; j < RATIO; j++) {
            for (int i = 0; i < RATIO; i++) {
              sum += fine(b, x * RATIO + i, y * RATIO + j);
            }
          }
          return sum / (RATIO * RATIO);
        },
        BandRole.RED,
        BandRole.NEAR_INFRARED);
  }

  private static double[][] square(float[] plane) {
    int n = (int) Math.round(Math.sqrt(plane.length));
    double[][] out = new double[n][n];
    for (int i = 0; i < plane.length; i++) {
      out[i / n][i % n] = plane[i];
    }
    return out;
  }

  private static Raster sharpened(Method method) {
    return new Pansharpen(method, List.of(), new PanInputs(pan(), multispectral(), CONTRAST, false))
        .run(Job.QUIET);
  }

  @ParameterizedTest
  @EnumSource(Method.class)
  void aMethodGivesWhatItsFormulaGivesPixelByPixel(Method method) {
    float[][] bands = Made.samples(multispectral());

    float[][] found = Made.samples(sharpened(method));

    double[][][] expected = PlainPan.sharpened(
        method,
        square(Made.samples(pan())[0]),
        new double[][][] {square(bands[0]), square(bands[1])},
        RATIO,
        CONTRAST);
    for (int b = 0; b < 2; b++) {
      for (int y = 12; y < SIZE - 12; y++) {
        for (int x = 12; x < SIZE - 12; x++) {
          assertThat((double) found[b][y * SIZE + x])
              .as("band %d at %d, %d", b, x, y)
              .isCloseTo(expected[b][y][x], within(0.02));
        }
      }
    }
  }

  @ParameterizedTest
  @EnumSource(Method.class)
  void tilesDoNotShow(Method method) {
    Raster sharp = sharpened(method);
    Window part = new Window(37, 51, 21, 17);

    float[][] cut = sharp.read(0, part, Request.BACKGROUND);

    float[][] whole = Made.samples(sharpened(method));
    float[][] same = new float[2][part.area()];
    for (int b = 0; b < 2; b++) {
      sharpkestrel.raster.Planes.copy(whole[b], sharp.grid().window(), same[b], part);
    }
    Pixels.assertSame(cut, same);
  }

  @ParameterizedTest
  @EnumSource(Method.class)
  void aConstantSceneStaysAsItIs(Method method) {
    Raster flat = Made.placed(
        SIZE / RATIO, SIZE / RATIO, 2, (b, x, y) -> 40 + b, BandRole.RED, BandRole.NEAR_INFRARED);
    // the panchromatic band has to hold something, or nothing can be related to it
    Raster pan = Made.placed(SIZE, SIZE, 0.5, (b, x, y) -> 41, BandRole.PAN);
    PanModel model = new PanModel(
        method, new double[] {0.5, 0.5}, 0.5, 1, 0, new double[] {1, 1}, 1, Alignment.none(2));

    float[][] found = Made.samples(new SharpenedRaster(Pair.of(pan, flat), model, CONTRAST));

    for (int b = 0; b < 2; b++) {
      assertThat(found[b][50 * SIZE + 50]).isCloseTo(40 + b, within(1e-3f));
    }
  }

  @ParameterizedTest
  @EnumSource(Method.class)
  void noDataStaysNoDataAndSpoilsNothingElse(Method method) {
    Raster holed = Made.placed(
        SIZE,
        SIZE,
        0.5,
        (b, x, y) -> x >= 60 && y >= 60 ? Double.NaN : fine(2, x, y),
        BandRole.PAN);

    float[][] found = Made.samples(
        new Pansharpen(method, List.of(), new PanInputs(holed, multispectral(), CONTRAST, false))
            .run(Job.QUIET));

    for (int y = 0; y < SIZE; y++) {
      for (int x = 0; x < SIZE; x++) {
        boolean hole = x >= 60 && y >= 60;
        assertThat(Float.isNaN(found[0][y * SIZE + x])).as("%d, %d", x, y).isEqualTo(hole);
      }
    }
  }

  @Test
  void pixelSizesWhoseRatioIsNoIntegerDoAsWell() {
    double ratio = 2.7;
    int n = 34;
    Raster coarse = Made.placed(
        n,
        n,
        0.5 * ratio,
        (b, x, y) -> fine(b, (x + 0.5) * ratio - 0.5, (y + 0.5) * ratio - 0.5),
        BandRole.RED,
        BandRole.NEAR_INFRARED);
    Raster sharp = new Pansharpen(
            Method.ADAPTIVE, List.of(), new PanInputs(pan(), coarse, CONTRAST, false))
        .run(Job.QUIET);

    float[][] found = Made.samples(sharp);
    float[][] plain = Made.samples(Rater.interpolated(Pair.of(pan(), coarse)));

    for (int b = 0; b < 2; b++) {
      assertThat(error(found[b], b)).isLessThan(0.7 * error(plain[b], b));
    }
  }

  private static double error(float[] found, int band) {
    double sum = 0;
    for (int y = 16; y < 70; y++) {
      for (int x = 16; x < 70; x++) {
        double d = found[y * SIZE + x] - fine(band, x, y);
        sum += d * d;
      }
    }
    return Math.sqrt(sum);
  }

  @Test
  void detailTakesNoMoreLightAwayThanThereIs() {
    Raster dark = Made.placed(
        SIZE / RATIO,
        SIZE / RATIO,
        2,
        (b, x, y) -> x < 12 ? 500 : 2,
        BandRole.RED,
        BandRole.NEAR_INFRARED);

    float[][] found = Made.samples(
        new Pansharpen(Method.GRAM_SCHMIDT, List.of(), new PanInputs(pan(), dark, CONTRAST, false))
            .run(Job.QUIET));

    int reached = 0;
    for (int i = 0; i < SIZE * SIZE; i++) {
      if (i % SIZE >= 58) {
        assertThat(found[0][i]).isGreaterThanOrEqualTo(0);
        reached += found[0][i] == 0 ? 1 : 0;
      }
    }
    assertThat(reached).isPositive();
  }
}
