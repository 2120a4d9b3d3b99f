package sharpkestrel.extract.rules;

import java.util.ArrayList;
import java.util.List;
import sharpkestrel.expr.Cql2;
import sharpkestrel.expr.Expression;
import sharpkestrel.expr.ExpressionException;

/**
 * What an object is where a test holds.
 *
 * @param ofClass the class that it gives
 * @param test in CQL2, over features and relations
 */
public record Rule(String ofClass, Expression test) {

  /**
   * Reads rules, one behind the other with a semicolon or a line's end between: a class, a colon, and a test.
   *
   * @throws ExpressionException that says which rule cannot be read, and why
   */
  public static List<Rule> parse(String text) {
    List<Rule> rules = new ArrayList<>();
    for (String sentence : sentences(text)) {
      String plain = sentence.strip();
      if (plain.isEmpty()) {
        continue;
      }
      int colon = plain.indexOf(':');
      String where = "Rule " + (rules.size() + 1) + ", '" + plain + "': ";
      if (colon < 1 || plain.substring(0, colon).isBlank()) {
        throw new ExpressionException(
            where + "write the class, a colon and a test, e.g. water: near_infrared_mean < 0.05.");
      }
      try {
        rules.add(new Rule(
            plain.substring(0, colon).strip(),
            Cql2.parseTest(plain.substring(colon + 1).strip())));
      } catch (ExpressionException wrong) {
        throw new ExpressionException(where + wrong.getMessage());
      }
    }
    return rules;
  }

  /** Parts between semicolons and line ends that do not stand in quotation marks. */
  private static List<String> sentences(String text) {
    List<String> parts = new ArrayList<>();
    StringBuilder part = new StringBuilder();
    char open = 0;
    for (char c : text.toCharArray()) {
      boolean quote = c == '\'' || c == '"';
      if (open == 0 && (c == ';' || c == '\n')) {
        parts.add(part.toString());
        part.setLength(0);
        continue;
      }
      open = quote && open == 0 ? c : open == c ? 0 : open;
      part.append(c);
    }
    parts.add(part.toString());
    return parts;
  }

  public String toText() {
    return ofClass + ": " + test.toText();
  }

  /** Text that reads back as the same rules. */
  public static String toText(List<Rule> rules) {
    return String.join("; ", rules.stream().map(Rule::toText).toList());
  }
}
