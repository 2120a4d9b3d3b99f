package sharpkestrel.objects;

import java.util.List;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Window;

/**
 * One pass over the pixels of all objects, in strips of fixed rows. Objects that lie within a strip are done there, strips
 * beside each other at once; what is gathered of others is joined strip by strip in order, so that sums do not depend on
 * threads and no more is held than strips cut.
 */
final class ObjectStrips {

  private static final int STRIP = 256;

  /** Pixels that are seen around a strip. */
  static final int MARGIN = 3;

  /** Measures something. */
  interface Collector<P> {

    /**
     * Measures the objects that lie within a strip, and gathers of the others what is in it; many strips at once.
     */
    P strip(Strip strip);

    /** Takes in what was gathered, in order of the strips. */
    void join(P part);
  }

  /**
   * Pixels of a strip with {@value #MARGIN} rows more above and below, and as many columns of nothing on both sides.
   *
   * @param rows of the strip
   * @param stride numbers in a row
   * @param objects row of each pixel's object in the table; -1 for none
   * @param planes of each raster in turn, NaN outside
   * @param low the lowest object
   * @param starts for each object from {@code low} where its pixels begin in {@code order}, and one more
   * @param order the strip's own pixels, as places in the planes, object by object
   * @param whole for each object from {@code low} whether it lies within the strip
   */
  record Strip(
      Window rows,
      int stride,
      int[] objects,
      float[][] planes,
      int low,
      int[] starts,
      int[] order,
      boolean[] whole) {

    int count() {
      return starts.length - 1;
    }

    int column(int place) {
      return place % stride - MARGIN;
    }

    int row(int place) {
      return rows.y() + place / stride - MARGIN;
    }
  }

  private ObjectStrips() {}

  static void run(
      ObjectSet objects,
      ObjectGeometry geometry,
      List<Raster> rasters,
      List<Collector<?>> collectors,
      Job job) {
    int strips = Math.ceilDiv(objects.labels().grid().height(), STRIP);
    // a few strips at a time, so that what they gather does not pile up
    int batch = Math.max(1, 2 * job.threads());
    for (int start = 0; start < strips; start += batch) {
      int count = Math.min(batch, strips - start);
      Object[][] parts = new Object[count][collectors.size()];
      int base = start;
      Parallel.run(count, job, i -> {
        Strip strip = read(objects, geometry, rasters, base + i, job);
        for (int c = 0; c < collectors.size() && strip.count() > 0; c++) {
          parts[i][c] = collectors.get(c).strip(strip);
        }
      });
      for (Object[] part : parts) {
        for (int c = 0; c < part.length; c++) {
          if (part[c] != null) {
            join(collectors.get(c), part[c]);
          }
        }
      }
      job.progress("Measuring", start + count, strips);
    }
  }

  @SuppressWarnings("unchecked")
  private static <P> void join(Collector<P> collector, Object part) {
    collector.join((P) part);
  }

  private static Strip read(
      ObjectSet objects, ObjectGeometry geometry, List<Raster> rasters, int index, Job job) {
    Grid grid = objects.labels().grid();
    Window rows = new Window(0, index * STRIP, grid.width(), STRIP).intersect(grid.window());
    Window more = rows.grown(MARGIN);
    int[] object = new int[more.area()];
    objects.labels().read(more, object);
    int[] rowOf = objects.rowOf();
    int stride = more.width();
    int first = MARGIN * stride;
    int last = object.length - first;
    int low = Integer.MAX_VALUE;
    int high = -1;
    for (int i = 0; i < object.length; i++) {
      object[i] = rowOf[object[i]];
      if (object[i] >= 0 && i >= first && i < last) {
        low = Math.min(low, object[i]);
        high = Math.max(high, object[i]);
      }
    }
    if (high < 0) {
      return new Strip(
          rows, stride, object, new float[0][], 0, new int[1], new int[0], new boolean[0]);
    }
    int[] starts = new int[high - low + 2];
    for (int i = first; i < last; i++) {
      if (object[i] >= 0) {
        starts[object[i] - low + 1]++;
      }
    }
    for (int k = 1; k < starts.length; k++) {
      starts[k] += starts[k - 1];
    }
    int[] next = starts.clone();
    int[] order = new int[starts[starts.length - 1]];
    for (int i = first; i < last; i++) {
      if (object[i] >= 0) {
        order[next[object[i] - low]++] = i;
      }
    }
    boolean[] whole = new boolean[starts.length - 1];
    for (int k = 0; k < whole.length; k++) {
      Window bounds = geometry.bounds(low + k);
      whole[k] =
          starts[k + 1] > starts[k] && bounds.y() >= rows.y() && bounds.bottom() <= rows.bottom();
    }
    float[][] planes =
        new float[rasters.stream().mapToInt(r -> r.bands().size()).sum()][];
    int at = 0;
    for (Raster raster : rasters) {
      for (float[] plane : raster.read(0, more, job.request())) {
        planes[at++] = plane;
      }
    }
    return new Strip(rows, stride, object, planes, low, starts, order, whole);
  }
}
