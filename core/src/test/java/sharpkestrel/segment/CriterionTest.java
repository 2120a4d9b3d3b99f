package sharpkestrel.segment;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import sharpkestrel.place.HeightModels;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Raster;
import sharpkestrel.segment.regions.Regions;

class CriterionTest {

  /** A grey roof on a grey yard, its southern half in shade, and a heap that is as dark as the shade beside it. */
  private static double roofInAYard(int col, int row, Random random) {
    boolean roof = col >= 30 && col < 60 && row >= 30 && row < 60;
    boolean shade = row >= 45 && row < 75 && col >= 30 && col < 60;
    return (shade ? 40 : 100) * (roof ? 1 : 1.05) * (1 + 0.02 * random.nextGaussian());
  }

  @Test
  void heightKeepsARoofTogetherThatLightWouldTearApart() {
    Random random = new Random(3);
    Raster scene = Made.placed(
        96, 96, 0.5, (b, col, row) -> roofInAYard(col, row, random), BandRole.RED, BandRole.GREEN);
    Raster ground = Made.placed(48, 48, 1, (b, col, row) -> 10, BandRole.HEIGHT);
    Raster surface = Made.placed(
        48,
        48,
        1,
        (b, col, row) -> col >= 15 && col < 30 && row >= 15 && row < 30 ? 16 : 10,
        BandRole.HEIGHT);

    double without = roofIou(segment(scene, Optional.empty(), Optional.empty()));
    double with = roofIou(segment(scene, Optional.of(surface), Optional.of(ground)));

    assertThat(without).isLessThan(0.7);
    assertThat(with).isGreaterThan(0.85);
  }

  /** The best overlap that an object of any grain has with the roof. */
  private static double roofIou(Cut cut) {
    double best = 0;
    int[] labels = new int[96 * 96];
    cut.superpixels().read(cut.superpixels().grid().window(), labels);
    for (int k = 0; k <= cut.tree().merges(); k++) {
      int[] nodeOf = cut.tree().nodesAfter(k);
      int node = nodeOf[labels[40 * 96 + 45] - 1];
      int both = 0;
      int either = 0;
      for (int i = 0; i < labels.length; i++) {
        boolean roof = i % 96 >= 30 && i % 96 < 60 && i / 96 >= 30 && i / 96 < 60;
        boolean object = nodeOf[labels[i] - 1] == node;
        both += roof && object ? 1 : 0;
        either += roof || object ? 1 : 0;
      }
      best = Math.max(best, (double) both / either);
    }
    return best;
  }

  private static Cut segment(Raster scene, Optional<Raster> surface, Optional<Raster> ground) {
    return new Segment(
            scene,
            new HeightModels(surface, ground),
            Optional.empty(),
            60,
            MergeOrder.BY_LIKENESS,
            Regions.superpixels(25, 0.1),
            List.of(),
            Double.NaN)
        .run(Job.QUIET);
  }

  @Test
  void aSurfaceWithoutGroundIsRefused() {
    Raster scene = Made.placed(40, 40, 0.5, (b, col, row) -> col, BandRole.PAN);

    assertThatThrownBy(() -> segment(scene, Optional.of(scene), Optional.empty()))
        .hasMessageContaining("--heights");
  }

  @Test
  void weightsOfZeroTakeAPartOut() {
    Weights weights =
        Weights.parse(List.of("light=0", "near_infrared=2", "form=0", "edges=2"), 0.5);

    assertThat(weights.criterion()).isEqualTo(new Criterion(0, 1, 1, 0.2, 2, 0, 0.5));
    assertThat(weights.bands())
        .containsExactlyEntriesOf(java.util.Map.of(BandRole.NEAR_INFRARED, 2.0));
  }

  @Test
  void wrongWeightsAreNamed() {
    assertThatThrownBy(() -> Weights.parse(List.of("brightness=2"), 0))
        .hasMessageContaining("brightness=2")
        .hasMessageContaining("light, colour, height");
    assertThatThrownBy(() -> Weights.parse(List.of("red=-1"), 0)).hasMessageContaining("red=-1");
    assertThatThrownBy(() -> Weights.parse(List.of("edges=3"), 0))
        .hasMessageContaining("at most 2");
  }
}
