package sharpkestrel.extract.learner;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.SplittableRandom;
import java.util.stream.IntStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import sharpkestrel.expr.Table;
import sharpkestrel.raster.Job;

class ReasonsTest {

  private static final int N = 200;

  /** Two classes that differ in light only; size and warmth say nothing. */
  private static Table table() {
    SplittableRandom random = new SplittableRandom(3);
    double[] light = new double[N];
    double[] size = new double[N];
    double[] warmth = new double[N];
    for (int i = 0; i < N; i++) {
      light[i] = i % 2 + 0.6 * random.nextDouble();
      size[i] = 100 * random.nextDouble();
      warmth[i] = i == 7 ? Double.NaN : random.nextDouble();
    }
    return new Table(
        N,
        List.of(
            new Table.Column("light", "Light", "", light),
            new Table.Column("size", "Size", "m²", size),
            new Table.Column("warmth", "Warmth", "", warmth)));
  }

  @ParameterizedTest
  @EnumSource(Learner.class)
  void whatTellsTheClassesApartIsNamedFirst(Learner method) {
    Table table = table();
    float[][] columns = new float[3][N];
    int[] classOf = new int[N];
    for (int i = 0; i < N; i++) {
      classOf[i] = i % 2;
      for (int f = 0; f < 3; f++) {
        columns[f][i] = (float) table.columns().get(f).values()[i];
      }
    }
    Classifier classifier = Classifier.learn(
        Examples.of(
            List.of("light", "size", "warmth"), columns, List.of("dark", "bright"), classOf),
        method,
        "",
        1,
        false,
        Job.QUIET);
    int[] samples = IntStream.range(0, 40).toArray();

    Reasons bright = Reasons.of(classifier, table, 101, 1, samples);
    Reasons asDark = Reasons.of(classifier, table, 101, 0, samples);

    assertThat(bright.shares()[1]).isGreaterThan(0.8f);
    assertThat(bright.spoken().getFirst().feature()).isEqualTo("light");
    assertThat(bright.spoken().getFirst().value())
        .isEqualTo(table.values("light")[101], within(1e-6));
    assertThat(bright.spoken().getFirst().weight()).isPositive();
    assertThat(asDark.spoken().getFirst().weight()).isNegative();
    assertThat(bright.alike()).hasSize(3).allMatch(row -> row < 40);
    // a sample is most like itself
    assertThat(Reasons.of(classifier, table, 12, 0, samples).alike().getFirst()).isEqualTo(12);
  }
}
