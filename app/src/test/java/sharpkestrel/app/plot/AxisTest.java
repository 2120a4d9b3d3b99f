package sharpkestrel.app.plot;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class AxisTest {

  private static Axis even(double from, double to) {
    return new Axis(from, to, 10, 210, false, "m");
  }

  @ParameterizedTest
  @CsvSource({
    "0, 1, 5, 0 0.2 0.4 0.6 0.8 1",
    "-3, 17, 4, 0 5 10 15",
    "1023, 1025, 2, 1023 1024 1025"
  })
  void ticksStandAtRoundNumbers(double from, double to, int most, String expected) {
    double[] ticks = even(from, to).ticks(most);

    double[] wanted =
        Arrays.stream(expected.split(" ")).mapToDouble(Double::parseDouble).toArray();
    assertThat(ticks).containsExactly(wanted, within(1e-9));
  }

  @Test
  void aLogarithmicAxisHasOnesTwosAndFivesOrTensAlone() {
    Axis axis = new Axis(3, 400, 0, 100, true, "m²");

    assertThat(axis.ticks(10))
        .containsExactly(new double[] {5, 10, 20, 50, 100, 200}, within(1e-9));
    assertThat(axis.ticks(3)).containsExactly(new double[] {10, 100}, within(1e-9));
  }

  @ParameterizedTest
  @ValueSource(booleans = {false, true})
  void aValueIsFoundAgainWhereItLies(boolean logarithmic) {
    Random random = new Random(5);
    Axis axis = new Axis(0.01, 4000, 200, 20, logarithmic, "");

    for (int i = 0; i < 100; i++) {
      double value = 0.01 + 3999 * random.nextDouble();
      assertThat(axis.value(axis.at(value))).isCloseTo(value, within(1e-6 * value + 1e-9));
    }
    assertThat(axis.value(500)).isEqualTo(0.01);
    assertThat(axis.value(-5)).isEqualTo(4000);
  }

  @Test
  void zoomingKeepsTheValueAtTheCursorAndNeverLeavesTheWhole() {
    Axis whole = even(0, 100);
    double cursor = whole.at(30);

    Axis near = whole.zoomed(cursor, 0.25, whole);

    assertThat(near.value(cursor)).isCloseTo(30, within(1e-9));
    assertThat(near.to() - near.from()).isCloseTo(25, within(1e-9));
    assertThat(near.zoomed(near.at(near.from()), 100, whole)).isEqualTo(whole);
    assertThat(near.zoomed(0, 2, whole).from()).isGreaterThanOrEqualTo(0);
  }

  @ParameterizedTest
  @CsvSource({"0.2, 1, 5, 0.2", "20000, 50000, 4, 20 k", "2000000, 5000000, 4, 2 M", "5, 20, 4, 5"})
  void textsHaveTheDigitsThatTellTicksApart(double value, double to, int most, String expected) {
    assertThat(even(0, to).text(value, most)).isEqualTo(expected);
  }

  @Test
  void whatHasNoRangeIsShownAboutItsValueAndWhatHasNoneAsAUnit() {
    Axis constant = Axis.around(7, 7, 0.1, 0, 10, "");
    assertThat(constant.holds(7)).isTrue();
    assertThat(Axis.around(Double.NaN, Double.NaN, 0.1, 0, 10, "").to()).isEqualTo(1);
    assertThatThrownBy(() -> even(2, 2)).hasMessageContaining("2.0");
    assertThatThrownBy(() -> new Axis(0, 2, 0, 1, true, "")).hasMessageContaining("0.0");
  }
}
