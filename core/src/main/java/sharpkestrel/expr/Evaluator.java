package sharpkestrel.expr;

import java.util.Arrays;
import java.util.function.DoubleBinaryOperator;

/** Evaluates a formula column by column. */
final class Evaluator {

  private Evaluator() {}

  static double[] evaluate(Expression expression, Table table) {
    return switch (expression) {
      case Expression.Number n -> {
        double[] all = new double[table.rows()];
        Arrays.fill(all, n.value());
        yield all;
      }
      case Expression.Text t ->
        throw new ExpressionException(
            "The text '" + t.value() + "' can only be compared with a column of texts.");
      case Expression.Property p -> numbers(table.column(p.name()));
      case Expression.Call c ->
        throw new ExpressionException("There is no function '" + c.name()
            + "' here; formulas are made of features, numbers and + - * / ^.");
      case Expression.Negate n -> {
        double[] a = evaluate(n.operand(), table).clone();
        for (int i = 0; i < a.length; i++) {
          a[i] = -a[i];
        }
        yield a;
      }
      case Expression.Arithmetic a -> combine(a.left(), a.right(), table, arithmetic(a.operator()));
      case Expression.Comparison c
      when c.right() instanceof Expression.Text text ->
        compareText(c.left(), c.operator(), text.value(), table);
      case Expression.Comparison c -> combine(c.left(), c.right(), table, comparison(c.operator()));
      case Expression.Between b ->
        evaluate(
            new Expression.And(
                new Expression.Comparison(">=", b.value(), b.low()),
                new Expression.Comparison("<=", b.value(), b.high())),
            table);
      case Expression.In in -> {
        double[] any = new double[table.rows()];
        for (Expression item : in.list()) {
          any = combine(
              any,
              evaluate(new Expression.Comparison("=", in.value(), item), table),
              Evaluator::or);
        }
        yield any;
      }
      case Expression.IsNull n -> {
        double[] a = n.value() instanceof Expression.Property p
            ? table.values(p.name())
            : evaluate(n.value(), table);
        double[] result = new double[a.length];
        Arrays.setAll(result, i -> Double.isNaN(a[i]) ? 1 : 0);
        yield result;
      }
      case Expression.Not n -> {
        double[] a = evaluate(n.operand(), table);
        double[] result = new double[a.length];
        Arrays.setAll(result, i -> 1 - a[i]);
        yield result;
      }
      case Expression.And a -> combine(a.left(), a.right(), table, Evaluator::and);
      case Expression.Or o -> combine(o.left(), o.right(), table, Evaluator::or);
    };
  }

  private static double[] numbers(Table.Column column) {
    if (column.isText()) {
      throw new ExpressionException("'" + column.name()
          + "' holds texts, which are no numbers. Compare it with a text, e.g. " + column.name()
          + " = '"
          + column.categories().getFirst() + "'.");
    }
    return column.values();
  }

  private static double[] compareText(Expression left, String operator, String text, Table table) {
    if (!(left instanceof Expression.Property property)
        || !table.column(property.name()).isText()) {
      throw new ExpressionException(
          "The text '" + text + "' can only be compared with a column of texts.");
    }
    if (!operator.equals("=") && !operator.equals("<>")) {
      throw new ExpressionException("Texts compare with = and <>, not with " + operator + ".");
    }
    Table.Column column = table.column(property.name());
    double place = column.categories().indexOf(text);
    double[] result = new double[table.rows()];
    for (int i = 0; i < result.length; i++) {
      double value = column.values()[i];
      boolean same = value == place;
      result[i] = Double.isNaN(value) ? Double.NaN : same == operator.equals("=") ? 1 : 0;
    }
    return result;
  }

  private static double and(double a, double b) {
    return a == 0 || b == 0 ? 0 : Double.isNaN(a) || Double.isNaN(b) ? Double.NaN : 1;
  }

  private static double or(double a, double b) {
    return a == 1 || b == 1 ? 1 : Double.isNaN(a) || Double.isNaN(b) ? Double.NaN : 0;
  }

  private static DoubleBinaryOperator arithmetic(char operator) {
    return switch (operator) {
      case '+' -> Double::sum;
      case '-' -> (a, b) -> a - b;
      case '*' -> (a, b) -> a * b;
      case '/' -> (a, b) -> b == 0 ? Double.NaN : a / b;
      case '^' -> Math::pow;
      default -> throw new IllegalStateException("operator " + operator);
    };
  }

  private static DoubleBinaryOperator comparison(String operator) {
    DoubleBinaryOperator plain = switch (operator) {
      case "=" -> (a, b) -> a == b ? 1 : 0;
      case "<>" -> (a, b) -> a != b ? 1 : 0;
      case "<" -> (a, b) -> a < b ? 1 : 0;
      case "<=" -> (a, b) -> a <= b ? 1 : 0;
      case ">" -> (a, b) -> a > b ? 1 : 0;
      case ">=" -> (a, b) -> a >= b ? 1 : 0;
      default -> throw new IllegalStateException("operator " + operator);
    };
    return (a, b) -> Double.isNaN(a) || Double.isNaN(b) ? Double.NaN : plain.applyAsDouble(a, b);
  }

  private static double[] combine(
      Expression left, Expression right, Table table, DoubleBinaryOperator operator) {
    return combine(evaluate(left, table), evaluate(right, table), operator);
  }

  private static double[] combine(double[] a, double[] b, DoubleBinaryOperator operator) {
    double[] result = new double[a.length];
    for (int i = 0; i < a.length; i++) {
      result[i] = operator.applyAsDouble(a[i], b[i]);
    }
    return result;
  }
}
