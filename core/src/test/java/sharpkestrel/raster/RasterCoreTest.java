package sharpkestrel.raster;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class RasterCoreTest {

  private static MemoryRaster noise(int width, int height) {
    Random random = new Random(3);
    float[] plane = new float[width * height];
    for (int i = 0; i < plane.length; i++) {
      plane[i] = random.nextInt(30) == 0 ? Float.NaN : 1 + random.nextInt(2000);
    }
    Band band = Band.of(BandRole.PAN, SampleType.UINT16);
    return new MemoryRaster(
        Grid.ofPixels(width, height), List.of(band), Attachments.NONE, new float[][] {plane});
  }

  @Test
  void levelsHalveRoundedUpFromOneOrigin() {
    Grid grid = new Grid(1001, 513, Affine.northUp(100, 900, 0.5), CrsName.NONE);

    Grid level = grid.atLevel(3);

    assertThat(level.width()).isEqualTo(126);
    assertThat(level.height()).isEqualTo(65);
    assertThat(level.affine().x(0, 0)).isEqualTo(100);
    assertThat(level.affine().pixelWidth()).isEqualTo(4);
  }

  @ParameterizedTest
  @EnumSource(Resampling.class)
  void everyKernelReproducesPixelCentres(Resampling resampling) {
    float[] plane = new float[100];
    for (int i = 0; i < plane.length; i++) {
      plane[i] = i * 37 % 101;
    }
    double[] xs = {3.5, 4.5, 5.5};
    double[] ys = {2.5, 6.5, 4.5};
    float[][] out = {new float[3]};

    resampling.sample(new float[][] {plane}, 10, 10, xs, ys, 3, out);

    assertThat(out[0]).containsExactly(plane[23], plane[64], plane[45]);
  }

  @Test
  void cubicConvolutionReproducesAQuadraticAndBilinearAPlane() {
    float[] quadratic = new float[400];
    float[] slope = new float[400];
    for (int y = 0; y < 20; y++) {
      for (int x = 0; x < 20; x++) {
        double cx = x + 0.5;
        double cy = y + 0.5;
        quadratic[y * 20 + x] = (float) (2 + cx * cx - 3 * cy + 0.5 * cx * cy);
        slope[y * 20 + x] = (float) (7 - 2 * cx + 4 * cy);
      }
    }
    double[] xs = {7.31};
    double[] ys = {9.87};
    float[][] cubic = {new float[1]};
    float[][] linear = {new float[1]};

    Resampling.CUBIC.sample(new float[][] {quadratic}, 20, 20, xs, ys, 1, cubic);
    Resampling.BILINEAR.sample(new float[][] {slope}, 20, 20, xs, ys, 1, linear);

    assertThat(cubic[0][0])
        .isCloseTo((float) (2 + 7.31 * 7.31 - 3 * 9.87 + 0.5 * 7.31 * 9.87), within(1e-3f));
    assertThat(linear[0][0]).isCloseTo((float) (7 - 2 * 7.31 + 4 * 9.87), within(1e-4f));
  }

  @Test
  void aHoleTakesPartOnlyWhereItCarriesMostWeight() {
    float[] plane = {1, 1, 1, 1, Float.NaN, 1, 1, 1, 1};
    float[][] out = {new float[2]};

    Resampling.BILINEAR.sample(
        new float[][] {plane}, 3, 3, new double[] {1.5, 0.8}, new double[] {1.5, 0.8}, 2, out);

    assertThat(out[0][0]).isNaN();
    assertThat(out[0][1]).isEqualTo(1);
  }

  @Test
  void theWindowUnderPointsHoldsTheirKernelsAndNothingForPointsElsewhere() {
    Window whole = new Window(0, 0, 100, 80);
    double[] xs = {10.2, 14.9, Double.NaN, 5_000};
    double[] ys = {20.5, 21.0, 3, -900};

    Window under = Window.under(xs, ys, 4, 2, whole);

    assertThat(under).isEqualTo(new Window(8, 18, 9, 6));
    assertThat(Window.under(new double[] {-7}, new double[] {5}, 1, 2, whole).isEmpty())
        .isTrue();
  }

  @Test
  void statisticsAgreeWithAPlainCount() {
    MemoryRaster raster = noise(700, 300);
    float[] plane = raster.read(0, raster.grid().window(), Request.BACKGROUND)[0];
    double[] valid = new double[plane.length];
    int n = 0;
    for (float v : plane) {
      if (!Float.isNaN(v)) {
        valid[n++] = v;
      }
    }
    double[] kept = Arrays.copyOf(valid, n);
    double mean = Arrays.stream(kept).average().orElseThrow();
    double variance = Arrays.stream(kept).map(v -> (v - mean) * (v - mean)).sum() / n;

    Statistics one = Statistics.of(raster, 0, Job.of(1, 512))[0];
    Statistics two = Statistics.of(raster, 0, Job.of(2, 100))[0];

    assertThat(one.valid()).isEqualTo(n);
    assertThat(one.mean()).isCloseTo(mean, within(1e-2));
    assertThat(one.standardDeviation()).isCloseTo(Math.sqrt(variance), within(1e-2));
    Arrays.sort(kept);
    assertThat(one.histogram().quantile(0.9)).isCloseTo(kept[(int) (0.9 * n)], within(2.0));
    assertThat(two.mean()).isEqualTo(one.mean());
    assertThat(two.histogram().counts()).isEqualTo(one.histogram().counts());
  }

  @Test
  void allNoDataHasNoStatistics() {
    Statistics none = Statistics.of(new float[] {Float.NaN, Float.NaN});

    assertThat(none.valid()).isZero();
    assertThat(none.mean()).isNaN();
  }

  @Test
  void writtenNumbersAreRoundedClampedAndNeverBecomeHoles() {
    Band band = Band.of(BandRole.RED, SampleType.UINT8);
    float[] values = {-3, 0.4f, 0.5f, 2.5f, 254.6f, 900, Float.NaN};

    band.quantise(values, 0, values.length);

    assertThat(values).containsExactly(1, 1, 1, 3, 255, 255, Float.NaN);
  }

  @Test
  void everyWholeTypeIsRoundedHalfUpAndClampedToItsOwnRange() {
    float[] signed16 = {
      -2.5f, -2.6f, -0.5f, 7.5f, 1e9f, -1e9f, Float.POSITIVE_INFINITY, Float.NEGATIVE_INFINITY
    };
    Band.of(BandRole.HEIGHT, SampleType.INT16)
        .withType(SampleType.INT16, 5)
        .quantise(signed16, 0, signed16.length);
    assertThat(signed16).containsExactly(-2, -3, 0, 8, 32_767, -32_768, Float.NaN, Float.NaN);

    float[] unsigned32 = {3e9f, 1.5f, -1, Float.NaN};
    Band.of(BandRole.OTHER, SampleType.UINT32).quantise(unsigned32, 0, unsigned32.length);
    assertThat(unsigned32).containsExactly(3e9f, 2, 1, Float.NaN);

    float[] unsigned16 = {1e9f, -1e9f, 65_534.5f, Float.POSITIVE_INFINITY, Float.NaN};
    Band.of(BandRole.RED, SampleType.UINT16).quantise(unsigned16, 0, unsigned16.length);
    assertThat(unsigned16).containsExactly(65_535, 1, 65_535, Float.NaN, Float.NaN);
  }

  @Test
  void aTileIsComputedOnceHoweverOftenItIsRead() {
    AtomicInteger reads = new AtomicInteger();
    MemoryRaster inner = noise(600, 600);
    Raster counting =
        new DerivedRaster(inner.grid(), inner.bands(), Attachments.NONE, Zoom.POINTWISE) {
          @Override
          protected void compute(int level, Window window, float[][] target, Request request) {
            reads.incrementAndGet();
            inner.read(level, window, target, request);
          }
        };
    CachedRaster cached = new CachedRaster(counting, 256, new TileCache(64 << 20));
    Window window = new Window(-10, 200, 300, 100);

    float[][] first = cached.read(0, window, Request.BACKGROUND);
    float[][] again = cached.read(0, window, Request.BACKGROUND);

    assertThat(reads.get()).isEqualTo(4);
    Pixels.assertSame(again, first);
    Pixels.assertSame(first, inner.read(0, window, Request.BACKGROUND));
  }

  @Test
  void cancelledReadsStop() {
    Cancellation cancellation = new Cancellation();
    cancellation.cancel();

    org.assertj.core.api.Assertions.assertThatThrownBy(
            () -> noise(10, 10).read(0, new Window(0, 0, 5, 5), Request.of(cancellation)))
        .isInstanceOf(java.util.concurrent.CancellationException.class);
  }
}
