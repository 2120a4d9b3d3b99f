package sharpkestrel.sharpen;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;

class IndexTest {

  private static final float[] RED = {1, 3, 0, Float.NaN, 5};
  private static final float[] INFRARED = {3, 1, 0, 4, -5};

  private static Raster scene() {
    return Made.placed(
        5,
        1,
        0.5,
        (b, col, row) -> b == 0 ? RED[col] : INFRARED[col],
        BandRole.RED,
        BandRole.NEAR_INFRARED);
  }

  @Test
  void theDifferenceOverTheSumAndNoDataWhereTheSumIsNotAboveNothing() {
    Raster index = new Index(scene(), BandRole.NEAR_INFRARED, BandRole.RED).run(Job.QUIET);

    assertThat(Made.samples(index)[0])
        .containsExactly(0.5f, -0.5f, Float.NaN, Float.NaN, Float.NaN);
  }

  @Test
  void swappingTheRolesTurnsTheSign() {
    Raster one = new Index(scene(), BandRole.NEAR_INFRARED, BandRole.RED).run(Job.QUIET);
    Raster other = new Index(scene(), BandRole.RED, BandRole.NEAR_INFRARED).run(Job.QUIET);

    assertThat(Made.samples(other)[0][0]).isEqualTo(-Made.samples(one)[0][0]);
  }

  @Test
  void oneRoleTwiceIsRefused() {
    assertThatThrownBy(() -> new Index(scene(), BandRole.RED, BandRole.RED))
        .hasMessageContaining("different roles");
  }

  @Test
  void aRoleTheSceneLacksIsNamed() {
    assertThatThrownBy(() -> new Index(scene(), BandRole.GREEN, BandRole.RED).run(Job.QUIET))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("green");
  }
}
