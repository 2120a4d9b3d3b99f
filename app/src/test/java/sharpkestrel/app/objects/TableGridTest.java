package sharpkestrel.app.objects;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.Comparator;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class TableGridTest {

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4})
  void rowsAreInTheOrderOfAStableSortWithMissingNumbersLast(long seed) {
    Random random = new Random(seed);
    double[] values = new double[3_000];
    for (int i = 0; i < values.length; i++) {
      values[i] = switch (random.nextInt(12)) {
        case 0 -> Double.NaN;
        case 1 -> 0.0;
        case 2 -> -random.nextInt(5);
        case 3 -> Double.NEGATIVE_INFINITY;
        default -> random.nextGaussian() * Math.pow(10, random.nextInt(9) - 4);
      };
    }

    for (boolean descending : new boolean[] {false, true}) {
      Comparator<Integer> byValue = Comparator.comparingDouble(i -> values[i]);
      int[] expected = IntStream.concat(
              IntStream.range(0, values.length)
                  .filter(i -> !Double.isNaN(values[i]))
                  .boxed()
                  .sorted(descending ? byValue.reversed() : byValue)
                  .mapToInt(Integer::intValue),
              IntStream.range(0, values.length).filter(i -> Double.isNaN(values[i])))
          .toArray();

      assertThat(TableGrid.sorted(values, descending)).isEqualTo(expected);
    }
  }

  @Test
  void aHundredThousandEqualNumbersKeepTheirOrder() {
    double[] values = new double[100_000];
    Arrays.fill(values, 7);

    int[] order = TableGrid.sorted(values, false);

    assertThat(order).isEqualTo(IntStream.range(0, values.length).toArray());
  }

  @ParameterizedTest
  @CsvSource({
    "0, 0",
    "3, 3",
    "0.5, 0.5000",
    "12.3456, 12.35",
    "8118.6, 8119",
    "10010.25, 10010",
    "-123456.7, -123457",
    "1e12, 1.000e+12",
    "1e-5, 1.000e-05",
    "NaN, \u2013"
  })
  void numbersHaveFourDigitsAndNoPowerOfTenBeforeABillion(double value, String text) {
    assertThat(TableGrid.text(value)).isEqualTo(text);
  }
}
