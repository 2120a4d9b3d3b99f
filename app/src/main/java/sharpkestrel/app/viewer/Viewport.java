package sharpkestrel.app.viewer;

import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;

/**
 * Which part of the world the screen shows. World coordinates are those of the grid, with y downwards: ground
 * coordinates negated for placed rasters, pixels for raw ones.
 *
 * @param left world x of the screen's left side
 * @param top world y of its top, downwards
 * @param unitsPerPixel world units in a screen pixel
 */
record Viewport(double left, double top, double unitsPerPixel) {

  /** From screen pixels to pixels of a grid (north-up or raw). */
  Affine toPixels(Grid grid, double rawScale) {
    Affine screenToWorld = new Affine(unitsPerPixel, 0, left, 0, unitsPerPixel, top);
    return worldToPixels(grid, rawScale).after(screenToWorld);
  }

  /**
   * @param rawScale world units in a pixel of a grid without CRS
   */
  static Affine worldToPixels(Grid grid, double rawScale) {
    if (!grid.crs().isKnown()) {
      return new Affine(1 / rawScale, 0, 0, 0, 1 / rawScale, 0);
    }
    Affine flip = new Affine(1, 0, 0, 0, -1, 0);
    return grid.affine().inverse().after(flip);
  }

  static Viewport fit(Grid grid, double rawScale, double width, double height) {
    Affine toWorld = worldToPixels(grid, rawScale).inverse();
    double x0 = toWorld.x(0, 0);
    double y0 = toWorld.y(0, 0);
    double x1 = toWorld.x(grid.width(), grid.height());
    double y1 = toWorld.y(grid.width(), grid.height());
    double scale = Math.max((x1 - x0) / width, (y1 - y0) / height);
    return new Viewport(
        (x0 + x1) / 2 - scale * width / 2, (y0 + y1) / 2 - scale * height / 2, scale);
  }

  Viewport panned(double dx, double dy) {
    return new Viewport(left - dx * unitsPerPixel, top - dy * unitsPerPixel, unitsPerPixel);
  }

  /** Zoomed so that the world under a screen point stays. */
  Viewport zoomed(double factor, double x, double y) {
    double scale = unitsPerPixel / factor;
    return new Viewport(
        left + x * (unitsPerPixel - scale), top + y * (unitsPerPixel - scale), scale);
  }
}
