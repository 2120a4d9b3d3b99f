package sharpkestrel.app.viewer;

import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;

/** All of pane A in the corner of the picture, with a frame around what is in view; a click goes there. */
final class Overview {

  private static final int WIDEST = 168;
  private static final int TALLEST = 128;
  private static final int MARGIN = 12;

  private boolean shown;
  private int left;
  private int top;
  private int right;
  private int bottom;

  void toggle() {
    shown = !shown;
  }

  boolean contains(double x, double y) {
    return shown && x >= left && x < right && y >= top && y < bottom;
  }

  /** Where what stands in the same corner may begin. */
  int besideIt() {
    return shown ? right + MARGIN : MARGIN;
  }

  /** The column and row of the raster under a place of the overview. */
  double[] at(PaneLayer layer, double x, double y) {
    Grid grid = layer.raster.grid();
    return new double[] {
      (x - left) / (right - left) * grid.width(), (y - top) / (bottom - top) * grid.height()
    };
  }

  /** Tells whether all of it was at hand. */
  boolean draw(Compositor compositor, PaneLayer layer, Viewport view, int paneWidth, int height) {
    if (!shown) {
      return true;
    }
    Grid grid = layer.raster.grid();
    double scale = Math.max((double) grid.width() / WIDEST, (double) grid.height() / TALLEST);
    left = MARGIN;
    bottom = height - MARGIN;
    right = left + (int) Math.max(8, Math.round(grid.width() / scale));
    top = bottom - (int) Math.max(8, Math.round(grid.height() / scale));
    compositor.fill(left - 3, top - 3, right + 3, bottom + 3, Compositor.WELL);
    Affine map = new Affine(scale, 0, -left * scale, 0, scale, -top * scale);
    boolean complete = compositor.drawRaster(layer.tiles, map, left, top, right, bottom);
    Affine toPixels = view.toPixels(grid, layer.rawScale);
    compositor.drawFrame(
        clamp(left + toPixels.x(0, 0) / scale, left, right),
        clamp(top + toPixels.y(0, 0) / scale, top, bottom),
        clamp(left + toPixels.x(paneWidth, height) / scale, left, right),
        clamp(top + toPixels.y(paneWidth, height) / scale, top, bottom));
    return complete;
  }

  private static int clamp(double value, int low, int high) {
    return (int) Math.max(low, Math.min(high - 1, value));
  }
}
