package sharpkestrel.extract.learner;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;

class LearnersTest {

  private static final int FEATURES = 5;
  private static final List<String> NAMES = List.of("a", "b", "c", "d", "e");

  /** Three round clouds whose middles lie at a distance from each other in the first two features; the others are noise. */
  private static Examples clouds(int each, double apart, long seed) {
    Random random = new Random(seed);
    float[][] columns = new float[FEATURES][3 * each];
    int[] classOf = new int[3 * each];
    double[][] middles = {{0, 0}, {apart, 0}, {apart / 2, apart * Math.sqrt(0.75)}};
    for (int i = 0; i < classOf.length; i++) {
      classOf[i] = i % 3;
      for (int f = 0; f < FEATURES; f++) {
        double middle = f < 2 ? middles[classOf[i]][f] : 0;
        columns[f][i] = (float) (1000 + 7 * (middle + random.nextGaussian()));
      }
    }
    return Examples.of(NAMES, columns, List.of("one", "two", "three"), classOf);
  }

  /** Share told right by the nearest middle, which is the best there can be. */
  private static double best(Examples examples, double apart) {
    double[][] middles = {{0, 0}, {apart, 0}, {apart / 2, apart * Math.sqrt(0.75)}};
    int right = 0;
    for (int i = 0; i < examples.count(); i++) {
      int nearest = 0;
      double least = Double.POSITIVE_INFINITY;
      for (int k = 0; k < 3; k++) {
        double x = (examples.columns()[0][i] - 1000) / 7 - middles[k][0];
        double y = (examples.columns()[1][i] - 1000) / 7 - middles[k][1];
        if (x * x + y * y < least) {
          least = x * x + y * y;
          nearest = k;
        }
      }
      right += nearest == examples.classOf()[i] ? 1 : 0;
    }
    return (double) right / examples.count();
  }

  private static float[] shares(Scorer scorer, Examples examples) {
    float[] all = new float[examples.count() * scorer.classes()];
    float[] row = new float[examples.columns().length];
    float[] out = new float[scorer.classes()];
    for (int i = 0; i < examples.count(); i++) {
      examples.row(i, row);
      scorer.score(row, out);
      System.arraycopy(out, 0, all, i * out.length, out.length);
    }
    return all;
  }

  @ParameterizedTest
  @EnumSource(Learner.class)
  void everyMethodComesNearTheBestThereCanBeOnWhatItHasNotSeen(Learner method) {
    Examples learned = clouds(150, 3, 1);
    Examples unseen = clouds(1000, 3, 2);

    Scorer scorer = method.learn(learned, 7, Job.QUIET);

    double reached = Confusion.of(unseen, shares(scorer, unseen)).accuracy();
    assertThat(reached).isGreaterThan(best(unseen, 3) - 0.045);
    assertThat(reached).isLessThan(best(unseen, 3) + 0.01);
  }

  @ParameterizedTest
  @EnumSource(Learner.class)
  void whatIsNotKnownLeavesAnAnswerThatAddsUp(Learner method) {
    Examples learned = clouds(60, 4, 1);
    Random random = new Random(3);
    for (float[] column : learned.columns()) {
      for (int i = 0; i < column.length; i++) {
        column[i] = random.nextInt(6) == 0 ? Float.NaN : column[i];
      }
    }

    Scorer scorer = method.learn(learned, 7, Job.QUIET);

    float[] out = new float[3];
    float[] nothing = new float[FEATURES];
    Arrays.fill(nothing, Float.NaN);
    scorer.score(nothing, out);
    assertThat(out[0] + out[1] + out[2]).isCloseTo(1, within(1e-5f));
    assertThat(Confusion.of(learned, shares(scorer, learned)).accuracy()).isGreaterThan(0.8);
  }

  @ParameterizedTest
  @EnumSource(Learner.class)
  void theSameExamplesAndSeedMakeTheSameModelWhateverTheThreads(Learner method) {
    Examples learned = clouds(80, 2, 1);
    Examples unseen = clouds(50, 2, 2);

    float[] first = shares(method.learn(learned, 7, Job.QUIET), unseen);
    float[] second = shares(method.learn(learned, 7, Job.of(1, 512)), unseen);

    assertThat(first).isEqualTo(second);
  }

  @Test
  void manyRowsAreBoostedToTheSameTreesWhateverTheThreads() {
    Examples learned = clouds(3000, 2, 1);
    Examples unseen = clouds(50, 2, 2);

    float[] first = shares(Learner.BOOSTING.learn(learned, 7, Job.of(2, 512)), unseen);
    float[] second = shares(Learner.BOOSTING.learn(learned, 7, Job.of(1, 512)), unseen);

    assertThat(first).isEqualTo(second);
  }

