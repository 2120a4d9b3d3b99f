package sharpkestrel.segment;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class BranchTest {

  /**
   * Six superpixels: 0 and 1 make a roof side (6), 2 the other side, both the roof (7); 3 and 4 the ground (8); 5 a crumb that
   * joins the roof (9) before ground and roof meet (10).
   */
  private static final MergeTree TREE = tree(MergingBy.LIKENESS);

  private static MergeTree tree(MergingBy by) {
    return new MergeTree(
        6,
        5,
        new int[] {6, 6, 7, 8, 8, 9, 7, 9, 10, 10, -1},
        new float[] {1, 2, 3, 20, 100},
        new int[] {50, 50, 100, 400, 400, 4},
        by);
  }

  /** Borders as sharp as each other. */
  private static final double[] EVEN = {1, 1, 1, 1, 1};

  private static final int[] PIXELS = Branch.pixelsOf(TREE);

  @Test
  void theRoofIsTheMostStableRungAndACrumbDoesNotEndIt() {
    Branch branch = Branch.of(TREE, PIXELS, 0);

    int best = branch.best(60, 900, EVEN);

    assertThat(branch.node(best)).isEqualTo(7);
    assertThat(branch.pixels(best)).isEqualTo(200);
    // born at 2, gone at 100: the crumb at 20 is within 15 %
    assertThat(branch.stability(best)).isEqualTo(Math.log(50));
  }

  @Test
  void aSharperBorderOutweighsALongerLife() {
    Branch branch = Branch.of(TREE, PIXELS, 0);
    double[] edges = {0.1, 0.5, 0.1, 0.1, Double.NaN};

    assertThat(branch.node(branch.best(60, 900, edges))).isEqualTo(6);
    assertThat(branch.score(4, edges)).isZero();
  }

  @Test
  void onLearnedTreesTheLongerLifeCountsAlone() {
    Branch branch = Branch.of(tree(MergingBy.LEARNED), PIXELS, 0);
    double[] edges = {0.1, 0.5, 0.1, 0.1, Double.NaN};

    assertThat(branch.node(branch.best(60, 900, edges))).isEqualTo(7);
    assertThat(branch.score(4, edges)).isZero();
  }

  /** The definition written down: no rung within 15 % in size stays itself for longer, or for as long and is smaller. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5})
  void naturalRungsStayThemselvesForLongerThanAllOfAboutTheirSize(long seed) {
    Random random = new Random(seed);
    int merges = 300;
    // one region that takes in a superpixel after the other
    int[] parent = new int[2 * merges + 1];
    float[] heights = new float[merges];
    int[] pixels = new int[merges + 1];
    float height = 1;
    for (int i = 0; i <= merges; i++) {
      parent[i] = i == 0 ? merges + 1 : merges + i;
      pixels[i] = 1 + random.nextInt(random.nextInt(10) == 0 ? 400 : 8);
    }
    for (int i = 0; i < merges; i++) {
      parent[merges + 1 + i] = i + 1 < merges ? merges + 2 + i : -1;
      height *= (float) (1 + (random.nextInt(4) == 0 ? random.nextDouble() : 0));
      heights[i] = height;
    }
    MergeTree chain =
        new MergeTree(merges + 1, merges, parent, heights, pixels, MergingBy.LIKENESS);

    Branch branch = Branch.of(chain, Branch.pixelsOf(chain), 0);

    List<Integer> expected = new ArrayList<>();
    for (int i = 0; i < branch.rungs(); i++) {
      boolean natural = branch.stability(i) >= 0.15;
      for (int k = 0; k < branch.rungs(); k++) {
        double smaller = Math.min(branch.pixels(i), branch.pixels(k));
        boolean near = Math.max(branch.pixels(i), branch.pixels(k)) <= smaller * 1.15;
        natural &= !near
            || k == i
            || branch.stability(k) < branch.stability(i)
            || k > i && branch.stability(k) == branch.stability(i);
      }
      if (natural) {
        expected.add(i);
      }
    }
    assertThat(branch.rungs()).isEqualTo(merges + 1);
    assertThat(expected).hasSizeGreaterThan(3);
    assertThat(branch.natural()).isEqualTo(expected);
  }

  @Test
  void climbingStopsAtThingsOfTheirOwn() {
    Branch branch = Branch.of(TREE, PIXELS, 0);
    int roof = branch.best(60, 900, EVEN);

    assertThat(branch.node(branch.below(roof))).isEqualTo(6);
    assertThat(branch.node(branch.below(branch.below(roof)))).isZero();
    // the roof with its crumb is the roof; above it there is only the scene
    assertThat(branch.above(roof)).isEqualTo(roof);
  }

  @Test
  void pointsInsideAndOutsideCutTheBranchToFit() {
    assertThat(Branch.cut(TREE, new int[] {0, 2}, new int[] {3})).containsExactly(7);
    // roof and ground without the other side: the first side, and all of the ground
    assertThat(Branch.cut(TREE, new int[] {0, 3}, new int[] {2})).containsExactly(6, 8);
    assertThat(Branch.cut(TREE, new int[] {0}, new int[] {0})).isEmpty();
  }

  @Test
  void labelsUnderNodesAreThoseOfTheirSuperpixels() {
    assertThat(Branch.rowOf(TREE, new int[] {7, 4})).containsExactly(-1, 0, 0, 0, -1, 0, -1);
  }

  @Test
  void regionsOfMorePixelsThanAnIntHoldsAreTheLargestThereAre() {
    int half = 1 << 30;
    MergeTree tree = new MergeTree(
        3,
        2,
        new int[] {3, 3, 4, 4, -1},
        new float[] {1, 2},
        new int[] {half, half, half},
        MergingBy.LIKENESS);

    assertThat(Branch.pixelsOf(tree))
        .containsExactly(half, half, half, Integer.MAX_VALUE, Integer.MAX_VALUE);
    assertThat(tree.validPixels()).isEqualTo(3L * half);
  }
}
