package sharpkestrel.segment;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.io.FileFormatException;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Raster;

class TreeFileTest {

  @TempDir
  Path folder;

  private static Raster scene(int width, int height, long seed) {
    Random random = new Random(seed);
    return Made.placed(
        width,
        height,
        0.5,
        (b, col, row) -> col < 3 && row < 40
            ? Float.NaN
            : 100 + 50 * ((col / 23 + row / 17) % 3) + 4 * random.nextGaussian(),
        BandRole.RED);
  }

  private static Segment segment(Raster scene, double grain) {
    return Segments.of(scene, grain);
  }

  private static int[] labels(Cut cut) {
    int[] all = new int[cut.superpixels().grid().window().area()];
    cut.superpixels().read(cut.superpixels().grid().window(), all);
    return all;
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3})
  void everyCutOfATreeReadBackIsThatOfTheTreeWritten(long seed) {
    Raster scene = scene(610, 530, seed);
    Cut made = segment(scene, 60).run(Job.QUIET);
    Path stem = folder.resolve("segment-" + seed);

    TreeFile.write(made, stem, Job.QUIET);
    Cut read = TreeFile.read(stem, Job.QUIET);

    assertThat(labels(read)).isEqualTo(labels(made));
    assertThat(read.ground()).isEqualTo(made.ground());
    assertThat(read.tree().by()).isEqualTo(MergingBy.LIKENESS);
    for (double grain : new double[] {5, 60, 700}) {
      Cut again = segment(scene, grain).cut(read.superpixels(), read.tree());
      assertThat(again.height()).isEqualTo(made.withGrain(grain).height());
      assertThat(again.ids()).isEqualTo(made.withGrain(grain).ids());
      assertThat(again.objectOf()).isEqualTo(made.withGrain(grain).objectOf());
    }
  }

  @Test
  void aTreeWithoutItsPixelsOrWithThoseOfAnotherIsRefused() throws Exception {
    TreeFile.write(segment(scene(200, 150, 1), 40).run(Job.QUIET), folder.resolve("a"), Job.QUIET);
    TreeFile.write(segment(scene(260, 150, 2), 40).run(Job.QUIET), folder.resolve("b"), Job.QUIET);
    Files.copy(
        folder.resolve("b.tif"),
        folder.resolve("a.tif"),
        java.nio.file.StandardCopyOption.REPLACE_EXISTING);
    Files.delete(folder.resolve("b.tif"));

    assertThat(TreeFile.exists(folder.resolve("b"))).isFalse();
    assertThatThrownBy(() -> TreeFile.read(folder.resolve("a"), Job.QUIET))
        .isInstanceOf(FileFormatException.class)
        .hasMessageContaining("do not go together");
    assertThatThrownBy(() -> TreeFile.read(folder.resolve("b"), Job.QUIET))
        .isInstanceOf(FileFormatException.class)
        .hasMessageContaining("b.tif");
  }
}
