package sharpkestrel.gather;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;

class ClipTest {

  private static Raster scene() {
    return Made.placed(
        64, 48, 0.5, (b, col, row) -> 1000 * row + col + 0.25 * (col % 3), BandRole.PAN);
  }

  private static Raster clipped(int col, int row, int width, int height) {
    double west = 512_000 + 0.5 * col;
    double north = 6_702_000 - 0.5 * row;
    return new Clip(
            scene(), Optional.of(new Extent(west, north - 0.5 * height, west + 0.5 * width, north)))
        .run(Job.QUIET);
  }

  @Test
  void aCutOutLiesWhereItsPixelsLay() {
    Raster part = clipped(10, 7, 20, 12);

    assertThat(part.grid().width()).isEqualTo(20);
    assertThat(part.grid().height()).isEqualTo(12);
    assertThat(part.grid().affine().x(0, 0)).isCloseTo(512_005, within(1e-9));
    assertThat(part.grid().affine().y(0, 0)).isCloseTo(6_701_996.5, within(1e-9));
    assertThat(Made.samples(part)[0][3 * 20 + 5]).isEqualTo(Made.samples(scene())[0][10 * 64 + 15]);
  }

  /** A reduced level is that of the cut-out's own pixels, whether or not its corner falls on one of the scene's. */
  @ParameterizedTest
  @CsvSource({"8,8,24,20", "9,7,24,20", "10,8,24,20", "8,8,25,21"})
  void reducedLevelsAreHalvedFromTheCutOut(int col, int row, int width, int height) {
    Raster part = clipped(col, row, width, height);
    Grid level = part.grid().atLevel(1);
    MemoryRaster alone =
        new MemoryRaster(part.grid(), part.bands(), Attachments.NONE, Made.samples(part));

    float[] found = part.read(1, level.window(), Request.BACKGROUND)[0];

    float[][] expected = {new float[level.window().area()]};
    Planes.readByHalving(alone, 1, level.window(), expected, Request.BACKGROUND);
    for (int i = 0; i < found.length; i++) {
      assertThat(found[i]).as("pixel " + i).isCloseTo(expected[0][i], within(1e-3f));
    }
  }

  @Test
  void noAreaIsTheWholeScene() {
    Raster scene = scene();

    assertThat(new Clip(scene, Optional.empty()).run(Job.QUIET)).isSameAs(scene);
  }

  @Test
  void anAreaElsewhereIsRefusedWithWhatTheSceneCovers() {
    assertThatThrownBy(
            () -> new Clip(scene(), Optional.of(new Extent(0, 0, 10, 10))).run(Job.QUIET))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("outside of the scene")
        .hasMessageContaining("512000");
  }
}
