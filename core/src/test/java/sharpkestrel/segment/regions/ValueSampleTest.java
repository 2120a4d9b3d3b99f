package sharpkestrel.segment.regions;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;

class ValueSampleTest {

  @Test
  void quantilesAreThoseOfAllPixels() {
    Random random = new Random(1);
    MemoryRaster raster =
        Made.placed(2_300, 300, 0.5, (b, col, row) -> 1_000 * random.nextDouble(), BandRole.RED);

    ValueSample sample = ValueSample.of(raster, Job.QUIET);

    for (double share : new double[] {0.16, 0.5, 0.84}) {
      assertThat(sample.quantile(0, share)).isCloseTo(1_000 * share, within(5.0));
    }
  }

  @Test
  void valuesBesideTheBlocksAreFoundWhereTheBlocksMeetNone() {
    // at 3,000 pixels blocks begin every 375 and are 256 wide: the last columns lie between them
    MemoryRaster raster = Made.placed(
        3_000,
        40,
        0.5,
        (b, col, row) -> b == 0 ? 5 : col >= 2_990 ? 7 : Double.NaN,
        BandRole.RED,
        BandRole.GREEN);

    ValueSample sample = ValueSample.of(raster, Job.QUIET);

    assertThat(sample.quantile(0, 0.5)).isEqualTo(5);
    assertThat(sample.quantile(1, 0.5)).isEqualTo(7);
  }

  @Test
  void aBandWithoutValuesHasNone() {
    MemoryRaster raster = Made.placed(
        30, 30, 0.5, (b, col, row) -> b == 0 ? 5 : Double.NaN, BandRole.RED, BandRole.GREEN);

    ValueSample sample = ValueSample.of(raster, Job.QUIET);

    assertThat(sample.hasValues(0)).isTrue();
    assertThat(sample.hasValues(1)).isFalse();
  }
}
