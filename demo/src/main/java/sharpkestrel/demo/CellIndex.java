package sharpkestrel.demo;

import java.util.ArrayList;
import java.util.List;

/**
 * Numbered things by the square cells of ground where they matter, so that a ray looks only at those near it. Things
 * beyond the edge are kept in the outermost cells.
 */
final class CellIndex {

  private static final double CELL = 8;

  private final double west;
  private final double south;
  private final int across;
  private final List<List<Integer>> lists = new ArrayList<>();
  private int[][] cells;

  /**
   * @param half half the side of the ground, metres about the middle
   */
  CellIndex(double east, double north, double half) {
    west = east - half;
    south = north - half;
    across = (int) Math.ceil(2 * half / CELL) + 1;
    for (int i = 0; i < across * across; i++) {
      lists.add(null);
    }
  }

  /** Enters a thing in every cell of a box. */
  void enter(int thing, double left, double bottom, double right, double top) {
    for (int cy = cell(bottom - south); cy <= cell(top - south); cy++) {
      for (int cx = cell(left - west); cx <= cell(right - west); cx++) {
        int at = cy * across + cx;
        if (lists.get(at) == null) {
          lists.set(at, new ArrayList<>());
        }
        lists.get(at).add(thing);
      }
    }
  }

  /** No more is entered; from here on it may be asked, by many threads. */
  CellIndex closed() {
    cells = new int[lists.size()][];
    for (int i = 0; i < cells.length; i++) {
      List<Integer> list = lists.get(i);
      cells[i] = list == null ? null : list.stream().mapToInt(Integer::intValue).toArray();
    }
    lists.clear();
    return this;
  }

  /** The things entered at a point, in the order of entry; null for none. */
  int[] at(double e, double n) {
    return cells[cell(n - south) * across + cell(e - west)];
  }

  private int cell(double offset) {
    return (int) Math.max(0, Math.min(across - 1.0, Math.floor(offset / CELL)));
  }
}
