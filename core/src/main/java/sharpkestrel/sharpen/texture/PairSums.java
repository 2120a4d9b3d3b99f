package sharpkestrel.sharpen.texture;

import java.util.Arrays;
import java.util.Set;

/**
 * Sums over all pairs of pixels, both of them in the window about each pixel, of numbers that a pair gives, row after row. Two
 * running sums, down and across, of whole numbers: the cost does not depend on the window, nor the result on where a tile
 * begins.
 */
final class PairSums {

  /** What a pair of levels gives; pairs with no-data give nothing. */
  enum Term {
    ONE,
    SQUARED_DIFFERENCE,
    DIFFERENCE,
    SUM,
    PRODUCT,
    SQUARES,
    INVERSE
  }

  /** One over one plus the squared difference, in units of 2^-16. */
  static final int INVERSE_ONE = 1 << 16;

  private static final int[] INVERSES = new int[Levels.MOST];

  static {
    for (int k = 0; k < INVERSES.length; k++) {
      INVERSES[k] = (int) Math.round(INVERSE_ONE / (1.0 + (double) k * k));
    }
  }

  private final LevelTile tile;
  private final LevelPairs pairs;
  private final int pairsAcross;
  private final int pairsDown;
  private final Running[] running = new Running[Term.values().length];
  private final int[] a;
  private final int[] b;
  private final int[] valid;
  private final int[] terms;
  private final int[] entering;
  private int row = -1;

  /**
   * @param wanted of which sums will be asked for
   */
  PairSums(LevelTile tile, Displacement displacement, Set<Term> wanted) {
    this.tile = tile;
    pairs = new LevelPairs(tile, displacement);
    pairsAcross = pairs.across();
    pairsDown = pairs.down();
    a = new int[pairs.columns()];
    b = new int[pairs.columns()];
    valid = new int[pairs.columns()];
    terms = new int[pairs.columns()];
    entering = new int[tile.width()];
    for (Term term : wanted) {
      running[term.ordinal()] = new Running(pairs, tile.width());
    }
    if (wanted.contains(Term.ONE)) {
      Arrays.fill(running[Term.ONE.ordinal()].sums, pairsAcross * pairsDown);
    }
    for (int y = 0; y < pairsDown - 1; y++) {
      enter(y);
    }
  }

  /** Goes on to the next row of the tile; before the first row at the beginning. */
  void next() {
    row++;
    enter(row + pairsDown - 1);
    for (Term term : Term.values()) {
      if (changes(term)) {
        across(running[term.ordinal()]);
      }
    }
  }

  /**
   * @return one sum for each pixel of the row; the array is used again for the next
   */
  int[] of(Term term) {
    return running[term.ordinal()].sums;
  }

  /** The number of pairs is the same everywhere where none is missing. */
  private boolean changes(Term term) {
    return running[term.ordinal()] != null && (term != Term.ONE || tile.holes());
  }

  /** Takes in the pairs whose upper pixel lies in a row, in place of those that lie a window above. */
  private void enter(int y) {
    pairs.row(y, a, b);
    // all bits where both are there
    for (int x = 0; x < valid.length; x++) {
      valid[x] = ~(a[x] | b[x]) >> Integer.SIZE - 1;
    }
    for (Term term : Term.values()) {
      if (changes(term)) {
        take(term);
        Running of = running[term.ordinal()];
        exchange(terms, valid, of.held[y % pairsDown], of.column);
      }
    }
  }

  private static void exchange(int[] terms, int[] valid, int[] held, int[] column) {
    for (int x = 0; x < column.length; x++) {
      int term = terms[x] & valid[x];
      column[x] += term - held[x];
      held[x] = term;
    }
  }

  private void across(Running of) {
    int[] column = of.column;
    int[] out = of.sums;
    System.arraycopy(column, pairsAcross - 1, entering, 0, entering.length);
    int first = 0;
    for (int x = 0; x < pairsAcross; x++) {
      first += column[x];
    }
    // what enters and leaves from one pixel to the next, then one running sum
    for (int x = 0; x < out.length; x++) {
      out[x] = entering[x] - column[x];
    }
    int sum = first - entering[0];
    for (int x = 0; x < out.length; x++) {
      int change = out[x];
      out[x] = sum + entering[x];
      sum += change;
    }
  }

  private void take(Term term) {
    switch (term) {
      case ONE -> Arrays.fill(terms, 1);
      case SQUARED_DIFFERENCE -> squaredDifferences(a, b, terms);
      case DIFFERENCE -> differences(a, b, terms);
      case SUM -> sums(a, b, terms);
      case PRODUCT -> products(a, b, terms);
      case SQUARES -> squares(a, b, terms);
      case INVERSE -> inverses(a, b, terms);
    }
  }

  private static void squaredDifferences(int[] a, int[] b, int[] out) {
    for (int x = 0; x < out.length; x++) {
      int d = a[x] - b[x];
      out[x] = d * d;
    }
  }

  private static void differences(int[] a, int[] b, int[] out) {
    for (int x = 0; x < out.length; x++) {
      out[x] = Math.abs(a[x] - b[x]);
    }
  }

  private static void sums(int[] a, int[] b, int[] out) {
    for (int x = 0; x < out.length; x++) {
      out[x] = a[x] + b[x];
    }
  }

  private static void products(int[] a, int[] b, int[] out) {
    for (int x = 0; x < out.length; x++) {
      out[x] = a[x] * b[x];
    }
  }

  private static void squares(int[] a, int[] b, int[] out) {
    for (int x = 0; x < out.length; x++) {
      out[x] = a[x] * a[x] + b[x] * b[x];
    }
  }

  private static void inverses(int[] a, int[] b, int[] out) {
    for (int x = 0; x < out.length; x++) {
      out[x] = INVERSES[Math.abs(a[x] - b[x])];
    }
  }

  /** Sums down and across of one term. */
  private static final class Running {

    private final int[] column;

    /** Terms of the rows in the window, so that what leaves it need not be worked out again. */
    private final int[][] held;

    private final int[] sums;

    Running(LevelPairs pairs, int width) {
      column = new int[pairs.columns()];
      held = new int[pairs.down()][pairs.columns()];
      sums = new int[width];
    }
  }
}
