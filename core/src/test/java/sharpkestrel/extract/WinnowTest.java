package sharpkestrel.extract;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.expr.ExpressionException;
import sharpkestrel.expr.Table;

class WinnowTest {

  private static Table table(double... values) {
    return new Table(values.length, List.of(new Table.Column("size", "Size", "m", values)));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "size > 3            | 3.0000001 | 3",
        "size >= 3           | 3         | 2.9999999",
        "size < 3            | 2.9999999 | 3",
        "3 >= size           | 3         | 3.0000001",
        "size BETWEEN 2 AND 4 | 4        | 4.0000001",
        "size = 3            | 3         | 3.0000001",
      })
  void aTestPassesUpToItsEnds(String text, double passes, double fails) {
    RangeTest test = RangeTest.parse(text).get(0);

    assertThat(test.passes(passes)).isTrue();
    assertThat(test.passes(fails)).isFalse();
    assertThat(test.passes(Double.NaN)).isFalse();
  }

  @Test
  void twoTestsOfOneFeatureAreTheirCommonRange() {
    assertThat(RangeTest.parse("size > 2 AND area < 9 AND size BETWEEN 1 AND 5 AND size <= 4"))
        .containsExactly(
            new RangeTest("size", Math.nextUp(2.0), 4),
            new RangeTest("area", Double.NEGATIVE_INFINITY, Math.nextDown(9.0)));
  }

  @ParameterizedTest
  @ValueSource(strings = {"size > 3 OR size < 1", "size > area", "NOT size > 3", "size <> 3"})
  void whatIsNoStackOfRangesIsRefusedWithAnExample(String text) {
    assertThatThrownBy(() -> RangeTest.parse(text)).isInstanceOf(ExpressionException.class);
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3})
  void aScoreIsAHalfOnAnEndAndFallsAcrossIt(long seed) {
    Random random = new Random(seed);
    double[] values = IntStream.range(0, 1001).mapToDouble(i -> i / 10.0).toArray();
    double low = 20 + 20 * random.nextDouble();
    double[] withEnds = values.clone();
    withEnds[0] = low;

    double[] scores = WinnowScores.of(
        table(withEnds), List.of(new RangeTest("size", low, Double.POSITIVE_INFINITY)));

    assertThat(scores[0]).isCloseTo(0.5, within(1e-9));
    for (int i = 2; i < values.length; i++) {
      assertThat(scores[i]).isGreaterThanOrEqualTo(scores[i - 1]);
      assertThat(scores[i] >= 0.5).isEqualTo(values[i] >= low);
    }
    // A tenth of the middle nine tenths, 9 of 90, takes a score from a half to 1.
    int far = (int) Math.round(10 * (low + 9.1));
    assertThat(scores[far]).isCloseTo(1, within(1e-9));
  }

  @Test
  void theLeastOfTheTestsCounts() {
    Table table = new Table(
        3,
        List.of(
            new Table.Column("a", "A", "", new double[] {0, 50, 100}),
            new Table.Column("b", "B", "", new double[] {0, Double.NaN, 100})));

    double[] scores = WinnowScores.of(table, RangeTest.parse("a >= 10 AND b BETWEEN -100 AND 300"));

    assertThat(scores[0]).isLessThan(0.5);
    assertThat(scores[1]).isZero();
    assertThat(scores[2]).isEqualTo(1);
  }

  @Test
  void quantilesAreOfTheNumbersOnly() {
    Table table = table(5, Double.NaN, 1, 3, 2, 4);

    assertThat(table.quantile("size", 0)).isEqualTo(1);
    assertThat(table.quantile("size", 0.5)).isEqualTo(3);
    assertThat(table.quantile("size", 1)).isEqualTo(5);
    assertThat(table(Double.NaN).quantile("size", 0.5)).isNaN();
  }
}
