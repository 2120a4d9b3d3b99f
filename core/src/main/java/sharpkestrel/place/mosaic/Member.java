package sharpkestrel.place.mosaic;

import java.util.Optional;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.PolygonFill;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/**
 * A scene of a block, on the block's grid.
 *
 * @param number from 1 on, in the order of the scenes
 * @param raster on the block's grid
 * @param where it can have pixels, at full size
 * @param leftOut areas of it that are not used, such as clouds
 * @param nadir degrees off the vertical at which it was taken; NaN where not known
 * @param azimuth degrees from north, from the ground towards the sensor; NaN where not known
 */
record Member(
    int number,
    Raster raster,
    Window where,
    Optional<PolygonFill> leftOut,
    double nadir,
    double azimuth) {

  /** Where it can have pixels, at a level. */
  Window where(int level) {
    int size = 1 << level;
    int left = where.x() >> level;
    int top = where.y() >> level;
    return new Window(
            left,
            top,
            Math.ceilDiv(where.right(), size) - left,
            Math.ceilDiv(where.bottom(), size) - top)
        .intersect(raster.grid().atLevel(level).window());
  }

  /** Its pixels, NaN in what is left out. */
  void read(int level, Window window, float[][] target, Request request) {
    Window here = window.intersect(where(level));
    if (!here.equals(window)) {
      Planes.fillNaN(target);
      if (here.isEmpty()) {
        return;
      }
      float[][] part = Planes.like(target, here.area());
      read(level, here, part, request);
      for (int b = 0; b < target.length; b++) {
        if (target[b] != null) {
          Planes.copy(part[b], here, target[b], window);
        }
      }
      return;
    }
    raster.read(level, window, target, request);
    if (leftOut.isPresent() && !leftOut.get().bounds(level).intersect(window).isEmpty()) {
      boolean[] out = leftOut.get().fill(level, window);
      for (float[] plane : target) {
        for (int i = 0; plane != null && i < plane.length; i++) {
          plane[i] = out[i] ? Float.NaN : plane[i];
        }
      }
    }
  }
}
