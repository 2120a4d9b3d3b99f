package sharpkestrel.place;

import java.util.Arrays;
import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.VerticalDatum;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Resampling;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/**
 * Heights above the ellipsoid: those of a model above the geoid plus the geoid's own, from a grid, bilinear between
 * its centres. Outside of the grid there are none.
 */
final class EllipsoidalHeights extends DerivedRaster {

  private final Raster model;
  private final Raster undulation;
  private final CoordinateMap toGrid;

  EllipsoidalHeights(Raster model, Raster undulation) {
    super(
        model.grid(),
        model.bands(),
        model.attachments().with(VerticalDatum.class, VerticalDatum.ELLIPSOID),
        Zoom.RESAMPLING.over(model.zoom()));
    this.model = model;
    this.undulation = undulation;
    toGrid = Crs.of(model.grid().crs()).to(Crs.of(undulation.grid().crs()));
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    model.read(level, window, target, request);
    float[] geoid = geoid(level, window, request);
    for (int i = 0; i < geoid.length; i++) {
      target[0][i] += geoid[i];
    }
  }

  /** What is added in the middle of the model, metres. */
  float geoidInTheMiddle() {
    Window middle = new Window(grid().width() / 2, grid().height() / 2, 1, 1);
    return geoid(0, middle, Request.BACKGROUND)[0];
  }

  private float[] geoid(int level, Window window, Request request) {
    int count = window.area();
    Affine affine = grid().atLevel(level).affine();
    double[] xy = new double[2 * count];
    for (int i = 0; i < count; i++) {
      double col = window.x() + i % window.width() + 0.5;
      double row = window.y() + Math.floorDiv(i, window.width()) + 0.5;
      xy[2 * i] = affine.x(col, row);
      xy[2 * i + 1] = affine.y(col, row);
    }
    toGrid.apply(xy, count);
    Grid grid = undulation.grid();
    Affine toPixel = grid.affine().inverse();
    double[] xs = new double[count];
    double[] ys = new double[count];
    for (int i = 0; i < count; i++) {
      xs[i] = toPixel.x(xy[2 * i], xy[2 * i + 1]);
      ys[i] = toPixel.y(xy[2 * i], xy[2 * i + 1]);
    }
    float[][] out = {new float[count]};
    Window source = Window.under(xs, ys, count, Resampling.BILINEAR.reach(), grid.window());
    if (source.isEmpty()) {
      Arrays.fill(out[0], Float.NaN);
      return out[0];
    }
    float[][] planes = undulation.read(0, source, request);
    for (int i = 0; i < count; i++) {
      xs[i] -= source.x();
      ys[i] -= source.y();
    }
    Resampling.BILINEAR.sample(
        new float[][] {planes[0]}, source.width(), source.height(), xs, ys, count, out);
    return out[0];
  }
}
