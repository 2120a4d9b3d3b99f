package sharpkestrel.segment;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;

class NaturalGrainsTest {

  /** Cells of 12 by 12 pixels and faint contrast in squares of 60 by 60 of strong contrast. */
  private static Cut cells() {
    Random random = new Random(4);
    double[][] squares = new double[10][10];
    double[][] cells = new double[50][50];
    for (double[][] level : new double[][][] {squares, cells}) {
      for (double[] row : level) {
        java.util.Arrays.setAll(row, i -> random.nextDouble());
      }
    }
    MemoryRaster scene = Made.placed(
        600,
        600,
        0.5,
        (b, col, row) -> 200
            * Math.exp(2.0 * squares[row / 60][col / 60]
                + 0.4 * cells[row / 12][col / 12]
                + 0.01 * random.nextGaussian()),
        BandRole.PAN);
    return (Cut)
        StepCatalogue.get("segment").make(Map.of("scene", scene), Map.of()).run(Job.QUIET);
  }

  @Test
  void bothSizesOfThingsAreFound() {
    NaturalGrains found = NaturalGrains.of(cells(), 2, 5_000);

    // a cell is 36 m², a square 900; neighbours of much the same tone go together
    assertThat(found.natural()).anySatisfy(g -> assertThat(g).isBetween(28.0, 50.0));
    assertThat(found.natural()).anySatisfy(g -> assertThat(g).isBetween(700.0, 1_600.0));
    assertThat(found.natural()).hasSizeLessThan(5);
    assertThat(found.natural()).isSorted();
  }

  @Test
  void aSceneOfOneColourHasNone() {
    MemoryRaster scene = Made.placed(200, 200, 0.5, (b, col, row) -> 200, BandRole.PAN);
    Cut cut = (Cut)
        StepCatalogue.get("segment").make(Map.of("scene", scene), Map.of()).run(Job.QUIET);

    NaturalGrains found = NaturalGrains.of(cut, 2, 5_000);

    assertThat(found.natural()).isEmpty();
    assertThat(found.steadiness()).containsOnly(0);
  }
}