  @Test
  void maximumLikelihoodGivesTheProbabilitiesOfTwoNormalDistributions() {
    int n = 40_000;
    Random random = new Random(1);
    float[][] columns = new float[1][n];
    int[] classOf = new int[n];
    for (int i = 0; i < n; i++) {
      classOf[i] = i % 4 == 0 ? 1 : 0;
      columns[0][i] =
          (float) (classOf[i] == 0 ? random.nextGaussian() : 3 + 2 * random.nextGaussian());
    }
    Examples examples = Examples.of(List.of("x"), columns, List.of("narrow", "wide"), classOf);

    Scorer scorer = LikelihoodScorer.learn(examples, new double[0], Double.POSITIVE_INFINITY);
    Scorer near = LikelihoodScorer.learn(examples, new double[0], 9);

    for (float x : new float[] {-3, 0, 1, 2, 5}) {
      double narrow = 0.75 * Math.exp(-0.5 * x * x);
      double wide = 0.25 / 2 * Math.exp(-0.5 * (x - 3) * (x - 3) / 4);
      float[] out = new float[2];
      scorer.score(new float[] {x}, out);
      assertThat((double) out[1]).isCloseTo(wide / (narrow + wide), within(0.015));
    }
    float[] far = new float[2];
    near.score(new float[] {-20}, far);
    assertThat(far).containsExactly(0, 0);
  }

  @Test
  void theFirstSplitOfABoostedTreeIsTheBestOneByTryingAll() {
    Examples examples = clouds(40, 2, 5);
    float[] targets = new float[examples.count()];
    for (int i = 0; i < targets.length; i++) {
      targets[i] = examples.classOf()[i];
    }
    BoostingGrower.Settings stump = new BoostingGrower.Settings(1, 1, 1, 1, 1, 0, 1);

    Trees trees = BoostingGrower.grow(
        examples,
        Bins.of(examples, Job.QUIET),
        BoostingGrower.Loss.SQUARED,
        targets,
        stump,
        1,
        Job.QUIET);

    double best = Double.POSITIVE_INFINITY;
    for (float[] column : examples.columns()) {
      for (float threshold : column) {
        best = Math.min(best, squaresLeft(column, threshold, targets));
      }
    }
    double reached = 0;
    float[] row = new float[FEATURES];
    float[] out = new float[1];
    for (int i = 0; i < targets.length; i++) {
      examples.row(i, row);
      trees.sum(row, out);
      reached += (out[0] - targets[i]) * (out[0] - targets[i]);
    }
    assertThat(reached).isCloseTo(best, within(1e-3 * best));
  }

  private static double squaresLeft(float[] column, float threshold, float[] targets) {
    double sum = 0;
    for (int side = 0; side < 2; side++) {
      double n = 0;
      double mean = 0;
      double squares = 0;
      for (int i = 0; i < column.length; i++) {
        if (column[i] < threshold == (side == 0)) {
          n++;
          mean += targets[i];
          squares += targets[i] * targets[i];
        }
      }
      sum += n > 0 ? squares - mean * mean / n : 0;
    }
    return sum;
  }

  @ParameterizedTest
  @EnumSource(
      value = Learner.class,
      names = {"FOREST", "EXTREME_TREES"})
  void contributionsAddUpToWhatTheTreesSay(Learner method) {
    Examples examples = clouds(50, 3, 1);
    TreeScorer scorer = (TreeScorer) method.learn(examples, 7, Job.QUIET);
    float[] row = new float[FEATURES];
    examples.row(4, row);
    float[] out = new float[3];
    scorer.score(row, out);

    double[] each = scorer.contributions(row, 1);

    // the roots say how frequent a class is in the samples of the trees
    assertThat(Arrays.stream(each).sum()).isCloseTo(out[1] - 1 / 3.0, within(0.02));
    Examples unseen = clouds(200, 3, 2);
    double told = 0;
    double noise = 0;
    for (int i = 0; i < unseen.count(); i++) {
      unseen.row(i, row);
      double[] spoke = scorer.contributions(row, unseen.classOf()[i]);
      told += spoke[0] + spoke[1];
      noise += spoke[2] + spoke[3] + spoke[4];
    }
    assertThat(told).isGreaterThan(10 * Math.abs(noise));
  }

  /** Rows go down trees side by side where all is known, one by one where it is not. */
  @ParameterizedTest
  @EnumSource(
      value = Learner.class,
      names = {"FOREST", "EXTREME_TREES", "BOOSTING"})
  void manyRowsAreToldAsEachIsByItself(Learner method) {
    Scorer scorer = method.learn(clouds(60, 3, 1), 7, Job.QUIET);
    Examples unseen = clouds(71, 3, 2);
    for (boolean holes : new boolean[] {false, true}) {
      float[][] rows = new float[unseen.count()][FEATURES];
      float[][] together = new float[rows.length][3];
      for (int i = 0; i < rows.length; i++) {
        unseen.row(i, rows[i]);
        if (holes && i % 5 == 0) {
          rows[i][i % FEATURES] = i % 10 == 0 ? Float.NaN : Float.NEGATIVE_INFINITY;
        }
      }
      scorer.score(rows, rows.length, together);
      float[] alone = new float[3];
      for (int i = 0; i < rows.length; i++) {
        scorer.score(rows[i], alone);
        assertThat(together[i]).isEqualTo(alone);
      }
    }
  }

