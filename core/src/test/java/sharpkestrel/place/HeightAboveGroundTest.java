package sharpkestrel.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;

class HeightAboveGroundTest {

  @Test
  void aBlockOnASlopeIsAsHighAsTheBlock() {
    Raster terrain = Made.placed(30, 30, 1, (b, col, row) -> 20 + 0.3 * col, BandRole.HEIGHT);
    Raster surface = Made.placed(
        30,
        30,
        1,
        (b, col, row) -> 20 + 0.3 * col + (col >= 10 && col < 20 && row >= 10 && row < 20 ? 6 : 0),
        BandRole.HEIGHT);
    Raster scene = Made.placed(60, 60, 0.5, (b, col, row) -> 1, BandRole.PAN);

    float[] height = Made.samples(HeightAboveGround.of(scene.grid(), surface, terrain))[0];

    assertThat(height[30 * 60 + 30]).isCloseTo(6, within(1e-4f));
    assertThat(height[8 * 60 + 8]).isCloseTo(0, within(1e-4f));
    // half-way between the last post of the ground and the first of the block
    assertThat((height[30 * 60 + 19] + height[30 * 60 + 20]) / 2).isCloseTo(3, within(1e-3f));
  }

  @Test
  void aSceneWithoutAPlaceIsRefused() {
    Raster model = Made.placed(30, 30, 1, (b, col, row) -> 20, BandRole.HEIGHT);

    assertThatThrownBy(() -> HeightAboveGround.of(Grid.ofPixels(10, 10), model, model))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("Orthorectify it first");
  }
}
