package sharpkestrel.raster;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class GridTest {

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4})
  void anAffineAndItsInverseLeadBack(long seed) {
    Random random = new Random(seed);
    Affine affine = new Affine(
        0.5 + random.nextDouble(),
        0.2 * random.nextGaussian(),
        512_000,
        0.2 * random.nextGaussian(),
        -0.5 - random.nextDouble(),
        6_702_000);
    Affine inverse = affine.inverse();

    for (int i = 0; i < 20; i++) {
      double col = 10_000 * random.nextDouble();
      double row = 10_000 * random.nextDouble();
      double x = affine.x(col, row);
      double y = affine.y(col, row);
      assertThat(inverse.x(x, y)).isCloseTo(col, within(1e-5));
      assertThat(inverse.y(x, y)).isCloseTo(row, within(1e-5));
      assertThat(affine.after(inverse).x(x, y)).isCloseTo(x, within(1e-5));
    }
  }

  @Test
  void aPartLiesWhereItsPixelsLie() {
    Grid grid = new Grid(100, 80, Affine.northUp(512_000, 6_702_000, 2), CrsName.epsg(32630));

    Grid part = grid.part(new Window(10, 20, 30, 40));

    assertThat(part.extent()).isEqualTo(new Extent(512_020, 6_701_880, 512_080, 6_701_960));
    assertThat(part.pixelArea()).isCloseTo(4, within(1e-12));
    assertThat(grid.coincides(part)).isFalse();
  }

  @Test
  void aGridThatCoversAnAreaHasWholePixels() {
    Grid grid = Grid.covering(new Extent(100, 200, 103.2, 205), 0.5, CrsName.epsg(32630));

    assertThat(grid.width()).isEqualTo(7);
    assertThat(grid.height()).isEqualTo(10);
    assertThat(grid.extent().west()).isEqualTo(100);
    assertThat(grid.extent().north()).isEqualTo(205);
  }

  @Test
  void anExtentReadsBackFromItsText() {
    Extent extent = Extent.parse("600000, 5196000,603000.5,5199000");

    assertThat(extent).isEqualTo(new Extent(600_000, 5_196_000, 603_000.5, 5_199_000));
    assertThat(extent.intersect(new Extent(0, 0, 1, 1)).isEmpty()).isTrue();
    assertThatThrownBy(() -> Extent.parse("1,2,3")).hasMessageContaining("1,2,3");
    assertThatThrownBy(() -> Extent.parse("5,0,1,9")).isInstanceOf(RuntimeException.class);
  }

  @ParameterizedTest
  @ValueSource(longs = {7, 8, 9})
  void aHistogramsQuantileIsWithinABinOfTheSortedValue(long seed) {
    Random random = new Random(seed);
    float[] values = new float[20_000];
    for (int i = 0; i < values.length; i++) {
      values[i] = (float) (100 * Math.abs(random.nextGaussian()));
    }
    Histogram histogram = Statistics.of(values).histogram();
    float[] sorted = values.clone();
    Arrays.sort(sorted);

    for (double share : new double[] {0.001, 0.02, 0.5, 0.98, 0.999}) {
      double exact = sorted[(int) (share * (sorted.length - 1))];
      assertThat(histogram.quantile(share))
          .as("share " + share)
          .isCloseTo(exact, within(2 * histogram.binWidth()));
    }
  }

  @Test
  void rolesAreGuessedFromTheWaysPeopleWriteThem() {
    assertThat(BandRole.guess("nir")).isEqualTo(BandRole.NEAR_INFRARED);
    assertThat(BandRole.guess("Near infrared")).isEqualTo(BandRole.NEAR_INFRARED);
    assertThat(BandRole.guess("RED")).isEqualTo(BandRole.RED);
    assertThat(BandRole.guess("red edge")).isEqualTo(BandRole.RED_EDGE);
    assertThat(BandRole.guess("temperature")).isEqualTo(BandRole.OTHER);
  }

  @Test
  void aCacheKeepsWithinItsBudget() {
    TileCache cache = new TileCache(1 << 20);
    long raster = TileCache.newRasterId();
    for (int i = 0; i < 100; i++) {
      cache.put(new TileCache.Key(raster, 0, i, 0, 0), new float[128 * 128]);
    }

    int kept = 0;
    for (int i = 0; i < 100; i++) {
      kept += cache.get(new TileCache.Key(raster, 0, i, 0, 0)).isPresent() ? 1 : 0;
    }
    assertThat(kept).isBetween(1, (1 << 20) / (4 * 128 * 128));
  }
}
