package sharpkestrel.sharpen;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import sharpkestrel.gather.Calibrate;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;

class DehazeTest {

  /** Reflectance from 0 to 0.6 along a row, with a gain and a haze of its own in each band. */
  private static Raster hazy() {
    return Made.placed(
        601,
        20,
        0.5,
        (b, x, y) -> (b == 0 ? 900 : 400) * x / 1000.0 + (b == 0 ? 120 : 30),
        BandRole.BLUE,
        BandRole.RED);
  }

  @Test
  void gainsAndHazeOfEachBandFallAway() {
    float[][] found = Made.samples(new Dehaze(hazy(), 0, 0, 0.6).run(Job.QUIET));

    for (int x = 0; x <= 600; x += 50) {
      assertThat(found[0][x]).isCloseTo(x / 1000f, within(1e-3f));
      assertThat(found[1][x]).isCloseTo(found[0][x], within(1e-3f));
    }
  }

  @Test
  void whatIsReflectanceAlreadyIsRefused() {
    Raster numbers = hazy();
    List<Band> bands =
        numbers.bands().stream().map(b -> b.withUnit(Calibrate.REFLECTANCE)).toList();
    Raster reflectance =
        new MemoryRaster(numbers.grid(), bands, numbers.attachments(), Made.samples(numbers));

    assertThatThrownBy(() -> new Dehaze(reflectance, 0.01, 0.1, 0.6).run(Job.QUIET))
        .hasMessageContaining("reflectance already");
  }

  @Test
  void aConstantBandIsNamed() {
    Raster flat = Made.placed(40, 40, 0.5, (b, x, y) -> 5, BandRole.RED);

    assertThatThrownBy(() -> new Dehaze(flat, 0.01, 0.1, 0.6).run(Job.QUIET))
        .hasMessageContaining("'red'")
        .hasMessageContaining("one value");
  }
}
