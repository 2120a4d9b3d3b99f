package sharpkestrel.objects;

import sharpkestrel.expr.Cql2;
import sharpkestrel.expr.ExpressionException;
import sharpkestrel.expr.Table;

/** Which rows of a table are chosen. */
public final class Selection {

  private Selection() {}

  /**
   * The rows that pass a test; all for an empty one.
   *
   * @param test in CQL2
   * @throws ExpressionException where it is no test, or names a column that there is not
   */
  public static boolean[] of(Table table, String test) {
    boolean[] chosen = new boolean[table.rows()];
    if (test.isBlank()) {
      java.util.Arrays.fill(chosen, true);
      return chosen;
    }
    double[] passes = Cql2.parseTest(test).evaluate(table);
    for (int i = 0; i < chosen.length; i++) {
      chosen[i] = passes[i] == 1;
    }
    return chosen;
  }

  public static boolean[] not(boolean[] chosen) {
    boolean[] others = new boolean[chosen.length];
    for (int i = 0; i < chosen.length; i++) {
      others[i] = !chosen[i];
    }
    return others;
  }

  public static int count(boolean[] chosen) {
    int n = 0;
    for (boolean in : chosen) {
      n += in ? 1 : 0;
    }
    return n;
  }
}
