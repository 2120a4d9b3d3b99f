package sharpkestrel.extract.learner;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class ClassesApartTest {

  /** Two normal classes of one spread that are so many spreads apart in the first feature; others say nothing. */
  private static ClassesApart apart(double spreads, int each) {
    Random random = new Random(11);
    float[][] columns = new float[6][2 * each];
    int[] classOf = new int[2 * each];
    for (int i = 0; i < 2 * each; i++) {
      classOf[i] = i % 2;
      for (int f = 0; f < columns.length; f++) {
        columns[f][i] =
            (float) (10 + 3 * (random.nextGaussian() + (f == 0 ? spreads * classOf[i] : 0)));
      }
    }
    return ClassesApart.of(Examples.of(
        List.of("told", "b", "c", "d", "e", "f"), columns, List.of("one", "other"), classOf));
  }

  /** 2 (1 - exp(-d² / 8)) of Swain and Davis 1978 for normal classes of one spread. */
  @Test
  void normalClassesAreAsFarApartAsTheFormulaSays() {
    for (double spreads : new double[] {1, 2, 3, 5}) {
      ClassesApart found = apart(spreads, 4000);
      double expected = 2 * (1 - Math.exp(-spreads * spreads / 8));
      assertThat(found.distance()[0][1]).isEqualTo(expected, within(0.03));
      assertThat(found.by()[1][0].getFirst()).isEqualTo("told");
      assertThat(found.nearest(0)).isEqualTo(1);
    }
  }

  @Test
  void fewSamplesOfTheSameAreNotCalledApart() {
    assertThat(apart(0, 12).distance()[0][1]).isLessThan(1.2);
    assertThat(apart(0, 4000).distance()[0][1]).isLessThan(0.01);
  }
}
