package sharpkestrel.extract.classmap;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.ScratchLabels;

class BandSpreadTest {

  private static final int WIDTH = 700;
  private static final int HEIGHT = 500;
  private static final Grid GRID = new Grid(WIDTH, HEIGHT, Affine.IDENTITY, CrsName.NONE);

  private static ScratchLabels halves() {
    ScratchLabels labels = new ScratchLabels(GRID);
    int[] values = new int[WIDTH * HEIGHT];
    Arrays.setAll(values, i -> i % WIDTH < WIDTH / 2 ? 1 : 2);
    labels.write(GRID.window(), values);
    labels.setMaxLabel(2);
    return labels;
  }

  /** Two normal clouds: one long along a slanted line, one round. */
  private static Raster clouds() {
    SplittableRandom random = new SplittableRandom(1);
    float[][] planes = new float[2][WIDTH * HEIGHT];
    for (int i = 0; i < planes[0].length; i++) {
      double along = random.nextGaussian();
      double beside = random.nextGaussian();
      boolean first = i % WIDTH < WIDTH / 2;
      double turn = Math.toRadians(30);
      double large = first ? 4 : 1;
      planes[0][i] = (float) (100 + large * along * Math.cos(turn) - beside * Math.sin(turn));
      planes[1][i] = (float) (50 + large * along * Math.sin(turn) + beside * Math.cos(turn));
    }
    planes[0][WIDTH / 2 + 3] = Float.NaN;
    return Made.on(
        GRID,
        SampleType.FLOAT32,
        (band, col, row) -> planes[band][row * WIDTH + col],
        BandRole.RED,
        BandRole.NEAR_INFRARED);
  }

  @Test
  void ellipsesLieAsTheCloudsDo() {
    BandSpread[] spreads =
        BandSpread.of(clouds(), 0, 1, halves(), label -> label - 1, 3, Job.QUIET);

    assertThat(spreads[0].meanX()).isCloseTo(100, within(0.1));
    assertThat(spreads[0].meanY()).isCloseTo(50, within(0.1));
    BandSpread.Ellipse slanted = spreads[0].ellipse(2);
    assertThat(slanted.large()).isCloseTo(8, within(0.1));
    assertThat(slanted.small()).isCloseTo(2, within(0.05));
    assertThat(Math.toDegrees(slanted.angle())).isCloseTo(30, within(0.5));
    assertThat(spreads[1].ellipse(1).large()).isCloseTo(1, within(0.02));
    assertThat(spreads[1].ellipse(1).small()).isCloseTo(1, within(0.02));
  }

  @Test
  void whatIsNotMetHasNoPixels() {
    BandSpread[] spreads =
        BandSpread.of(clouds(), 1, 0, halves(), label -> label == 1 ? -1 : 0, 2, Job.QUIET);
    assertThat(spreads[1].pixels()).isZero();
    assertThat(spreads[1].meanX()).isNaN();
    assertThat(spreads[0].pixels()).isPositive();
    assertThat(spreads[0].meanY()).isCloseTo(100, within(0.1));
  }
}
