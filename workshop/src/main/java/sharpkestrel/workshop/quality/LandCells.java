package sharpkestrel.workshop.quality;

import java.util.ArrayList;
import java.util.List;
import sharpkestrel.demo.World;
import sharpkestrel.demo.sensor.Sensor;
import sharpkestrel.place.fit.TiePoint;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/** The land that a scene and a reference both show, in four by four cells. */
final class LandCells {

  private static final int SIDE = 4;
  /** Samples along a side of the reference. */
  private static final int SAMPLES = 240;
  /** Metres above the sea from which ground is land. */
  private static final double DRY = 0.5;
  /** Share of a cell that must be land in both for it to count. */
  private static final double ENOUGH = 0.02;

  private final Extent bounds;
  private final boolean[] isLand;

  private LandCells(Extent bounds, boolean[] isLand) {
    this.bounds = bounds;
    this.isLand = isLand;
  }

  /**
   * @param reference placed, in the terrain's system
   * @param truth where the scene really shows a place
   */
  static LandCells of(Raster scene, Raster reference, Raster terrain, Sensor truth) {
    List<double[]> land = new ArrayList<>();
    Affine affine = reference.grid().affine();
    double[] image = new double[2];
    for (int i = 0; i < SAMPLES * SAMPLES; i++) {
      double col = (i % SAMPLES + 0.5) * reference.grid().width() / SAMPLES;
      double row = (i / SAMPLES + 0.5) * reference.grid().height() / SAMPLES;
      double x = affine.x(col, row);
      double y = affine.y(col, row);
      float height = at(terrain, x, y);
      if (!(height > DRY) || Float.isNaN(at(reference, x, y))) {
        continue;
      }
      truth.toImage(x, y, height + World.UNDULATION, image);
      if (image[0] >= 0
          && image[1] >= 0
          && image[0] < scene.grid().width()
          && image[1] < scene.grid().height()) {
        land.add(new double[] {x, y});
      }
    }
    Extent all = null;
    for (double[] place : land) {
      Extent here = new Extent(place[0], place[1], place[0], place[1]);
      all = all == null ? here : all.union(here);
    }
    int[] counts = new int[SIDE * SIDE];
    for (double[] place : land) {
      counts[cell(all, place[0], place[1])]++;
    }
    double sample =
        reference.grid().extent().width() * reference.grid().extent().height() / SAMPLES / SAMPLES;
    boolean[] isLand = new boolean[counts.length];
    for (int k = 0; k < counts.length; k++) {
      isLand[k] = counts[k] * sample > ENOUGH * all.width() * all.height() / counts.length;
    }
    return new LandCells(all, isLand);
  }

  private static float at(Raster raster, double x, double y) {
    Affine toPixel = raster.grid().affine().inverse();
    Window pixel =
        new Window((int) Math.floor(toPixel.x(x, y)), (int) Math.floor(toPixel.y(x, y)), 1, 1);
    return raster.read(0, pixel, Request.BACKGROUND)[0][0];
  }

  private static int cell(Extent bounds, double x, double y) {
    int col = (int) ((x - bounds.west()) / bounds.width() * SIDE);
    int row = (int) ((bounds.north() - y) / bounds.height() * SIDE);
    return Math.max(0, Math.min(SIDE - 1, row)) * SIDE + Math.max(0, Math.min(SIDE - 1, col));
  }

  int count() {
    return count(isLand);
  }

  /** Cells of land in which there are points. */
  int covered(TiePoints points) {
    boolean[] has = new boolean[isLand.length];
    for (TiePoint point : points.points()) {
      if (bounds.grown(1).holds(point.x(), point.y())) {
        int at = cell(bounds, point.x(), point.y());
        has[at] = isLand[at];
      }
    }
    return count(has);
  }

  private static int count(boolean[] flags) {
    int count = 0;
    for (boolean flag : flags) {
      count += flag ? 1 : 0;
    }
    return count;
  }
}
