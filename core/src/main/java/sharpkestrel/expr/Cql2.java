package sharpkestrel.expr;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.Supplier;

/**
 * Reads CQL2 text (OGC 21-065r2, clause 7 and annex B) over numbers: comparisons, BETWEEN, IN, IS NULL, NOT, AND, OR,
 * arithmetic and functions. A recursive descent with one method for each level of precedence.
 */
public final class Cql2 {

  /** Words that no name stands for unquoted. */
  static final Set<String> WORDS = Set.of("AND", "OR", "NOT", "BETWEEN", "IN", "IS", "NULL");

  /** Brackets, signs and NOTs within each other, at the most. */
  private static final int DEEPEST = 100;

  /** Operators in one formula, at the most: as many levels may the formula have, and whoever evaluates it go down. */
  private static final int MOST_OPERATORS = 500;

  private final String text;
  private int at;
  private int depth;
  private int operators;

  private Cql2(String text) {
    this.text = text;
  }

  /**
   * @throws ExpressionException that shows where reading stopped
   */
  public static Expression parse(String text) {
    Cql2 parser = new Cql2(text);
    Expression expression = parser.disjunction();
    parser.skipSpace();
    if (parser.at < text.length()) {
      throw parser.expected("the end, AND or OR");
    }
    return expression;
  }

  /**
   * Parses a formula that must be a test.
   *
   * @throws ExpressionException where it yields a number
   */
  public static Expression parseTest(String text) {
    Expression expression = parse(text);
    if (!expression.isTruth()) {
      throw new ExpressionException("'" + text
          + "' is a number, not a test; compare it with something, e.g. " + text + " > 0.5");
    }
    return expression;
  }

  /** A number as the shortest text that reads back the same; with an exponent only where it is very small or large. */
  public static String number(double value) {
    double size = Math.abs(value);
    if (value == Math.rint(value) && size < 1e15) {
      return Long.toString((long) value);
    }
    return size > 1e-9 && size < 1e15
        ? new BigDecimal(Double.toString(value)).stripTrailingZeros().toPlainString()
        : Double.toString(value);
  }

  /** Reads what lies within something else. */
  private Expression deeper(Supplier<Expression> inner) {
    if (++depth > DEEPEST) {
      throw new ExpressionException("A formula has more than " + DEEPEST
          + " brackets or signs within each other at character " + (at + 1)
          + ". Write it in fewer, or in several steps.");
    }
    Expression read = inner.get();
    depth--;
    return read;
  }

  private void countOperator() {
    if (++operators > MOST_OPERATORS) {
      throw new ExpressionException("A formula has more than " + MOST_OPERATORS
          + " operators. Write it in several steps, or a list of values with IN.");
    }
  }

  private Expression disjunction() {
    Expression left = conjunction();
    while (word("OR")) {
      countOperator();
      left = new Expression.Or(left, conjunction());
    }
    return left;
  }

  private Expression conjunction() {
    Expression left = negation();
    while (word("AND")) {
      countOperator();
      left = new Expression.And(left, negation());
    }
    return left;
  }

  private Expression negation() {
    return word("NOT") ? new Expression.Not(deeper(this::negation)) : comparison();
  }

  private Expression comparison() {
    Expression left = sum();
    boolean not = word("NOT");
    Expression test = null;
    if (word("BETWEEN")) {
      Expression low = sum();
      if (!word("AND")) {
        throw expected("AND of BETWEEN");
      }
      test = new Expression.Between(left, low, sum());
    } else if (word("IN")) {
      test = new Expression.In(left, list());
    } else if (not) {
      throw expected("BETWEEN or IN after NOT");
    } else if (word("IS")) {
      boolean isNot = word("NOT");
      if (!word("NULL")) {
        throw expected("NULL");
      }
      Expression isNull = new Expression.IsNull(left);
      return isNot ? new Expression.Not(isNull) : isNull;
    }
    if (test != null) {
      return not ? new Expression.Not(test) : test;
    }
    for (String operator : new String[] {"<>", "<=", ">=", "=", "<", ">"}) {
      if (symbol(operator)) {
        return new Expression.Comparison(operator, left, sum());
      }
    }
    return left;
  }

  private List<Expression> list() {
    if (!symbol("(")) {
      throw expected("( of IN");
    }
    List<Expression> items = new ArrayList<>();
    do {
      items.add(sum());
    } while (symbol(","));
    if (!symbol(")")) {
      throw expected(", or )");
    }
    return items;
  }

