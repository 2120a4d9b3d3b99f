package sharpkestrel.extract;

import java.util.ArrayList;
import java.util.List;
import sharpkestrel.expr.Cql2;
import sharpkestrel.expr.Expression;
import sharpkestrel.expr.ExpressionException;

/**
 * One test of a winnow: a feature must lie between two numbers, ends included.
 *
 * @param low negative infinity for no lower end
 * @param high positive infinity for no upper end
 */
public record RangeTest(String feature, double low, double high) {

  /**
   * Reads a stack of tests from CQL2 text: comparisons of a feature with a number, and BETWEEN, joined by AND.
   * Comparisons with {@code <} and {@code >} move the end by the least step a double can.
   *
   * @throws ExpressionException for text that is not such a stack
   */
  public static List<RangeTest> parse(String text) {
    List<RangeTest> tests = new ArrayList<>();
    if (!text.isBlank()) {
      collect(Cql2.parseTest(text), tests);
    }
    return tests;
  }

  private static void collect(Expression expression, List<RangeTest> tests) {
    switch (expression) {
      case Expression.And and -> {
        collect(and.left(), tests);
        collect(and.right(), tests);
      }
      case Expression.Between(
          Expression.Property p,
          Expression.Number low,
          Expression.Number high) -> add(tests, new RangeTest(p.name(), low.value(), high.value()));
      case Expression.Comparison(String op, Expression.Property p, Expression.Number n) ->
        add(tests, compared(p.name(), op, n.value()));
      case Expression.Comparison(String op, Expression.Number n, Expression.Property p) ->
        add(tests, compared(p.name(), mirrored(op), n.value()));
      default ->
        throw new ExpressionException("'" + expression.toText()
            + "' is not a test of one feature against numbers. A winnow is tests joined"
            + " by AND, e.g. area BETWEEN 25 AND 900 AND ndvi < 0.2.");
    }
  }

  /** Two tests of one feature are one. */
  private static void add(List<RangeTest> tests, RangeTest test) {
    for (int i = 0; i < tests.size(); i++) {
      RangeTest old = tests.get(i);
      if (old.feature.equals(test.feature)) {
        tests.set(
            i,
            new RangeTest(old.feature, Math.max(old.low, test.low), Math.min(old.high, test.high)));
        return;
      }
    }
    tests.add(test);
  }

  private static RangeTest compared(String feature, String operator, double value) {
    return switch (operator) {
      case "<" -> new RangeTest(feature, Double.NEGATIVE_INFINITY, Math.nextDown(value));
      case "<=" -> new RangeTest(feature, Double.NEGATIVE_INFINITY, value);
      case ">" -> new RangeTest(feature, Math.nextUp(value), Double.POSITIVE_INFINITY);
      case ">=" -> new RangeTest(feature, value, Double.POSITIVE_INFINITY);
      case "=" -> new RangeTest(feature, value, value);
      default ->
        throw new ExpressionException(
            "A winnow cannot test for inequality: " + feature + " <> " + Cql2.number(value) + ".");
    };
  }

  private static String mirrored(String operator) {
    return switch (operator) {
      case "<" -> ">";
      case "<=" -> ">=";
      case ">" -> "<";
      case ">=" -> "<=";
      default -> operator;
    };
  }

  public boolean passes(double value) {
    return value >= low && value <= high;
  }

  /** Text that reads back as this test; {@code <} and {@code >} where an end came from them. */
  public String toText() {
    boolean from = low != Double.NEGATIVE_INFINITY;
    boolean to = high != Double.POSITIVE_INFINITY;
    boolean above = from && isShorter(Math.nextDown(low), low);
    boolean below = to && isShorter(Math.nextUp(high), high);
    if (from && to && !above && !below) {
      return feature + " BETWEEN " + Cql2.number(low) + " AND " + Cql2.number(high);
    }
    List<String> ends = new ArrayList<>();
    if (from) {
      ends.add(
          feature + (above ? " > " + Cql2.number(Math.nextDown(low)) : " >= " + Cql2.number(low)));
    }
    if (to) {
      ends.add(
          feature + (below ? " < " + Cql2.number(Math.nextUp(high)) : " <= " + Cql2.number(high)));
    }
    return String.join(" AND ", ends);
  }

  /** Whether a number was meant rather than the one beside it, which takes all the digits of a double. */
  private static boolean isShorter(double meant, double beside) {
    return Cql2.number(meant).length() < Cql2.number(beside).length();
  }

  public static String toText(List<RangeTest> tests) {
    return String.join(
        " AND ", tests.stream().map(RangeTest::toText).filter(t -> !t.isEmpty()).toList());
  }
}
