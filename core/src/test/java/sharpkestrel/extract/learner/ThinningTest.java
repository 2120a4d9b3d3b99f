package sharpkestrel.extract.learner;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.SplittableRandom;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class ThinningTest {

  private static final int ROWS = 200;
  private static final int[] CLASS_OF = IntStream.range(0, ROWS).map(i -> i % 2).toArray();

  private static float[] leaning(long seed, double lean) {
    SplittableRandom random = new SplittableRandom(seed);
    float[] column = new float[ROWS];
    for (int i = 0; i < ROWS; i++) {
      column[i] = (float) (random.nextGaussian() + lean * CLASS_OF[i]);
    }
    return column;
  }

  private static Examples examples(float[]... columns) {
    return Examples.of(
        IntStream.range(0, columns.length).mapToObj(f -> "f" + f).toList(),
        columns,
        List.of("a", "b"),
        CLASS_OF);
  }

  @Test
  void ofTwoThatSayTheSameTheBetterOneStays() {
    float[] good = leaning(1, 2);
    float[] noisy = leaning(1, 2);
    SplittableRandom random = new SplittableRandom(9);
    for (int i = 0; i < ROWS; i++) {
      noisy[i] += (float) (0.4 * random.nextGaussian());
    }
    float[] other = leaning(2, 0.1);
    assertThat(examples(noisy, good, other).thinned(0.9).features()).containsExactly("f1", "f2");
    assertThat(examples(noisy, good, other).thinned(1).features())
        .containsExactly("f0", "f1", "f2");
  }

  @Test
  void anOrderTurnedRoundSaysTheSame() {
    float[] one = leaning(3, 1);
    float[] turned = new float[ROWS];
    for (int i = 0; i < ROWS; i++) {
      turned[i] = (float) -Math.exp(one[i]);
    }
    assertThat(examples(one, turned).thinned(0.99).features()).hasSize(1);
  }

  @Test
  void whatIsIndependentStays() {
    Examples examples = examples(leaning(4, 0), leaning(5, 0), leaning(6, 0), leaning(7, 0));
    assertThat(examples.thinned(0.5).features()).hasSize(4);
  }

  @Test
  void valuesThatAreNotKnownAndConstantsDoNoHarm() {
    float[] holes = leaning(8, 1);
    for (int i = 0; i < ROWS; i += 3) {
      holes[i] = Float.NaN;
    }
    float[] none = new float[ROWS];
    java.util.Arrays.fill(none, Float.NaN);
    assertThat(
            examples(leaning(9, 1), holes, none, new float[ROWS]).thinned(0.95).features())
        .contains("f0", "f1");
  }

  @Test
  void theCorrelationIsThatOfRanks() {
    // d = ranks apart; 1 - 6 sum d^2 / (n (n^2 - 1)) = 1 - 6 * 4 / (5 * 24) = 0.8
    float[] one = {1, 2, 3, 4, 5};
    float[] other = {20, 10, 30, 50, 40};
    Examples examples = Examples.of(
        List.of("one", "other"), new float[][] {one, other}, List.of("a", "b"), new int[] {
          0, 0, 1, 1, 1
        });
    assertThat(examples.thinned(0.79).features()).hasSize(1);
    assertThat(examples.thinned(0.81).features()).hasSize(2);
  }
}
