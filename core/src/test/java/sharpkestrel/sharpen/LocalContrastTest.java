package sharpkestrel.sharpen;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Pixels;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;
import sharpkestrel.sharpen.LocalContrast.By;

class LocalContrastTest {

  private static final int WIDE = 150;
  private static final int HIGH = 110;

  private static final Grid GRID =
      new Grid(WIDE, HIGH, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630));

  /** A dark yard and bright roofs, with texture in both. */
  private static double value(int col, int row) {
    double base = col < 60 ? 120 : row < 50 ? 1500 : 700;
    return Math.rint(base + (col * 7 + row * 13) % 41 + 8 * Math.sin(col / 3.0));
  }

  private static Raster scene(SampleType type, BandRole... roles) {
    return Made.on(GRID, type, (b, x, y) -> value(x, y) * (1 + 0.5 * b), roles);
  }

  private static float[] contrasted(Raster scene, double metres, double limit) {
    return Made.samples(new LocalContrast(scene, metres, limit, 0, By.BAND).run(Job.QUIET))[0];
  }

  @Test
  void aLimitOfOneLeavesEveryValueAsItIs() {
    Raster scene = scene(SampleType.UINT16, BandRole.PAN);

    float[] found = contrasted(scene, 16, 1);

    Pixels.assertSame(new float[][] {found}, Made.samples(scene));
  }

  @ParameterizedTest
  @ValueSource(doubles = {1.5, 3, 40})
  void valuesAreThoseOfTheMethodWrittenOutPixelByPixel(double limit) {
    Raster scene = scene(SampleType.UINT16, BandRole.PAN);

    float[] found = contrasted(scene, 16, limit);

    double low = min(Made.samples(scene)[0]);
    double high = max(Made.samples(scene)[0]);
    for (int y = 0; y < HIGH; y += 3) {
      for (int x = 0; x < WIDE; x += 2) {
        assertThat((double) found[y * WIDE + x])
            .as("%d, %d", x, y)
            .isCloseTo(plain(x, y, 32, limit, low, high), within(0.51));
      }
    }
  }

  /** The value a pixel gets, from the numbers of its four nearest tiles counted one by one. */
  private static double plain(int col, int row, int side, double limit, double low, double high) {
    int bins = (int) (high - low) + 1;
    int across = (WIDE + side - 1) / side;
    int down = (HIGH + side - 1) / side;
    double px = (col + 0.5) / side - 0.5;
    double py = (row + 0.5) / side - 0.5;
    double sum = 0;
    for (int k = 0; k < 4; k++) {
      int tx = (int) Math.floor(px) + (k & 1);
      int ty = (int) Math.floor(py) + (k >> 1);
      double wx = (k & 1) == 0 ? 1 - (px - Math.floor(px)) : px - Math.floor(px);
      double wy = (k >> 1) == 0 ? 1 - (py - Math.floor(py)) : py - Math.floor(py);
      tx = Math.max(0, Math.min(across - 1, tx));
      ty = Math.max(0, Math.min(down - 1, ty));
      int x0 = Math.min(tx * side, WIDE - side);
      int y0 = Math.min(ty * side, HIGH - side);
      double[] counts = new double[bins];
      for (int y = y0; y < y0 + side; y++) {
        for (int x = x0; x < x0 + side; x++) {
          counts[(int) (value(x, y) - low)]++;
        }
      }
      double even = (double) side * side / bins;
      double cut = 0;
      for (int b = 0; b < bins; b++) {
        double most = (limit - 1) * even;
        cut += Math.max(0, counts[b] - most);
        counts[b] = Math.min(counts[b], most);
      }
      double below = 0;
      int own = (int) (value(col, row) - low);
      for (int b = 0; b < own; b++) {
        below += counts[b] + cut / bins;
      }
      below += (counts[own] + cut / bins) / 2;
      sum += wx * wy * (low - 0.5 + below / (side * side) * bins);
    }
    return sum;
  }

  @Test
  void contrastRisesInShadowAndOnTheRoofAtOnceAndNoMoreThanTheLimit() {
    Raster scene = scene(SampleType.UINT16, BandRole.PAN);

    float[] found = contrasted(scene, 16, 3);

    float[] before = Made.samples(scene)[0];
    assertThat(spread(found, 10, 10))
        .isBetween(1.8 * spread(before, 10, 10), 3.05 * spread(before, 10, 10));
    assertThat(spread(found, 100, 10))
        .isBetween(1.8 * spread(before, 100, 10), 3.05 * spread(before, 100, 10));
  }

  private static double spread(float[] plane, int col, int row) {
    double sum = 0;
    double squares = 0;
    for (int y = row; y < row + 20; y++) {
      for (int x = col; x < col + 20; x++) {
        sum += plane[y * WIDE + x];
        squares += plane[y * WIDE + x] * plane[y * WIDE + x];
      }
    }
    return Math.sqrt(squares / 400 - sum / 400 * (sum / 400));
  }

  @Test
  void byBrightnessColoursKeepTheirSharesAboveTheDarkest() {
    Raster scene = Made.on(
        GRID,
        SampleType.FLOAT32,
        // a haze of its own in each band, which the darkest pixels show
        (b, x, y) -> (x < 3 ? 0 : value(x, y) * (1 + 0.5 * b) / 4000) + 0.1 * (b + 1),
        BandRole.GREEN,
        BandRole.RED,
        BandRole.NEAR_INFRARED);

    float[][] found =
        Made.samples(new LocalContrast(scene, 16, 4, 0.3, By.BRIGHTNESS).run(Job.QUIET));

    for (int i = 0; i < WIDE * HIGH; i++) {
      if (i % WIDE >= 3) {
        float first = found[0][i] - 0.1f;
        assertThat((found[1][i] - 0.2f) / first).isCloseTo(1.5f, within(5e-3f));
        assertThat((found[2][i] - 0.3f) / first).isCloseTo(2f, within(5e-3f));
      }
    }
  }

  @Test
  void liftBringsShadowsNearerToTheMedianAsARatio() {
    // half of the scene at 100, half at 400; the darkest value is 0
    Raster scene = Made.on(
        GRID, SampleType.FLOAT32, (b, x, y) -> x == 0 ? 0 : x < 40 ? 100 : 400, BandRole.PAN);

    float[] found = Made.samples(new LocalContrast(scene, 16, 1, 0.5, By.BAND).run(Job.QUIET))[0];

    // 400 * sqrt(100 / 400), the ends of the histogram's bins apart
    assertThat(found[20]).isCloseTo(200, within(2f));
    assertThat(found[100]).isCloseTo(400, within(1f));
  }

  @ParameterizedTest
  @EnumSource(
      value = SampleType.class,
      names = {"UINT8", "UINT16", "INT16", "FLOAT32"})
  void theSampleTypeStaysAndValuesWithinTheScenesRange(SampleType type) {
    Raster scene = Made.on(GRID, type, (b, x, y) -> Math.rint(value(x, y) / 8), BandRole.PAN);

    Raster found = new LocalContrast(scene, 16, 5, 0, By.BAND).run(Job.QUIET);

    assertThat(found.bands().get(0).type()).isEqualTo(type);
    float[] before = Made.samples(scene)[0];
    for (float v : Made.samples(found)[0]) {
      assertThat(v).isBetween(min(before) - 0.5f, max(before) + 0.5f);
    }
  }

  private static float min(float[] values) {
    float min = values[0];
    for (float v : values) {
      min = Math.min(min, v);
    }
    return min;
  }

  private static float max(float[] values) {
    float max = values[0];
    for (float v : values) {
      max = Math.max(max, v);
    }
    return max;
  }

  @Test
  void tilesOfComputingDoNotShow() {
    Raster scene = scene(SampleType.UINT16, BandRole.PAN);
    Raster found = new LocalContrast(scene, 16, 3, 0.2, By.BAND).run(Job.QUIET);
    Window part = new Window(33, 41, 27, 19);

    float[][] cut = found.read(0, part, Request.BACKGROUND);

    float[][] same = new float[1][part.area()];
    Planes.copy(Made.samples(found)[0], GRID.window(), same[0], part);
    Pixels.assertSame(cut, same);
  }

  @Test
  void noDataStaysAndAConstantSceneToo() {
    Raster holed = Made.on(
        GRID, SampleType.FLOAT32, (b, x, y) -> x < 30 ? Double.NaN : value(x, y), BandRole.PAN);
    Raster flat = Made.on(GRID, SampleType.UINT16, (b, x, y) -> 77, BandRole.PAN);

    float[] withHole = contrasted(holed, 16, 3);
    float[] constant = contrasted(flat, 16, 3);

    assertThat(withHole[0]).isNaN();
    assertThat(withHole[80]).isNotNaN();
    assertThat(constant).containsOnly(77);
  }

  @Test
  void aNeighbourhoodOfAFewPixelsIsRefusedWithTheSizeThatDoes() {
    assertThatThrownBy(
            () -> new LocalContrast(scene(SampleType.UINT16, BandRole.PAN), 2, 3, 0, By.BAND)
                .run(Job.QUIET))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("at least 8");
  }

  @Test
  void aSceneWithoutDataIsRefused() {
    Raster nothing = Made.on(GRID, SampleType.FLOAT32, (b, x, y) -> Double.NaN, BandRole.PAN);

    assertThatThrownBy(() -> new LocalContrast(nothing, 16, 3, 0, By.BAND).run(Job.QUIET))
        .hasMessageContaining("no data");
  }
}
