package sharpkestrel.app.viewer;

import java.util.Arrays;

/**
 * How an object set is drawn: for each label its row, for each row a fill (0 for none) and whether its border shows.
 * Recolouring replaces these small arrays only.
 */
public record ObjectPaint(int[] rowOf, int[] fill, boolean[] bordered, int selected) {

  /** Borders of all objects, no fill. */
  public static ObjectPaint outlines(int[] rowOf, int rows) {
    boolean[] all = new boolean[rows];
    Arrays.fill(all, true);
    return new ObjectPaint(rowOf, new int[rows], all, -1);
  }

  public ObjectPaint withSelected(int row) {
    return new ObjectPaint(rowOf, fill, bordered, row);
  }
}
