package sharpkestrel.sharpen;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.data.Percentage.withPercentage;

import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Pixels;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;

class BuiltUpTest {

  private static final int WIDE = 60;
  private static final int HIGH = 48;
  private static final int[][] DISPLACEMENTS = {
    {1, 0}, {2, 0}, {0, 1}, {0, 2}, {1, 1}, {1, -1}, {1, 2}, {1, -2}, {2, 1}, {2, -1}
  };

  private static Raster scene(Made.Sample sample) {
    Grid grid = new Grid(WIDE, HIGH, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630));
    return Made.on(grid, SampleType.UINT16, sample, BandRole.PAN);
  }

  /** Numbers from 1 to 128, which 128 levels of one width leave as they are, less 1. */
  private static int[] numbers() {
    int[] numbers = new Random(4).ints(WIDE * HIGH, 1, 129).toArray();
    numbers[0] = 1;
    numbers[1] = 128;
    return numbers;
  }

  private static BuiltUp builtUp(Raster scene, double threshold) {
    return new BuiltUp(
        new TextureSource(scene, Optional.empty()), Optional.of("7"), 128, 0, threshold);
  }

  @Test
  void theIndexIsTheLowestMeanSquareOfPairsInEveryWindow() {
    int[] numbers = numbers();

    float[] found = Made.samples(builtUp(scene((b, x, y) -> numbers[y * WIDE + x]), Double.NaN)
        .run(Job.QUIET))[0];

    for (int y = 0; y < HIGH; y++) {
      for (int x = 0; x < WIDE; x++) {
        assertThat(found[y * WIDE + x])
            .as("%d, %d", x, y)
            .isCloseTo((float) plain(numbers, x, y), withPercentage(0.01));
      }
    }
  }

  private static double plain(int[] numbers, int col, int row) {
    double lowest = Double.POSITIVE_INFINITY;
    for (int[] d : DISPLACEMENTS) {
      double sum = 0;
      int pairs = 0;
      for (int y = Math.max(0, row - 3); y <= Math.min(HIGH - 1, row + 3); y++) {
        for (int x = Math.max(0, col - 3); x <= Math.min(WIDE - 1, col + 3); x++) {
          int xx = x + d[0];
          int yy = y + d[1];
          if (xx <= Math.min(WIDE - 1, col + 3)
              && yy >= Math.max(0, row - 3)
              && yy <= Math.min(HIGH - 1, row + 3)) {
            double between = numbers[y * WIDE + x] - numbers[yy * WIDE + xx];
            sum += between * between;
            pairs++;
          }
        }
      }
      lowest = Math.min(lowest, sum / pairs);
    }
    return lowest;
  }

  @Test
  void aRoadIsNoTownAndATownIsOneWhicheverWayItIsTurned() {
    // a stripe across the left half, blocks with corners in the right one, even ground elsewhere
    Raster scene = scene((b, x, y) -> {
      if (x < 25) {
        return y / 3 % 4 == 0 ? 900 : 300;
      }
      return x > 32 && (x / 3 + y / 3) % 2 == 0 ? 900 : 300;
    });

    float[] found = Made.samples(builtUp(scene, Double.NaN).run(Job.QUIET))[0];

    assertThat(found[24 * WIDE + 12]).isLessThan(1);
    assertThat(found[24 * WIDE + 48]).isGreaterThan(1000);
  }

  @Test
  void aThresholdMakesAMask() {
    int[] numbers = numbers();
    Raster scene = scene((b, x, y) -> x < 5 && y < 5 ? Double.NaN : numbers[y * WIDE + x]);
    float[] index = Made.samples(builtUp(scene, Double.NaN).run(Job.QUIET))[0];

    Raster mask = builtUp(scene, 1500).run(Job.QUIET);

    assertThat(mask.bands().get(0).type()).isEqualTo(SampleType.UINT8);
    float[] found = Made.samples(mask)[0];
    for (int i = 0; i < found.length; i++) {
      assertThat((Float) found[i])
          .isEqualTo((Float) (Float.isNaN(index[i]) ? Float.NaN : index[i] >= 1500 ? 1f : 0f));
    }
    assertThat(found).contains(0f, 1f, Float.NaN);
  }

  @Test
  void tilesDoNotShowWhetherTheyHaveHolesOrNone() {
    int[] numbers = numbers();
    Raster scene = scene((b, x, y) -> x == 3 && y == 40 ? Double.NaN : numbers[y * WIDE + x]);
    Raster found = builtUp(scene, Double.NaN).run(Job.QUIET);
    Window part = new Window(21, 9, 17, 11);

    float[][] cut = found.read(0, part, Request.BACKGROUND);

    float[][] same = new float[1][part.area()];
    Planes.copy(Made.samples(found)[0], found.grid().window(), same[0], part);
    Pixels.assertSame(cut, same);
  }

  @Test
  void aWindowTooSmallForItsPairsIsRefused() {
    Raster scene = scene((b, x, y) -> x);

    assertThatThrownBy(() -> new BuiltUp(
                new TextureSource(scene, Optional.empty()), Optional.of("3"), 128, 0, Double.NaN)
            .run(Job.QUIET))
        .hasMessageContaining("at least 5");
  }
}
