package sharpkestrel.extract.learner;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import sharpkestrel.raster.Job;

class NextQuestionTest {

  private static final int ROWS = 3000;

  /** A rare class in a corner of what is common, by two of six features; the rest is noise. */
  private static Examples world(long seed) {
    Random random = new Random(seed);
    float[][] columns = new float[6][ROWS];
    int[] classOf = new int[ROWS];
    for (int i = 0; i < ROWS; i++) {
      for (float[] column : columns) {
        column[i] = (float) random.nextGaussian();
      }
      classOf[i] = columns[0][i] + columns[1][i] > 1.7 ? 1 : 0;
    }
    return Examples.of(
        List.of("a", "b", "c", "d", "e", "f"), columns, List.of("common", "rare"), classOf);
  }

  private static double worth(Examples world, List<Integer> known) {
    Examples learned = world.select(known.stream().mapToInt(Integer::intValue).toArray());
    Classifier classifier =
        Classifier.learn(learned.balanced(), Learner.EXTREME_TREES, "test", 1, false, Job.QUIET);
    float[] shares =
        classifier.shares(classifier.columns(world.features(), world.columns()), Job.QUIET);
    return Confusion.of(world, shares).f1(1);
  }

  private static List<Integer> start(Examples world) {
    List<Integer> known = new ArrayList<>();
    int[] counts = new int[2];
    for (int i = 0; known.size() < 4; i++) {
      if (counts[world.classOf()[i]] < 2) {
        counts[world.classOf()[i]]++;
        known.add(i);
      }
    }
    return known;
  }

  @Test
  void answersToQuestionsTeachMoreThanAsManyAtRandom() {
    double asked = 0;
    double drawn = 0;
    for (long seed = 1; seed <= 3; seed++) {
      Examples world = world(seed);
      List<Integer> answers = start(world);
      NextQuestion questions = new NextQuestion(world.columns(), seed);
      for (int step = 0; step < 40; step++) {
        Examples learned =
            world.select(answers.stream().mapToInt(Integer::intValue).toArray());
        Classifier classifier = Classifier.learn(
            learned.balanced(), Learner.EXTREME_TREES, "test", 1, false, Job.QUIET);
        float[] shares =
            classifier.shares(classifier.columns(world.features(), world.columns()), Job.QUIET);
        double[] doubt = new double[ROWS];
        boolean[] known = new boolean[ROWS];
        for (int i = 0; i < ROWS; i++) {
          doubt[i] = Math.min(shares[2 * i], shares[2 * i + 1])
              / Math.max(shares[2 * i], shares[2 * i + 1]);
        }
        answers.forEach(i -> known[i] = true);
        answers.add(questions.next(
            doubt, known, answers.stream().mapToInt(Integer::intValue).toArray()));
      }
      List<Integer> random = start(world);
      new Random(seed).ints(0, ROWS).distinct().limit(40).forEach(random::add);
      asked += worth(world, answers);
      drawn += worth(world, random);
    }

    assertThat(asked / 3).isGreaterThan(drawn / 3 + 0.05);
  }

  @Test
  void nothingIsAskedTwiceAndNothingWhereAllIsKnown() {
    Examples world = world(1);
    NextQuestion questions = new NextQuestion(world.columns(), 1);
    boolean[] known = new boolean[ROWS];
    double[] doubt = new double[ROWS];
    int first = questions.next(doubt, known, new int[0]);
    known[first] = true;

    assertThat(questions.next(doubt, known, new int[] {first})).isNotEqualTo(first);
    java.util.Arrays.fill(known, true);
    assertThat(questions.next(doubt, known, new int[0])).isEqualTo(-1);
  }

  @Test
  void ofVeryManyRowsOneIsFoundAtOnceAndNeverAKnownOne() {
    int many = 250_000;
    float[][] columns = new float[3][many];
    Random random = new Random(5);
    double[] doubt = new double[many];
    for (int i = 0; i < many; i++) {
      for (float[] column : columns) {
        column[i] = (float) random.nextGaussian();
      }
      doubt[i] = random.nextDouble();
    }
    NextQuestion questions = new NextQuestion(columns, 1);
    boolean[] known = new boolean[many];
    List<Integer> asked = new ArrayList<>();
    for (int k = 0; k < 30; k++) {
      int next = questions.next(
          doubt, known, asked.stream().mapToInt(Integer::intValue).toArray());
      assertThat(next).isBetween(0, many - 1);
      assertThat(known[next]).isFalse();
      assertThat(doubt[next]).isGreaterThan(0.3);
      known[next] = true;
      asked.add(next);
    }
    assertThat(asked).doesNotHaveDuplicates();
  }
}
