package sharpkestrel.app.viewer;

import java.util.Arrays;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Window;

/**
 * Objects that were drawn anew from others: where one was cut, the cut is seen among the borders that stay.
 *
 * @param cameFrom for each object the row of the one it was before; {@link #SEVERAL} where it was more than one, or none
 */
public record RedrawnObjects(ObjectSet objects, int[] cameFrom) {

  static final int SEVERAL = -1;

  private static final int UNSEEN = -2;
  private static final int STRIP = 64;

  /**
   * @param before on the same pixels
   */
  public static RedrawnObjects of(ObjectSet before, ObjectSet after) {
    Grid grid = after.labels().grid();
    int[] cameFrom = new int[after.count()];
    Arrays.fill(cameFrom, UNSEEN);
    int[] old = new int[grid.width() * STRIP];
    int[] now = new int[old.length];
    for (int top = 0; top < grid.height(); top += STRIP) {
      int height = Math.min(STRIP, grid.height() - top);
      Window strip = new Window(0, top, grid.width(), height);
      before.labels().read(strip, old);
      after.labels().read(strip, now);
      for (int i = 0; i < strip.area(); i++) {
        int row = after.rowOf()[now[i]];
        if (row >= 0) {
          int was = before.rowOf()[old[i]];
          cameFrom[row] = cameFrom[row] == UNSEEN || cameFrom[row] == was ? was : SEVERAL;
        }
      }
    }
    return new RedrawnObjects(after, cameFrom);
  }
}
