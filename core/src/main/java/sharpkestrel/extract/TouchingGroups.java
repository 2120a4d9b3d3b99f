package sharpkestrel.extract;

import java.util.Arrays;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Cancellation;
import sharpkestrel.raster.DisjointSets;
import sharpkestrel.raster.Window;

/**
 * Objects that share a pixel side, joined: the lit and the shaded half of one roof; where objects have classes, those of one. One pass over the labels, two rows
 * at a time; groups are numbered by their first object.
 */
final class TouchingGroups {

  private final int[] group;
  private final Window[] bounds;

  private TouchingGroups(int[] group, Window[] bounds) {
    this.group = group;
    this.bounds = bounds;
  }

  /**
   * @param join false for each object as a group of its own
   */
  static TouchingGroups of(ObjectSet objects, boolean join, Cancellation cancellation) {
    int n = objects.count();
    DisjointSets sets = new DisjointSets(n);
    int[] left = new int[n];
    int[] right = new int[n];
    int[] top = new int[n];
    int[] bottom = new int[n];
    Arrays.fill(left, Integer.MAX_VALUE);
    Arrays.fill(top, Integer.MAX_VALUE);
    Arrays.fill(right, -1);
    Arrays.fill(bottom, -1);
    int width = objects.labels().grid().width();
    int height = objects.labels().grid().height();
    int[] rowOf = objects.rowOf();
    double[] classOf = classes(objects);
    int[] above = new int[width];
    int[] here = new int[width];
    Arrays.fill(above, -1);
    for (int y = 0; y < height; y++) {
      if (y % 256 == 0) {
        cancellation.check();
      }
      objects.labels().read(new Window(0, y, width, 1), here);
      for (int x = 0; x < width; x++) {
        int object = rowOf[here[x]];
        here[x] = object;
        if (object < 0) {
          continue;
        }
        left[object] = Math.min(left[object], x);
        right[object] = Math.max(right[object], x);
        top[object] = Math.min(top[object], y);
        bottom[object] = y;
        if (join && above[x] >= 0 && above[x] != object && classOf[above[x]] == classOf[object]) {
          sets.unite(above[x], object);
        }
        if (join
            && x > 0
            && here[x - 1] >= 0
            && here[x - 1] != object
            && classOf[here[x - 1]] == classOf[object]) {
          sets.unite(here[x - 1], object);
        }
      }
      int[] swap = above;
      above = here;
      here = swap;
    }
    int[] group = new int[n];
    Window[] bounds = new Window[n];
    int count = 0;
    for (int i = 0; i < n; i++) {
      int root = sets.root(i);
      group[i] = root == i ? count++ : group[root];
      Window own = right[i] < 0
          ? null
          : new Window(left[i], top[i], right[i] - left[i] + 1, bottom[i] - top[i] + 1);
      Window all = bounds[group[i]];
      bounds[group[i]] = own == null ? all : all == null ? own : around(all, own);
    }
    return new TouchingGroups(group, Arrays.copyOf(bounds, count));
  }

  /** For each object a number of its class; the same for all that have none. */
  private static double[] classes(ObjectSet objects) {
    double[] classOf = new double[objects.count()];
    Table table = objects.table();
    if (table.has(ClassMap.CLASS) && table.column(ClassMap.CLASS).isText()) {
      double[] values = table.values(ClassMap.CLASS);
      Arrays.setAll(classOf, row -> Double.isNaN(values[row]) ? -1 : values[row]);
    }
    return classOf;
  }

  int count() {
    return bounds.length;
  }

  /** The group of an object, by its row. */
  int of(int row) {
    return group[row];
  }

  /** The rows of each group, in their order. */
  int[][] members() {
    int[] sizes = new int[count()];
    for (int g : group) {
      sizes[g]++;
    }
    int[][] rows = new int[count()][];
    for (int g = 0; g < rows.length; g++) {
      rows[g] = new int[sizes[g]];
    }
    for (int i = group.length - 1; i >= 0; i--) {
      rows[group[i]][--sizes[group[i]]] = i;
    }
    return rows;
  }

  /** The smallest window around a group; empty where it has no pixels. */
  Window bounds(int g) {
    return bounds[g] == null ? new Window(0, 0, 0, 0) : bounds[g];
  }

  private static Window around(Window a, Window b) {
    int x = Math.min(a.x(), b.x());
    int y = Math.min(a.y(), b.y());
    return new Window(
        x, y, Math.max(a.right(), b.right()) - x, Math.max(a.bottom(), b.bottom()) - y);
  }
}
