package sharpkestrel.segment;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

class RungEdgesTest {

  private static final int SIZE = 120;

  /** A roof of two sides, one half as light, on dark ground. */
  private static MemoryRaster roof() {
    return Made.placed(
        SIZE,
        SIZE,
        0.5,
        (b, col, row) -> col < 40 || col >= 80 || row < 30 || row >= 90
            ? 20 + (7 * col + 3 * row) % 4
            : (row < 60 ? 400 : 200) + (5 * col + row) % 4,
        BandRole.RED,
        BandRole.GREEN);
  }

  @Test
  void bordersAreAsSharpAsAllTheirSidesOnAverage() {
    MemoryRaster scene = roof();
    Cut cut = (Cut)
        StepCatalogue.get("segment").make(Map.of("scene", scene), Map.of()).run(Job.QUIET);
    int[] labels = new int[SIZE * SIZE];
    cut.superpixels().read(new Window(0, 0, SIZE, SIZE), labels);
    MergeTree tree = cut.tree();
    Branch branch = Branch.of(tree, Branch.pixelsOf(tree), labels[45 * SIZE + 60] - 1);

    double[] edges =
        RungEdges.of(branch, tree, cut.superpixels(), scene, 60, 45, Request.BACKGROUND);

    float[][] planes = Made.samples(scene);
    double floor = 0.1 * mean(planes[0]);
    for (int rung = 0; rung < branch.rungs(); rung++) {
      int[] rowOf = Branch.rowOf(tree, new int[] {branch.node(rung)});
      double sum = 0;
      int sides = 0;
      for (int y = 0; y < SIZE; y++) {
        for (int x = 0; x < SIZE; x++) {
          int i = y * SIZE + x;
          if (x + 1 < SIZE && rowOf[labels[i]] != rowOf[labels[i + 1]]) {
            sum += contrast(
                planes, floor, y * SIZE + Math.max(0, x - 1), y * SIZE + Math.min(SIZE - 1, x + 2));
            sides++;
          }
          if (y + 1 < SIZE && rowOf[labels[i]] != rowOf[labels[i + SIZE]]) {
            sum += contrast(
                planes, floor, Math.max(0, y - 1) * SIZE + x, Math.min(SIZE - 1, y + 2) * SIZE + x);
            sides++;
          }
        }
      }
      if (sides == 0) {
        assertThat(edges[rung]).isNaN();
      } else {
        assertThat(edges[rung]).isCloseTo(sum / sides, within(1e-9));
      }
    }
    // one side of the roof, and all of it
    assertThat(IntStream.range(0, branch.rungs()).map(branch::pixels).boxed())
        .contains(1_200, 2_400);
  }

  private static double mean(float[] plane) {
    double sum = 0;
    for (float v : plane) {
      sum += v;
    }
    return sum / plane.length;
  }

  private static double contrast(float[][] planes, double floor, int before, int after) {
    // both bands hold the same numbers
    return Math.abs(Math.log((planes[0][before] + floor) / (planes[1][after] + floor)));
  }
}
