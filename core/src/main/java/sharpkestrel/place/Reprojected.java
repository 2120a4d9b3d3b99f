package sharpkestrel.place;

import java.util.Optional;
import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.GridModel;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Resampling;
import sharpkestrel.raster.Window;

/**
 * Placed pixels laid out north up in another coordinate system, as they are wanted: each shows the pixel nearest to it, so
 * that no value is made up.
 */
public final class Reprojected {

  /** Points along each edge by which the area is found: edges are curved in another system. */
  private static final int ALONG = 33;

  private Reprojected() {}

  /** The same raster where it is in that system already. */
  public static Raster to(Crs system, Raster placed) {
    return system.name().equals(placed.grid().crs())
        ? placed
        : nearest(placed, grid(placed.grid(), system), system);
  }

  /**
   * Labels that lie on the pixels of a raster, on those of its {@linkplain #to(Crs, Raster) counterpart}.
   *
   * @param placed the raster in its own system
   */
  public static LabelRaster labels(Crs system, Raster placed, LabelRaster labels) {
    if (system.name().equals(placed.grid().crs())) {
      return labels;
    }
    RectifiedRaster there = nearest(placed, grid(placed.grid(), system), system);
    return new LabelRaster() {
      @Override
      public Grid grid() {
        return there.grid();
      }

      @Override
      public int maxLabel() {
        return labels.maxLabel();
      }

      @Override
      public void read(Window window, int[] target) {
        int count = window.area();
        double[] cols = new double[count];
        double[] rows = new double[count];
        there.toImage(0, window, cols, rows, Request.BACKGROUND);
        Window under = Window.under(cols, rows, count, 1, labels.grid().window());
        int[] part = new int[under.area()];
        if (!under.isEmpty()) {
          labels.read(under, part);
        }
        for (int i = 0; i < count; i++) {
          int x = (int) Math.floor(cols[i]) - under.x();
          int y = (int) Math.floor(rows[i]) - under.y();
          boolean inside = x >= 0 && y >= 0 && x < under.width() && y < under.height();
          target[i] = inside ? part[y * under.width() + x] : 0;
        }
      }
    };
  }

  private static RectifiedRaster nearest(Raster placed, Grid grid, Crs system) {
    return new RectifiedRaster(
        placed,
        GridModel.of(placed.grid()),
        Optional.empty(),
        grid,
        placed.attachments(),
        Resampling.NEAREST);
  }

  /** North-up pixels as large as those of a grid in its middle, over all of it. */
  static Grid grid(Grid from, Crs system) {
    CoordinateMap map = Crs.of(from.crs()).to(system);
    Affine affine = from.affine();
    double[] edge = new double[8 * ALONG];
    for (int k = 0; k < ALONG; k++) {
      double x = (double) from.width() * k / (ALONG - 1);
      double y = (double) from.height() * k / (ALONG - 1);
      double[][] places = {{x, 0}, {x, from.height()}, {0, y}, {from.width(), y}};
      for (int side = 0; side < 4; side++) {
        edge[8 * k + 2 * side] = affine.x(places[side][0], places[side][1]);
        edge[8 * k + 2 * side + 1] = affine.y(places[side][0], places[side][1]);
      }
    }
    map.apply(edge, 4 * ALONG);
    Extent area = new Extent(edge[0], edge[1], edge[0], edge[1]);
    for (int k = 1; k < 4 * ALONG; k++) {
      area = area.union(new Extent(edge[2 * k], edge[2 * k + 1], edge[2 * k], edge[2 * k + 1]));
    }
    double col = from.width() / 2.0;
    double row = from.height() / 2.0;
    double[] cross = {
      affine.x(col, row), affine.y(col, row),
      affine.x(col + 1, row), affine.y(col + 1, row),
      affine.x(col, row + 1), affine.y(col, row + 1)
    };
    map.apply(cross, 3);
    double pixel = Math.abs((cross[2] - cross[0]) * (cross[5] - cross[1])
        - (cross[4] - cross[0]) * (cross[3] - cross[1]));
    return TargetGrid.covering(area, Math.sqrt(pixel), system);
  }
}
