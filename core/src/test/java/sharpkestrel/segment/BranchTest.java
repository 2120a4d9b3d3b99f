package sharpkestrel.segment;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

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
}
