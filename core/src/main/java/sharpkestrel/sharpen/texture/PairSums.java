package sharpkestrel.sharpen.texture;

import java.util.Arrays;

/**
 * Sums over all pairs of pixels, both of them in the window about each pixel, of a number that a pair gives. Two running
 * sums, down and across, of whole numbers: the cost does not depend on the window, nor the result on where a tile begins.
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

  /** Takes a row of sums, one for each pixel of the tile's row; the array is used again for the next. */
  interface RowSink {
    void accept(int row, int[] sums);
  }

  private final LevelTile tile;
  private final LevelPairs pairs;
  private final int pairsAcross;
  private final int pairsDown;
  private final int[] a;
  private final int[] b;

  PairSums(LevelTile tile, Displacement displacement) {
    this.tile = tile;
    pairs = new LevelPairs(tile, displacement);
    pairsAcross = pairs.across();
    pairsDown = pairs.down();
    a = new int[pairs.columns()];
    b = new int[pairs.columns()];
  }

  /**
   * @param out (output) one sum for each pixel of the tile, row by row
   */
  void of(Term term, int[] out) {
    if (term == Term.ONE && !tile.holes()) {
      Arrays.fill(out, pairsAcross * pairsDown);
      return;
    }
    int width = tile.width();
    of(term, (row, sums) -> System.arraycopy(sums, 0, out, row * width, width));
  }

  void of(Term term, RowSink sink) {
    int width = tile.width();
    int[] column = new int[a.length];
    // terms of the rows in the window, so that what leaves it need not be worked out again
    int[][] held = new int[pairsDown][a.length];
    int[] entering = new int[width];
    int[] out = new int[width];
    for (int y = 0; y < pairsDown + tile.height() - 1; y++) {
      int[] terms = held[y % pairsDown];
      subtract(terms, column);
      terms(term, y, terms);
      add(terms, column);
      int row = y - pairsDown + 1;
      if (row >= 0) {
        System.arraycopy(column, pairsAcross - 1, entering, 0, width);
        across(column, entering, out);
        sink.accept(row, out);
      }
    }
  }

  private void across(int[] column, int[] entering, int[] out) {
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

  /** The terms of the pairs whose upper pixel lies in a row. */
  private void terms(Term term, int row, int[] terms) {
    pairs.row(row, a, b);
    switch (term) {
      case ONE -> Arrays.fill(terms, 1);
      case SQUARED_DIFFERENCE -> squaredDifferences(a, b, terms);
      case DIFFERENCE -> differences(a, b, terms);
      case SUM -> sums(a, b, terms);
      case PRODUCT -> products(a, b, terms);
      case SQUARES -> squares(a, b, terms);
      case INVERSE -> inverses(a, b, terms);
    }
    if (tile.holes()) {
      leaveHolesOut(a, b, terms);
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

  private static void leaveHolesOut(int[] a, int[] b, int[] terms) {
    for (int x = 0; x < terms.length; x++) {
      if (a[x] == Levels.NONE || b[x] == Levels.NONE) {
        terms[x] = 0;
      }
    }
  }

  private static void add(int[] terms, int[] column) {
    for (int x = 0; x < column.length; x++) {
      column[x] += terms[x];
    }
  }

  private static void subtract(int[] terms, int[] column) {
    for (int x = 0; x < column.length; x++) {
      column[x] -= terms[x];
    }
  }
}
