package sharpkestrel.place.mosaic;

/** Shows one scene wherever that makes the whole cheaper, by one minimum cut. */
final class Expansion {

  private static final int NO_CELL = -1;

  private final SeamCells cells;
  private final byte[] labels;
  private final int number;
  /** The cut's node of each cell that may change; below 0 where it may not. */
  private final int[] node;

  private final int nodes;

  /**
   * @param labels (modified) the number of the scene that shows each cell of the grid, 0 for none
   * @param number of the scene
   */
  Expansion(SeamCells cells, byte[] labels, int number) {
    this.cells = cells;
    this.labels = labels;
    this.number = number;
    node = new int[cells.count()];
    int count = 0;
    for (int i = 0; i < node.length; i++) {
      boolean may = cells.shows(i, number) && label(i) != number;
      node[i] = may ? count++ : NO_CELL;
    }
    nodes = count;
  }

  private int label(int cell) {
    return labels[cells.place(cell)];
  }

  /** Tells whether any label has changed. */
  boolean run() {
    if (nodes == 0) {
      return false;
    }
    MinCut cut = new MinCut(nodes);
    int width = cells.width();
    int below = 0;
    for (int i = 0; i < node.length; i++) {
      int place = cells.place(i);
      int x = place % width;
      while (below < node.length && cells.place(below) < place + width) {
        below++;
      }
      boolean hasRight = i + 1 < node.length && cells.place(i + 1) == place + 1;
      boolean hasBelow = below < node.length && cells.place(below) == place + width;
      if (x + 1 < width) {
        join(cut, i, hasRight ? i + 1 : NO_CELL, place + 1);
      }
      if (place + width < labels.length) {
        join(cut, i, hasBelow ? below : NO_CELL, place + width);
      }
      if (x > 0 && (i == 0 || cells.place(i - 1) != place - 1)) {
        beside(cut, i, place - 1);
      }
      if (place >= width && cells.find(place - width, i) < 0) {
        beside(cut, i, place - width);
      }
    }
    cut.solve();
    boolean changed = false;
    for (int i = 0; i < node.length; i++) {
      if (node[i] >= 0 && !cut.onSource(node[i])) {
        labels[cells.place(i)] = (byte) number;
        changed = true;
      }
    }
    return changed;
  }

  /** A cell and the one to its right or below it. */
  private void join(MinCut cut, int i, int j, int otherPlace) {
    if (j == NO_CELL) {
      beside(cut, i, otherPlace);
      return;
    }
    if (node[i] < 0 && node[j] < 0) {
      return;
    }
    int keepKeep = between(i, j, label(i), label(j));
    int keepTake = between(i, j, label(i), number);
    int takeKeep = between(i, j, number, label(j));
    if (node[j] < 0) {
      cut.add(node[i], takeKeep, keepKeep);
    } else if (node[i] < 0) {
      cut.add(node[j], keepTake, keepKeep);
    } else {
      // at the edges of scenes the triangle's inequality may fail
      keepKeep = Math.min(keepKeep, keepTake + takeKeep);
      cut.add(node[i], takeKeep, keepKeep);
      cut.add(node[j], 0, takeKeep);
      cut.link(node[i], node[j], keepTake + takeKeep - keepKeep, 0);
    }
  }

  private int between(int i, int j, int one, int two) {
    return one == two ? 0 : cells.cost(i, one, two) + cells.cost(j, one, two);
  }

  /** A cell and a neighbour that is not open to choice. */
  private void beside(MinCut cut, int i, int otherPlace) {
    int there = labels[otherPlace];
    if (node[i] < 0 || there == 0 || !cells.shows(i, there)) {
      return;
    }
    cut.add(node[i], 2 * cells.cost(i, number, there), 2 * cells.cost(i, label(i), there));
  }
}
