package sharpkestrel.objects;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.expr.ExpressionException;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.raster.Job;

class TellApartTest {

  private static final double[] HEIGHTS = {1, 2, 3, 4, 10, 11, 12, Double.NaN};
  private static final double[] WIDTHS = {5, 1, 5, 1, 5, 1, 5, 1};

  private static ObjectSet objects() {
    Table table = new Table(
        8,
        List.of(
            new Table.Column("width", "Width", "m", WIDTHS),
            new Table.Column("height", "Height", "m", HEIGHTS),
            Table.Column.ofTexts(
                "kind",
                "Kind",
                List.of("shed", "shed", "shed", "shed", "hall", "hall", "hall", "hall"))));
    int[] ids = new int[8];
    Arrays.setAll(ids, i -> i + 1);
    return new ObjectSet(null, new int[0], ids, table, new GroundSize(1, 1));
  }

  @Test
  void whatPartsBothSelectionsWhollyStandsFirstWithACutBetweenThem() {
    FeatureRanking ranking =
        new TellApart(objects(), "kind = 'hall'", Optional.of("kind = 'shed'")).run(Job.QUIET);

    assertThat(ranking.first()).isEqualTo(4);
    assertThat(ranking.second()).isEqualTo(4);
    assertThat(ranking.entries())
        .extracting(e -> e.feature().name())
        .containsExactly("height", "width");
    FeatureRanking.Entry best = ranking.entries().getFirst();
    assertThat(best.larger()).isEqualTo(1);
    assertThat(best.apart()).isEqualTo(1);
    assertThat(best.right()).isEqualTo(1);
    assertThat(best.cut()).isEqualTo(7);
    assertThat(ranking.entries().getLast().apart()).isZero();
    assertThat(ranking.toText()).contains("4 objects against 4").contains("above 7.000 m");
  }

  @Test
  void theSecondSelectionIsAllOthersUnlessItIsSaid() {
    FeatureRanking ranking =
        new TellApart(objects(), "height < 2.5", Optional.empty()).run(Job.QUIET);

    assertThat(ranking.first()).isEqualTo(2);
    assertThat(ranking.second()).isEqualTo(6);
    assertThat(ranking.entries().getFirst().larger()).isZero();
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3})
  void ranksAndCutsAreThoseOfAllPairsAndAllThresholds(long seed) {
    Random random = new Random(seed);
    int n = 300;
    double[] values = new double[n];
    boolean[] first = new boolean[n];
    boolean[] second = new boolean[n];
    for (int i = 0; i < n; i++) {
      first[i] = random.nextInt(3) == 0;
      second[i] = random.nextInt(2) == 0;
      // few distinct values, so that there are ties
      values[i] = random.nextInt(20) == 0
          ? Double.NaN
          : Math.rint(4 * random.nextGaussian() + (first[i] ? 3 : 0));
    }
    Table table = new Table(n, List.of(new Table.Column("x", "X", "", values)));

    FeatureRanking.Entry entry =
        FeatureRanking.of(table, first, second, Job.QUIET).entries().getFirst();

    double[] a = chosen(values, first);
    double[] b = chosen(values, second);
    double wins = 0;
    double best = 0.5;
    for (double x : a) {
      for (double y : b) {
        wins += x > y ? 1 : x == y ? 0.5 : 0;
      }
    }
    for (double cut = -30; cut < 30; cut += 0.5) {
      best = Math.max(best, right(a, b, cut));
    }
    assertThat(entry.larger()).isCloseTo(wins / a.length / b.length, within(1e-12));
    assertThat(entry.right()).isCloseTo(best, within(1e-12));
    assertThat(right(a, b, entry.cut())).isCloseTo(best, within(1e-12));
  }

  private static double[] chosen(double[] values, boolean[] rows) {
    double[] chosen = new double[values.length];
    int n = 0;
    for (int i = 0; i < rows.length; i++) {
      if (rows[i] && !Double.isNaN(values[i])) {
        chosen[n++] = values[i];
      }
    }
    return Arrays.copyOf(chosen, n);
  }

  /** Mean share on their side of a threshold, whichever side is whose. */
  private static double right(double[] a, double[] b, double cut) {
    double above = Arrays.stream(a).filter(v -> v > cut).count() / (double) a.length;
    double below = Arrays.stream(b).filter(v -> v <= cut).count() / (double) b.length;
    return Math.max((above + below) / 2, 1 - (above + below) / 2);
  }

  @Test
  void aFeatureWithoutValuesInOneSelectionIsChance() {
    boolean[] first = new boolean[8];
    first[7] = true;

    FeatureRanking ranking =
        FeatureRanking.of(objects().table(), first, Selection.not(first), Job.QUIET);

    FeatureRanking.Entry height = ranking.entries().getLast();
    assertThat(height.feature().name()).isEqualTo("height");
    assertThat(height.apart()).isZero();
    assertThat(height.cut()).isNaN();
    assertThat(ranking.toJson().path("features").path(1).path("cut").isNull()).isTrue();
  }

  @Test
  void anEmptySelectionIsSaidWithBothCounts() {
    TellApart step = new TellApart(objects(), "height > 99", Optional.empty());

    assertThatThrownBy(() -> step.run(Job.QUIET))
        .isInstanceOf(ExpressionException.class)
        .hasMessageContaining("Of 8 objects the first selection has 0 and the second 8");
  }

  @Test
  void anUnknownNameIsSaidWithThoseNearest() {
    TellApart step = new TellApart(objects(), "heigth > 9", Optional.empty());

    assertThatThrownBy(() -> step.run(Job.QUIET))
        .isInstanceOf(ExpressionException.class)
        .hasMessageContaining("heigth")
        .hasMessageContaining("height");
  }
}