  @Test
  void zeroOfEitherSignIsNotUnderAThresholdOfZero() {
    Trees trees = new Trees(1, 1);
    trees.beginTree();
    int root = trees.addNode();
    int first = trees.split(root, 0, 0f, false);
    trees.setValue(first, 0, 1);
    trees.setValue(first + 1, 0, 2);
    float[][] rows = {{-0f}, {0f}, {-1e-45f}, {1e-45f}, {-0f}};
    float[][] out = new float[rows.length][1];
    trees.sum(rows, rows.length, out);
    assertThat(Arrays.stream(out).map(o -> o[0])).containsExactly(2f, 2f, 1f, 2f, 2f);
    assertThat(trees.leaf(0, rows[0])).isEqualTo(first + 1);
  }

  @Test
  void weightsGiveClassesTheirShares() {
    Examples examples =
        clouds(40, 3, 1).select(java.util.stream.IntStream.range(0, 90).toArray());
    Examples weighted = examples.weighted(new double[] {0.5, 0.3, 0.2});
    double[] sums = new double[3];
    double all = 0;
    for (int i = 0; i < weighted.count(); i++) {
      sums[weighted.classOf()[i]] += weighted.weights()[i];
      all += weighted.weights()[i];
    }
    assertThat(all).isCloseTo(90, within(1e-3));
    assertThat(sums[0] / all).isCloseTo(0.5, within(1e-5));
    assertThat(sums[1] / all).isCloseTo(0.3, within(1e-5));
  }

  @Test
  void nothingIsSaidOfWhatIsTooFarFromEveryClass() {
    Classifier near = Classifier.learn(
            clouds(200, 3, 1), Learner.LIKELIHOOD, "test", 1, false, Job.QUIET)
        .within(4);
    float[] out = new float[3];
    float[] middle = {1000, 1000, 1000, 1000, 1000};
    near.shares(middle, out);
    assertThat(out[0] + out[1] + out[2]).isCloseTo(1, within(1e-5f));
    float[] far = middle.clone();
    // of a spread of 7 in each feature: five deviations away
    far[4] += 35;
    near.shares(far, out);
    assertThat(out).containsExactly(0, 0, 0);
    assertThatThrownBy(
            () -> Classifier.learn(clouds(40, 3, 1), Learner.FOREST, "test", 1, false, Job.QUIET)
                .within(4))
        .hasMessageContaining("maximum likelihood alone");
  }

  @Test
  void aForestSaysOutOfItsBagsWhatItIsWorth() {
    Examples examples = clouds(200, 2, 1);

    float[] outOfBag = Learner.forest(examples, 7, Job.QUIET).outOfBag();

    double said = Confusion.of(examples, outOfBag).accuracy();
    assertThat(said).isCloseTo(best(examples, 2), within(0.06));
  }

  @Test
  void whatIsKeptBackStaysKeptBackAsExamplesAreAdded() {
    Examples many = clouds(100, 2, 1);
    int[] firstHalf = java.util.stream.IntStream.range(0, 150).toArray();

    int[] of = Folds.of(many, 5, 9);
    int[] before = Folds.of(many.select(firstHalf), 5, 9);

    assertThat(before).isEqualTo(Arrays.copyOf(of, 150));
    assertThat(Arrays.stream(of).filter(p -> p == 0).count()).isBetween(40L, 80L);
  }

  @Test
  void whatCannotBeLearnedIsSaidInWords() {
    Examples one =
        Examples.of(List.of("a"), new float[][] {{1, 2, 3}}, List.of("roof"), new int[] {0, 0, 0});
    assertThatThrownBy(one::check)
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("3 of 'roof'");
    Examples thin = Examples.of(
        List.of("a"),
        new float[][] {{1, 2, 3, 4, 5}},
        List.of("roof", "ground", "it's \"odd\""),
        new int[] {0, 0, 1, 1, 2});
    assertThatThrownBy(thin::check)
        .hasMessageContaining("it's \"odd\"")
        .hasMessageContaining("one sample");
    Examples constant = Examples.of(
        List.of("a", "b"),
        new float[][] {{2, 2, 2, 2}, {Float.NaN, Float.NaN, Float.NaN, Float.NaN}},
        List.of("roof", "ground"),
        new int[] {0, 0, 1, 1});
    assertThatThrownBy(constant::check).hasMessageContaining("No feature differs");
    assertThatThrownBy(() ->
            Examples.of(List.of("a"), new float[1][0], List.of(), new int[0]).check())
        .hasMessageContaining("there are none");
  }
}
