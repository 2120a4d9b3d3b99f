package sharpkestrel.place.mosaic;

import sharpkestrel.geo.Crs;
import sharpkestrel.geo.GridModel;
import sharpkestrel.place.RectifiedRaster;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Resampling;
import sharpkestrel.raster.Window;

/** A placed raster in the pixels of another grid: copied where they coincide, resampled where they do not. */
final class OnGrid extends DerivedRaster {

  private static final double COINCIDES = 1e-3;

  private final Raster from;
  private final Raster resampled;
  private final boolean coincides;
  private final int shiftX;
  private final int shiftY;

  private OnGrid(Raster from, Raster resampled, boolean coincides, int shiftX, int shiftY) {
    super(resampled.grid(), from.bands(), from.attachments(), resampled.zoom());
    this.from = from;
    this.resampled = resampled;
    this.coincides = coincides;
    this.shiftX = shiftX;
    this.shiftY = shiftY;
  }

  static Raster of(Raster from, Grid grid, Crs system, Resampling resampling) {
    Raster resampled = new RectifiedRaster(
        from,
        GridModel.of(from.grid()),
        java.util.Optional.empty(),
        grid,
        from.attachments(),
        resampling);
    Grid own = from.grid();
    double x = (grid.affine().c() - own.affine().c()) / grid.affine().a();
    double y = (grid.affine().f() - own.affine().f()) / grid.affine().e();
    boolean same = own.crs().equals(grid.crs())
        && own.affine().isNorthUp()
        && Math.abs(own.affine().a() / grid.affine().a() - 1) < COINCIDES / own.width()
        && Math.abs(own.affine().e() / grid.affine().e() - 1) < COINCIDES / own.height()
        && Math.abs(x - Math.rint(x)) < COINCIDES
        && Math.abs(y - Math.rint(y)) < COINCIDES;
    return new OnGrid(from, resampled, same, (int) Math.rint(x), (int) Math.rint(y));
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    int mask = (1 << level) - 1;
    if (coincides && (shiftX & mask) == 0 && (shiftY & mask) == 0) {
      from.read(
          level,
          new Window(
              window.x() + (shiftX >> level),
              window.y() + (shiftY >> level),
              window.width(),
              window.height()),
          target,
          request);
    } else {
      resampled.read(level, window, target, request);
    }
  }
}
