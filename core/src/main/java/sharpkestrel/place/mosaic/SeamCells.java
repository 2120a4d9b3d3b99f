package sharpkestrel.place.mosaic;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/** Cells that more than one scene shows, in ascending order of place, and what it costs to have a seam there. */
final class SeamCells {

  /** Cost of a seam between two cells that agree, so that seams are short. */
  private static final int LENGTH = 4;
  /** Cost of a difference of the whole range. */
  private static final int DIFFERENCE = 4000;
  /** What is not known, at the edges of scenes, is taken for this share of the range. */
  private static final float UNKNOWN = 0.1f;

  /**
   * Some of the cells.
   *
   * @param places in the grid, row by row
   * @param valid bit k for the scene of number k + 1
   * @param values by member, one number a band and cell, in shares of the range; null where a member shows none
   * @param penalty of a seam through the cell
   * @param lone first place, place behind the last, and number of runs of cells that one scene shows
   */
  record Part(int[] places, long[] valid, float[][] values, int[] penalty, List<int[]> lone) {
    int count() {
      return places.length;
    }
  }

  private final Part cells;
  private final int[] bands;
  private final double[] range;
  private final Optional<Levels> levels;
  private final int width;
  private final double toOverview;

  /**
   * @param bands that are compared
   * @param range of each band's values
   * @param levels what will be evened out along the seams and is no difference
   * @param width of the grid
   * @param toOverview pixels of the overview in a cell
   */
  SeamCells(
      Part cells,
      int[] bands,
      double[] range,
      Optional<Levels> levels,
      int width,
      double toOverview) {
    this.cells = cells;
    this.bands = bands;
    this.range = range;
    this.levels = levels;
    this.width = width;
    this.toOverview = toOverview;
  }

  int count() {
    return cells.count();
  }

  int place(int i) {
    return cells.places[i];
  }

  int width() {
    return width;
  }

  /** Whether a scene shows a cell. */
  boolean shows(int i, int number) {
    return (cells.valid[i] >> number - 1 & 1) == 1;
  }

  /** The number of the first scene that shows a cell. */
  int first(int i) {
    return Long.numberOfTrailingZeros(cells.valid[i]) + 1;
  }

  List<int[]> lone() {
    return cells.lone;
  }

  /** The cell of a place among those before another; below 0 where it is none. */
  int find(int place, int before) {
    return Arrays.binarySearch(cells.places, 0, before, place);
  }

  /** What it costs at a cell that one scene is shown on the one side of it and another on the other. */
  int cost(int i, int one, int two) {
    if (one == two) {
      return 0;
    }
    double sum = 0;
    for (int k = 0; k < bands.length; k++) {
      sum += shows(i, one) && shows(i, two) ? Math.abs(apart(i, k, one, two)) : UNKNOWN;
    }
    return LENGTH
        + cells.penalty[i]
        + (int) Math.round(Math.min(1, sum / bands.length) * DIFFERENCE);
  }

  private double apart(int i, int k, int one, int two) {
    int at = i * bands.length + k;
    double apart = cells.values[two - 1][at] - cells.values[one - 1][at];
    if (levels.isEmpty()) {
      return apart;
    }
    double x = (cells.places[i] % width + 0.5) * toOverview;
    double y = (cells.places[i] / width + 0.5) * toOverview;
    return apart - levels.get().between(one - 1, two - 1, bands[k], x, y) / range[bands[k]];
  }
}
