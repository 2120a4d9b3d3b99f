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

  private static Index bands(BandRole first, BandRole second) {
    return new Index(scene(), IndexKind.BANDS, first, second, "none", Index.On.REFLECTANCE);
  }

  private static Index formula(Raster scene, String text) {
    return new Index(
        scene, IndexKind.FORMULA, BandRole.RED, BandRole.GREEN, text, Index.On.REFLECTANCE);
  }

  @Test
  void theDifferenceOverTheSumAndNoDataWhereTheSumIsNotAboveNothing() {
    Raster index = bands(BandRole.NEAR_INFRARED, BandRole.RED).run(Job.QUIET);

    assertThat(Made.samples(index)[0])
        .containsExactly(0.5f, -0.5f, Float.NaN, Float.NaN, Float.NaN);
  }

  @Test
  void swappingTheRolesTurnsTheSign() {
    Raster one = bands(BandRole.NEAR_INFRARED, BandRole.RED).run(Job.QUIET);
    Raster other = bands(BandRole.RED, BandRole.NEAR_INFRARED).run(Job.QUIET);

    assertThat(Made.samples(other)[0][0]).isEqualTo(-Made.samples(one)[0][0]);
  }

  @Test
  void oneRoleTwiceIsRefused() {
    assertThatThrownBy(() -> bands(BandRole.RED, BandRole.RED))
        .hasMessageContaining("different roles");
  }

  @Test
  void aRoleTheSceneLacksIsNamed() {
    assertThatThrownBy(() -> bands(BandRole.GREEN, BandRole.RED).run(Job.QUIET))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("green");
  }

  @Test
  void theVegetationIndexIsThatOfInfraredAndRed() {
    Raster plain = new Index(
            scene(),
            IndexKind.VEGETATION,
            BandRole.GREEN,
            BandRole.BLUE,
            "none",
            Index.On.REFLECTANCE)
        .run(Job.QUIET);

    assertThat(Made.samples(plain)[0])
        .containsExactly(
            Made.samples(bands(BandRole.NEAR_INFRARED, BandRole.RED).run(Job.QUIET))[0]);
  }

  @Test
  void aFormulaIsWorkedOutPixelByPixelAndNothingDividedByNothingIsNoData() {
    Raster found = formula(scene(), "2 * near_infrared / red - 1").run(Job.QUIET);

    assertThat(Made.samples(found)[0]).containsExactly(5, -1 / 3f, Float.NaN, Float.NaN, -3);
  }

  @Test
  void aTestGivesAMask() {
    Raster found = formula(scene(), "near_infrared > red").run(Job.QUIET);

    assertThat(found.bands().get(0).type()).isEqualTo(sharpkestrel.raster.SampleType.UINT8);
    assertThat(Made.samples(found)[0]).containsExactly(1, 0, 0, Float.NaN, 0);
  }

  @Test
  void aNameTheSceneHasNotIsToldWithThoseItHas() {
    assertThatThrownBy(() -> formula(scene(), "near_infrared - swir").run(Job.QUIET))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("'swir'")
        .hasMessageContaining("near_infrared, red");
  }

  @Test
  void aFormulaThatCannotBeReadSaysWhere() {
    assertThatThrownBy(() -> formula(scene(), "near_infrared +").run(Job.QUIET))
        .hasMessageContaining("character");
  }

  @Test
  void aFormulaBesideAnotherIndexIsRefused() {
    assertThatThrownBy(() -> new Index(
            scene(),
            IndexKind.WATER,
            BandRole.RED,
            BandRole.GREEN,
            "red / blue",
            Index.On.REFLECTANCE))
        .hasMessageContaining("Choose the index 'formula'");
  }

  @Test
  void theIndicesOfASceneAreThoseWhoseBandsItHas() {
    Raster scene =
        Made.placed(2, 2, 1, (b, x, y) -> b, BandRole.GREEN, BandRole.RED, BandRole.NEAR_INFRARED);

    assertThat(IndexKind.of(scene))
        .containsExactly(
            IndexKind.VEGETATION, IndexKind.GREEN_VEGETATION, IndexKind.WATER, IndexKind.GREEN_RED);
  }
}
