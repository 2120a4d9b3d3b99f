package sharpkestrel.objects;

import java.util.Map;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Window;

/** Objects that one other surrounds. */
final class Holes {

  private Holes() {}

  /**
   * Joins holes to what surrounds them; what is inside of a hole joins it first, so that holes of several objects close.
   *
   * @param under area under which an object may be a hole
   * @param meant objects whose holes are filled
   */
  static void fill(Merging merging, ObjectSet objects, double under, boolean[] meant, Job job) {
    boolean[] open = reachOut(objects, job);
    boolean changed = true;
    while (changed) {
      changed = false;
      for (int i = 0; i < meant.length; i++) {
        if (merging.root(i) != i || merging.area(i) >= under) {
          continue;
        }
        Map<Integer, Integer> around = merging.around(i);
        if (around.size() != 1 || merging.members(i).stream().anyMatch(m -> open[m])) {
          continue;
        }
        int outer = around.keySet().iterator().next();
        boolean wanted = merging.members(outer).stream().anyMatch(m -> meant[m]);
        if (wanted && merging.area(outer) > merging.area(i)) {
          merging.join(i, outer);
          changed = true;
        }
      }
    }
  }

  /** Objects that reach the edge of the scene or pixels that are in no object. */
  private static boolean[] reachOut(ObjectSet objects, Job job) {
    boolean[] open = new boolean[objects.count()];
    int width = objects.labels().grid().width();
    int stride = width + 2;
    int[] rows = new int[3 * stride];
    int[] rowOf = objects.rowOf();
    for (int y = 0; y < objects.labels().grid().height(); y++) {
      job.cancellation().check();
      objects.labels().read(new Window(-1, y - 1, stride, 3), rows);
      for (int x = 1; x <= width; x++) {
        int i = stride + x;
        int own = rowOf[rows[i]];
        if (own >= 0) {
          open[own] |= rowOf[rows[i - 1]] < 0
              || rowOf[rows[i + 1]] < 0
              || rowOf[rows[i - stride]] < 0
              || rowOf[rows[i + stride]] < 0;
        }
      }
    }
    return open;
  }
}
