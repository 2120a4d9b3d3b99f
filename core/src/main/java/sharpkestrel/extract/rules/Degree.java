package sharpkestrel.extract.rules;

import java.util.Arrays;
import java.util.function.DoubleBinaryOperator;
import sharpkestrel.expr.Expression;
import sharpkestrel.expr.Table;

/**
 * How clearly a test holds: 0 far from it, a half where it just turns, 1 far inside (after Zadeh 1965, Information and Control 8(3): AND is
 * the least, OR the greatest, NOT the rest to one). A comparison is graded over a tenth of the middle 90 % of what is compared; texts,
 * lists and nothing hold or do not.
 */
final class Degree {

  private static final double TAIL = 0.05;
  private static final double UNIT = 0.1;

  private Degree() {}

  /** For each row; at least a half where the test holds, less or equal where it does not, 0 where that is not known. */
  static double[] of(Expression test, Table table) {
    double[] holds = test.evaluate(table);
    double[] degrees = graded(test, table);
    for (int i = 0; i < degrees.length; i++) {
      degrees[i] = Double.isNaN(holds[i])
          ? 0
          : holds[i] == 1 ? Math.max(0.5, degrees[i]) : Math.min(0.5, degrees[i]);
    }
    return degrees;
  }

  private static double[] graded(Expression test, Table table) {
    return switch (test) {
      case Expression.And a -> both(graded(a.left(), table), graded(a.right(), table), Math::min);
      case Expression.Or o -> both(graded(o.left(), table), graded(o.right(), table), Math::max);
      case Expression.Not n ->
        Arrays.stream(graded(n.operand(), table)).map(d -> 1 - d).toArray();
      case Expression.Between b ->
        both(above(b.value(), b.low(), table), above(b.high(), b.value(), table), Math::min);
      case Expression.Comparison c when c.right() instanceof Expression.Text -> crisp(test, table);
      case Expression.Comparison c ->
        switch (c.operator()) {
          case ">", ">=" -> above(c.left(), c.right(), table);
          case "<", "<=" -> above(c.right(), c.left(), table);
          default -> crisp(test, table);
        };
      default -> crisp(test, table);
    };
  }

  private static double[] crisp(Expression test, Table table) {
    return Arrays.stream(test.evaluate(table)).map(v -> v == 1 ? 1 : 0).toArray();
  }

  private static double[] both(double[] a, double[] b, DoubleBinaryOperator how) {
    double[] out = new double[a.length];
    Arrays.setAll(out, i -> how.applyAsDouble(a[i], b[i]));
    return out;
  }

  /** How clearly one is above the other. */
  private static double[] above(Expression more, Expression less, Table table) {
    double[] off = both(more.evaluate(table), less.evaluate(table), (a, b) -> a - b);
    double[] sorted = Arrays.stream(off)
        .filter(v -> !Double.isNaN(v) && !Double.isInfinite(v))
        .sorted()
        .toArray();
    double range = sorted.length == 0
        ? 0
        : sorted[(int) ((1 - TAIL) * (sorted.length - 1))]
            - sorted[(int) (TAIL * (sorted.length - 1))];
    double unit = range > 0 ? UNIT * range : 1;
    return Arrays.stream(off)
        .map(v -> Double.isNaN(v) ? 0 : Math.clamp(0.5 + 0.5 * v / unit, 0, 1))
        .toArray();
  }
}
