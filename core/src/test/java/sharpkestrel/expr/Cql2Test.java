package sharpkestrel.expr;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class Cql2Test {

  private static final Table TABLE = new Table(
      4,
      List.of(
          new Table.Column("area", "Area", "m²", new double[] {10, 60, 100, Double.NaN}),
          new Table.Column("ndvi", "Index", "", new double[] {0.1, 0.3, -0.2, 0}),
          Table.Column.ofTexts("roof", "Roof", List.of("metal", "slate", "metal", "it's"))));

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "area > 50 | 0110",
        "area >= 60 AND ndvi < 0.2 | 0010",
        "area < 50 OR ndvi = 0.3 | 1100",
        "NOT area < 50 | 0110",
        "area BETWEEN 10 AND 60 | 1100",
        "area NOT BETWEEN 10 AND 60 | 0010",
        "area IN (10, 100) | 1010",
        "area IS NULL | 0001",
        "area IS NOT NULL | 1110",
        "2 * area - 20 > ndvi + 100 | 0010",
        "area / 10 ^ 2 < 0.8 | 1100",
        "(area < 50 OR area > 90) AND ndvi < 0 | 0010",
        "-ndvi > 0.1 | 0010",
        "roof = 'metal' AND area >= 25 | 0010",
        "roof <> 'metal' | 0101",
        "roof = 'it''s' | 0001"
      })
  void testsSelectTheRowsTheyDescribe(String text, String rows) {
    double[] truth = Cql2.parseTest(text).evaluate(TABLE);

    StringBuilder found = new StringBuilder();
    for (double each : truth) {
      found.append(each == 1 ? '1' : '0');
    }
    assertThat(found.toString()).isEqualTo(rows);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "area >",
        "area > 3 AND",
        "area BETWEEN 3",
        "(area > 3",
        "area > 3 ndvi",
        "AND > 3",
        "area NOT 3",
        "x = 'a"
      })
  void whatCannotBeReadIsShown(String text) {
    assertThatThrownBy(() -> Cql2.parseTest(text))
        .isInstanceOf(ExpressionException.class)
        .hasMessageContaining("expected");
  }

  @Test
  void anUnknownNameBringsThoseThereAre() {
    assertThatThrownBy(() -> Cql2.parse("hight > 3").evaluate(TABLE))
        .hasMessageContaining("'hight'")
        .hasMessageContaining("area, ndvi, roof");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "a + b * 2 < 3 AND c BETWEEN 1 AND 2 OR d IN (1, 2)",
        "NOT (a > 1) AND (b < 2 OR c = 3)",
        "roof = 'x'"
      })
  void textReadsBackAsTheSameExpression(String text) {
    Expression once = Cql2.parse(text);

    assertThat(Cql2.parse(once.toText())).isEqualTo(once);
  }

  @Test
  void aNumberIsNoTest() {
    assertThatThrownBy(() -> Cql2.parseTest("area * 2")).hasMessageContaining("not a test");
  }

  @Test
  void anUnknownNameIsAnsweredWithTheNearestFirst() {
    Table table = new Table(
        0,
        List.of(
            new Table.Column("area", "", "", new double[0]),
            new Table.Column("height_mean", "", "", new double[0]),
            new Table.Column("height_p90", "", "", new double[0]),
            new Table.Column("holes", "", "", new double[0]),
            new Table.Column("red_mean", "", "", new double[0])));

    assertThatThrownBy(() -> table.column("hight_p90"))
        .hasMessageContaining("Nearest: height_p90, height_mean")
        .hasMessageContaining("area");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "`\"window size\" > 3`",
        "`\"2nd\" + 1 > 3`",
        "`\"and\" = 1`",
        "`\"say \"\"so\"\"\" <> 'it''s'`",
        "`(a > 1) = (b > 2)`",
        "`(a OR b) IS NULL`",
        "`-(a + b) ^ 2 * -3 < 1`"
      })
  void whatIsWrittenOutIsReadAsTheSame(String text) {
    Expression read = Cql2.parse(text);

    assertThat(Cql2.parse(read.toText())).isEqualTo(read);
  }

  @Test
  void textsAreNoNumbers() {
    assertThatThrownBy(() -> Cql2.parse("roof + 1").evaluate(TABLE))
        .isInstanceOf(ExpressionException.class)
        .hasMessageContaining("'roof' holds texts");
    assertThatThrownBy(() -> Cql2.parse("roof > area").evaluate(TABLE))
        .isInstanceOf(ExpressionException.class);
  }

  @ParameterizedTest
  @CsvSource({"(, 1, )", "'NOT ', a > 1, ''", "-, area, ''", "'2 ^ ', 2, ''"})
  void aFormulaTooDeepIsRefusedAndDoesNotEndTheProgram(String open, String inner, String close) {
    String text = open.repeat(100_000) + inner + close.repeat(100_000);

    assertThatThrownBy(() -> Cql2.parse(text))
        .isInstanceOf(ExpressionException.class)
        .hasMessageContaining("within each other");
  }

  @Test
  void aFormulaTooLongIsRefusedAndTheLongestIsEvaluated() {
    assertThatThrownBy(() -> Cql2.parse("1" + " + 1".repeat(100_000)))
        .isInstanceOf(ExpressionException.class)
        .hasMessageContaining("500 operators");

    assertThat(Cql2.parse("1" + " + 1".repeat(500)).evaluate(TABLE)[0]).isEqualTo(501);
  }

  @Test
  void functionsAreReadAndWrittenAndNothingWithoutWhoKnowsThem() {
    Expression test = Cql2.parse("border('it''s', area + 1) > 2 AND NOT (none() = 0)");

    assertThat(Cql2.parse(test.toText())).isEqualTo(test);
    assertThat(test.names()).containsExactly("area");
    assertThatThrownBy(() -> test.evaluate(TABLE)).hasMessageContaining("no function 'border'");
    assertThatThrownBy(() -> Cql2.parse("border('a'")).hasMessageContaining(", or )");
    Expression replaced = test.replacing(call -> new Expression.Number(3));
    assertThat(replaced.evaluate(TABLE)).containsExactly(1, 1, 1, 1);
  }
}
