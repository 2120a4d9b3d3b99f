package sharpkestrel.extract;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.expr.Cql2;
import sharpkestrel.expr.Table;

/** Tests of a winnow as text: in the panel, in run sheets, on the command line. */
class RangeTestTextTest {

  private static final List<String> FEATURES = List.of("area", "ndvi", "blue_red", "elongation");

  @ParameterizedTest
  @ValueSource(
      strings = {
        "ndvi < 0.2",
        "area > 25",
        "area >= 25 AND ndvi < 0.2",
        "area BETWEEN 25 AND 900 AND elongation <= 3.3",
        "blue_red > 0.85 AND blue_red < 1.07",
        "blue_red > 0.85 AND blue_red <= 1.07",
        "area BETWEEN 40 AND 40"
      })
  void whatWasTypedIsWhatIsShown(String text) {
    assertThat(RangeTest.toText(RangeTest.parse(text))).isEqualTo(text);
  }

  @Test
  void equalityAndMirroredComparisonsAreShownInTheirPlainForm() {
    assertThat(RangeTest.toText(RangeTest.parse("area = 40"))).isEqualTo("area BETWEEN 40 AND 40");
    assertThat(RangeTest.toText(RangeTest.parse("0.2 > ndvi"))).isEqualTo("ndvi < 0.2");
    assertThat(RangeTest.toText(RangeTest.parse("25 <= area"))).isEqualTo("area >= 25");
  }

  @Test
  void aTestWithoutEndsIsNoText() {
    RangeTest open = new RangeTest("area", Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY);

    assertThat(open.toText()).isEmpty();
    assertThat(RangeTest.toText(List.of(open, new RangeTest("ndvi", 0, 1))))
        .isEqualTo("ndvi BETWEEN 0 AND 1");
  }

  private static RangeTest random(Random random, String feature) {
    double a = Math.rint(random.nextGaussian() * 1e4) / Math.pow(10, random.nextInt(7)) + 0.0;
    double b = random.nextBoolean() ? random.nextGaussian() : a + random.nextInt(100);
    double low = Math.min(a, b);
    double high = Math.max(a, b);
    return switch (random.nextInt(5)) {
      case 0 -> new RangeTest(feature, low, Double.POSITIVE_INFINITY);
      case 1 -> new RangeTest(feature, Double.NEGATIVE_INFINITY, high);
      case 2 -> new RangeTest(feature, Math.nextUp(low), high);
      case 3 -> new RangeTest(feature, low, Math.max(low, Math.nextDown(high)));
      default -> new RangeTest(feature, low, high);
    };
  }

  /** Whatever a handle was dragged to, the run sheet must keep the very same objects. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6})
  void everyStackReadsBackToTheLastBit(long seed) {
    Random random = new Random(seed);
    for (int i = 0; i < 400; i++) {
      List<RangeTest> stack = new ArrayList<>();
      for (String feature : FEATURES) {
        if (random.nextBoolean()) {
          stack.add(random(random, feature));
        }
      }
      String text = RangeTest.toText(stack);

      assertThat(RangeTest.parse(text)).as(text).isEqualTo(stack);
    }
  }

  /** A stack of ranges and the filter language must agree on who passes. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3})
  void aStackSelectsWhatItsTextSelectsAsAFilter(long seed) {
    Random random = new Random(seed);
    int rows = 500;
    List<Table.Column> columns = new ArrayList<>();
    for (String feature : FEATURES) {
      double[] values = random.doubles(rows, -20, 20).map(Math::rint).toArray();
      values[random.nextInt(rows)] = Double.NaN;
      columns.add(new Table.Column(feature, feature, "", values));
    }
    Table table = new Table(rows, columns);
    List<RangeTest> stack = RangeTest.parse(
        "area >= -7 AND ndvi < 12 AND blue_red BETWEEN -15 AND 4 AND elongation > -18");

    double[] filter = Cql2.parseTest(RangeTest.toText(stack)).evaluate(table);

    int passing = 0;
    for (int i = 0; i < rows; i++) {
      boolean passes = true;
      for (RangeTest test : stack) {
        passes &= test.passes(table.values(test.feature())[i]);
      }
      passing += passes ? 1 : 0;
      assertThat(filter[i] == 1).as("row %d", i).isEqualTo(passes);
    }
    assertThat(passing).isBetween(1, rows - 1);
  }
}
