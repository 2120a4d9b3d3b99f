package sharpkestrel.app.viewer;

import java.util.Optional;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Extent;

/** The small square in which settings are tried: where it lies in the world, and what was tried in it. */
final class TrialPatch {

  private double left;
  private double top;
  private double right;
  private double bottom;
  private boolean set;
  private PaneLayer tried;
  private PaneLayer before;

  boolean isSet() {
    return set;
  }

  /** Between two corners in world units, in any order. */
  void between(double x0, double y0, double x1, double y1) {
    left = Math.min(x0, x1);
    top = Math.min(y0, y1);
    right = Math.max(x0, x1);
    bottom = Math.max(y0, y1);
    set = true;
  }

  void clear() {
    set = false;
    tried = null;
    before = null;
  }

  /** What was tried, shown inside of the patch; null for nothing. */
  void show(PaneLayer layer) {
    before = layer == null ? null : tried;
    tried = layer;
  }

  /** In the coordinates of a layer's raster, pixels where it has no place; empty while no patch is set. */
  Optional<Extent> on(PaneLayer layer) {
    if (!set) {
      return Optional.empty();
    }
    if (layer.isPlaced()) {
      return Optional.of(new Extent(left, -bottom, right, -top));
    }
    double scale = layer.rawScale;
    return Optional.of(new Extent(left / scale, top / scale, right / scale, bottom / scale));
  }

  /**
   * Draws what was tried, and the frame around it.
   *
   * @param under the layer of pane A; nothing is drawn over one that lies in another world
   * @return whether all that is to be drawn was at hand
   */
  boolean draw(
      Compositor compositor,
      Viewport view,
      PaneLayer under,
      int width,
      int height,
      boolean borders) {
    if (!set) {
      return true;
    }
    double s = view.unitsPerPixel();
    int x0 = (int) ((left - view.left()) / s);
    int y0 = (int) ((top - view.top()) / s);
    int x1 = (int) ((right - view.left()) / s);
    int y1 = (int) ((bottom - view.top()) / s);
    int[] part = {x0, y0, Math.min(width, x1), Math.min(height, y1)};
    // what was tried before stands until the next is there, so that a slider does not make the
    // picture flicker
    draw(before, compositor, view, under, part, borders);
    boolean complete = draw(tried, compositor, view, under, part, borders);
    if (complete) {
      before = null;
    }
    compositor.drawFrame(x0, y0, x1, y1);
    return complete;
  }

  private static boolean draw(
      PaneLayer layer,
      Compositor compositor,
      Viewport view,
      PaneLayer under,
      int[] part,
      boolean borders) {
    if (layer == null || layer.isPlaced() != under.isPlaced()) {
      return true;
    }
    Affine map = view.toPixels(layer.raster.grid(), layer.rawScale);
    if (layer.labels == null) {
      return compositor.drawRaster(layer.tiles, map, part[0], part[1], part[2], part[3]);
    }
    return !borders
        || compositor.drawObjects(
            layer.labels, layer.paint, map, part[0], part[1], part[2], part[3]);
  }
}
