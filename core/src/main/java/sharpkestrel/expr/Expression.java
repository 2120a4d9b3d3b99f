package sharpkestrel.expr;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.Function;

/** A parsed formula. Truth is 1, falsehood 0, and NaN (no value) is unknown, as in CQL2's three-valued logic. */
public sealed interface Expression {

  record Number(double value) implements Expression {}

  record Text(String value) implements Expression {}

  record Property(String name) implements Expression {}

  /** A function by its name; whoever evaluates a formula says before what it gives ({@link #replacing}). */
  record Call(String name, List<Expression> arguments) implements Expression {}

  record Negate(Expression operand) implements Expression {}

  record Arithmetic(char operator, Expression left, Expression right) implements Expression {}

  record Comparison(String operator, Expression left, Expression right) implements Expression {}

  record Between(Expression value, Expression low, Expression high) implements Expression {}

  record In(Expression value, List<Expression> list) implements Expression {}

  record IsNull(Expression value) implements Expression {}

  record Not(Expression operand) implements Expression {}

  record And(Expression left, Expression right) implements Expression {}

  record Or(Expression left, Expression right) implements Expression {}

  /** Whether it yields a truth value rather than a number. */
  default boolean isTruth() {
    return switch (this) {
      case Number n -> false;
      case Text t -> false;
      case Property p -> false;
      case Call c -> false;
      case Negate n -> false;
      case Arithmetic a -> false;
      case Comparison c -> true;
      case Between b -> true;
      case In i -> true;
      case IsNull n -> true;
      case Not n -> true;
      case And a -> true;
      case Or o -> true;
    };
  }

  /** The names it refers to, in the order in which they first stand. */
  default Set<String> names() {
    Set<String> names = new LinkedHashSet<>();
    collect(this, names);
    return names;
  }

  private static void collect(Expression e, Set<String> names) {
    switch (e) {
      case Number n -> {}
      case Text t -> {}
      case Property p -> names.add(p.name());
      case Call c -> c.arguments().forEach(argument -> collect(argument, names));
      case Negate n -> collect(n.operand(), names);
      case Arithmetic a -> collect(names, a.left(), a.right());
      case Comparison c -> collect(names, c.left(), c.right());
      case Between b -> collect(names, b.value(), b.low(), b.high());
      case In i -> {
        collect(i.value(), names);
        i.list().forEach(item -> collect(item, names));
      }
      case IsNull n -> collect(n.value(), names);
      case Not n -> collect(n.operand(), names);
      case And a -> collect(names, a.left(), a.right());
      case Or o -> collect(names, o.left(), o.right());
    }
  }

  private static void collect(Set<String> names, Expression... parts) {
    for (Expression part : parts) {
      collect(part, names);
    }
  }

  /** CQL2 text that parses to the same expression. */
  default String toText() {
    return switch (this) {
      case Number n -> Cql2.number(n.value());
      case Text t -> "'" + t.value().replace("'", "''") + "'";
      case Property p -> name(p.name());
      case Call c ->
        name(c.name()) + "("
            + String.join(", ", c.arguments().stream().map(Expression::operand).toList())
            + ")";
      case Negate n -> "-" + grouped(n.operand());
      case Arithmetic a -> grouped(a.left()) + " " + a.operator() + " " + grouped(a.right());
      case Comparison c -> operand(c.left()) + " " + c.operator() + " " + operand(c.right());
      case Between b ->
        operand(b.value()) + " BETWEEN " + operand(b.low()) + " AND " + operand(b.high());
      case In i ->
        operand(i.value())
            + " IN ("
            + String.join(", ", i.list().stream().map(Expression::operand).toList())
            + ")";
      case IsNull n -> operand(n.value()) + " IS NULL";
      case Not n -> "NOT (" + n.operand().toText() + ")";
      case And a -> either(a.left()) + " AND " + either(a.right());
      case Or o -> o.left().toText() + " OR " + o.right().toText();
    };
  }

  /** A name that could be read as something else stands in quotation marks. */
  private static String name(String name) {
    boolean plain = !name.isEmpty()
        && !Character.isDigit(name.charAt(0))
        && name.chars().allMatch(Character::isJavaIdentifierPart)
        && !Cql2.WORDS.contains(name.toUpperCase(Locale.ROOT));
    return plain ? name : '"' + name.replace("\"", "\"\"") + '"';
  }

  /** A side of a comparison: what is a test itself stands in brackets. */
  private static String operand(Expression e) {
    return e.isTruth() ? "(" + e.toText() + ")" : e.toText();
  }

  private static String grouped(Expression e) {
    return e instanceof Number || e instanceof Text || e instanceof Property || e instanceof Call
        ? e.toText()
        : "(" + e.toText() + ")";
  }

  private static String either(Expression e) {
    return e instanceof Or ? "(" + e.toText() + ")" : e.toText();
  }

  /** The same with something else for each function that it calls. */
  default Expression replacing(Function<Call, Expression> with) {
    return switch (this) {
      case Number n -> n;
      case Text t -> t;
      case Property p -> p;
      case Call c -> with.apply(c);
      case Negate n -> new Negate(n.operand().replacing(with));
      case Arithmetic a ->
        new Arithmetic(a.operator(), a.left().replacing(with), a.right().replacing(with));
      case Comparison c ->
        new Comparison(c.operator(), c.left().replacing(with), c.right().replacing(with));
      case Between b ->
        new Between(b.value().replacing(with), b.low().replacing(with), b.high().replacing(with));
      case In i ->
        new In(
            i.value().replacing(with),
            i.list().stream().map(item -> item.replacing(with)).toList());
      case IsNull n -> new IsNull(n.value().replacing(with));
      case Not n -> new Not(n.operand().replacing(with));
      case And a -> new And(a.left().replacing(with), a.right().replacing(with));
      case Or o -> new Or(o.left().replacing(with), o.right().replacing(with));
    };
  }

  /** Evaluates over the rows of a table. */
  default double[] evaluate(Table table) {
    return Evaluator.evaluate(this, table);
  }
}
