package sharpkestrel.extract.learner;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.raster.Job;

/** Likeness in a table of which it is known what makes a row alike. */
class LikenessTest {

  private static final int ROWS = 2000;
  private static final int FEATURES = 12;

  /** A twentieth of the rows agree in two features, and in no other. */
  private static float[][] columns(long seed) {
    Random random = new Random(seed);
    float[][] columns = new float[FEATURES][ROWS];
    for (int i = 0; i < ROWS; i++) {
      for (int f = 0; f < FEATURES; f++) {
        columns[f][i] = (float) (10 * random.nextGaussian());
      }
      if (isKin(i)) {
        columns[3][i] = (float) (15 + 0.5 * random.nextGaussian());
        columns[7][i] = (float) (-12 + 0.5 * random.nextGaussian());
      }
    }
    columns[5][17] = Float.NaN;
    return columns;
  }

  private static boolean isKin(int row) {
    return row % 20 == 0;
  }

  /** Of the hundred most alike, how many are of the kind. */
  private static int found(Likeness likeness) {
    return (int) IntStream.range(0, ROWS)
        .boxed()
        .sorted((a, b) -> Float.compare(likeness.likeness()[b], likeness.likeness()[a]))
        .limit(100)
        .filter(LikenessTest::isKin)
        .count();
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3})
  void fivePicksTellWhatMakesThemAlikeAndOneTellsLess(long seed) {
    float[][] columns = columns(seed);
    int[] none = new int[0];

    Likeness five = Likeness.of(columns, new int[] {0, 200, 420, 1000, 1780}, none, Job.QUIET);
    Likeness one = Likeness.of(columns, new int[] {0}, none, Job.QUIET);

    assertThat(found(five)).isGreaterThan(55);
    assertThat(found(five)).isGreaterThan(found(one));
    assertThat(five.likeness()[200]).isEqualTo(1);
    assertThat(five.weights()[3]).isGreaterThan(2 * five.weights()[0]);
    assertThat(IntStream.range(0, FEATURES).mapToDouble(f -> five.weights()[f]).sum())
        .isBetween(0.999999, 1.000001);
    for (double weight : one.weights()) {
      assertThat(weight).isBetween(0.99 / FEATURES, 1.01 / FEATURES);
    }
  }

  @Test
  void whatIsLikeTheRejectedIsLessAlike() {
    float[][] columns = columns(4);
    int[] picked = {0, 200};
    int[] rejected = IntStream.range(0, ROWS).filter(i -> i % 20 == 3).limit(6).toArray();

    Likeness before = Likeness.of(columns, picked, new int[0], Job.QUIET);
    Likeness after = Likeness.of(columns, picked, rejected, Job.QUIET);

    assertThat(after.likeness()[rejected[0]]).isLessThan(0.05f);
    assertThat(found(after)).isGreaterThan(found(before));
  }

  @Test
  void whatDoesNotVaryAndWhatIsNotKnownDecideNothing() {
    float[][] columns = {new float[ROWS], columns(5)[3]};
    columns[1][40] = Float.NaN;

    Likeness likeness = Likeness.of(columns, new int[] {0, 20}, new int[] {1}, Job.QUIET);

    assertThat(likeness.weights()[0]).isZero();
    assertThat(likeness.likeness()).doesNotContain(Float.NaN);
  }
}
