package sharpkestrel.demo.light;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import sharpkestrel.raster.RasterException;

class SeasonTest {

  private static final int RED = 3;
  private static final int INFRARED = 5;

  private static double greenness(Season season, Material material) {
    float[] rho = season.spectrum(material);
    return (rho[INFRARED] - rho[RED]) / (rho[INFRARED] + rho[RED]);
  }

  @ParameterizedTest
  @EnumSource(Material.class)
  void withLeavesEverythingIsAsItsSpectrumHasIt(Material material) {
    assertThat(Season.LEAF_ON.spectrum(material)).containsExactly(material.spectrum());
  }

  @Test
  void leavesFallAndGrassBleachesWhileConifersStay() {
    assertThat(greenness(Season.LEAF_ON, Material.BROADLEAF)).isGreaterThan(0.8);
    assertThat(greenness(Season.LEAF_OFF, Material.BROADLEAF)).isLessThan(0.4);
    assertThat(greenness(Season.DRY, Material.PASTURE))
        .isLessThan(greenness(Season.LEAF_ON, Material.PASTURE) - 0.2);
    assertThat(greenness(Season.LEAF_OFF, Material.CONIFER))
        .isEqualTo(greenness(Season.LEAF_ON, Material.CONIFER));
  }

  @Test
  void whatSoaksUpWaterIsDarkAfterRainAndSheetsAreNot() {
    for (Material porous :
        new Material[] {Material.SOIL, Material.CONCRETE, Material.TILE_ROOF, Material.DUST}) {
      float[] wet = Season.WET.spectrum(porous);
      for (int b = 0; b < Material.BANDS; b++) {
        assertThat(wet[b]).isLessThan(0.85f * porous.reflectance(b));
      }
    }
    assertThat(Season.WET.spectrum(Material.METAL_ROOF))
        .containsExactly(Material.METAL_ROOF.spectrum());
  }

  @ParameterizedTest
  @EnumSource(Season.class)
  void everyReflectanceIsPossible(Season season) {
    for (Material material : Material.values()) {
      for (float rho : season.spectrum(material)) {
        assertThat(rho).isBetween(0.001f, 0.95f);
      }
    }
  }

  @Test
  void unknownOnesAreRefusedByName() {
    assertThat(Season.of("leaf-off")).isEqualTo(Season.LEAF_OFF);
    assertThatThrownBy(() -> Season.of("spring"))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("leaf-on, leaf-off, dry, snow or wet");
  }
}