  private Expression sum() {
    Expression left = product();
    while (true) {
      if (symbol("+")) {
        countOperator();
        left = new Expression.Arithmetic('+', left, product());
      } else if (symbol("-")) {
        countOperator();
        left = new Expression.Arithmetic('-', left, product());
      } else {
        return left;
      }
    }
  }

  private Expression product() {
    Expression left = power();
    while (true) {
      if (symbol("*")) {
        countOperator();
        left = new Expression.Arithmetic('*', left, power());
      } else if (symbol("/")) {
        countOperator();
        left = new Expression.Arithmetic('/', left, power());
      } else {
        return left;
      }
    }
  }

  private Expression power() {
    Expression base = factor();
    return symbol("^") ? new Expression.Arithmetic('^', base, deeper(this::power)) : base;
  }

  private Expression factor() {
    if (symbol("(")) {
      Expression inner = deeper(this::disjunction);
      if (!symbol(")")) {
        throw expected(")");
      }
      return inner;
    }
    if (symbol("-")) {
      Expression operand = deeper(this::factor);
      return operand instanceof Expression.Number n
          ? new Expression.Number(-n.value())
          : new Expression.Negate(operand);
    }
    skipSpace();
    int start = at;
    if (at < text.length() && (Character.isDigit(text.charAt(at)) || text.charAt(at) == '.')) {
      return number(start);
    }
    if (symbol("'")) {
      return new Expression.Text(quoted('\'', "a closing '"));
    }
    if (symbol("\"")) {
      return new Expression.Property(quoted('"', "a closing quotation mark"));
    }
    while (at < text.length() && Character.isJavaIdentifierPart(text.charAt(at))) {
      at++;
    }
    if (at == start) {
      throw expected("a feature, a number or (");
    }
    String name = text.substring(start, at);
    if (WORDS.contains(name.toUpperCase(Locale.ROOT))) {
      at = start;
      throw expected("a feature, a number or (");
    }
    return symbol("(") ? call(name) : new Expression.Property(name);
  }

  /** A function behind whose name a bracket was opened. */
  private Expression call(String name) {
    List<Expression> arguments = new ArrayList<>();
    if (symbol(")")) {
      return new Expression.Call(name, arguments);
    }
    do {
      arguments.add(deeper(this::sum));
    } while (symbol(","));
    if (!symbol(")")) {
      throw expected(", or )");
    }
    return new Expression.Call(name, List.copyOf(arguments));
  }

  /** What stands up to the next mark; two of them mean one. */
  private String quoted(char mark, String wanted) {
    StringBuilder value = new StringBuilder();
    while (true) {
      int end = text.indexOf(mark, at);
      if (end < 0) {
        throw expected(wanted);
      }
      value.append(text, at, end);
      at = end + 1;
      if (at >= text.length() || text.charAt(at) != mark) {
        return value.toString();
      }
      value.append(mark);
      at++;
    }
  }

  private Expression number(int start) {
    while (at < text.length()) {
      char c = text.charAt(at);
      boolean sign = (c == '+' || c == '-') && (text.charAt(at - 1) | 0x20) == 'e';
      if (!Character.isDigit(c) && c != '.' && (c | 0x20) != 'e' && !sign) {
        break;
      }
      at++;
    }
    try {
      return new Expression.Number(Double.parseDouble(text.substring(start, at)));
    } catch (NumberFormatException malformed) {
      at = start;
      throw expected("a number");
    }
  }

  private boolean symbol(String symbol) {
    skipSpace();
    if (text.startsWith(symbol, at)) {
      at += symbol.length();
      return true;
    }
    return false;
  }

  private boolean word(String word) {
    skipSpace();
    int end = at + word.length();
    if (text.regionMatches(true, at, word, 0, word.length())
        && (end == text.length() || !Character.isJavaIdentifierPart(text.charAt(end)))) {
      at = end;
      return true;
    }
    return false;
  }

  private void skipSpace() {
    while (at < text.length() && Character.isWhitespace(text.charAt(at))) {
      at++;
    }
  }

  private ExpressionException expected(String what) {
    String rest = at < text.length() ? "'" + text.substring(at) + "'" : "the end";
    return new ExpressionException("In '" + text + "' at character " + (at + 1) + ": expected "
        + what + " but found " + rest + ".");
  }
}
