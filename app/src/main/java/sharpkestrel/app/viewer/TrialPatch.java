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
  }

  /** What was tried, shown inside of the patch; null for nothing. */
  void show(PaneLayer layer) {
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
    boolean complete = true;
    if (tried != null && tried.isPlaced() == under.isPlaced()) {
      Affine map = view.toPixels(tried.raster.grid(), tried.rawScale);
      int endX = Math.min(width, x1);
      int endY = Math.min(height, y1);
      if (tried.labels == null) {
        complete = compositor.drawRaster(tried.tiles, map, x0, y0, endX, endY);
      } else if (borders) {
        complete = compositor.drawObjects(tried.labels, tried.paint, map, x0, y0, endX, endY);
      }
    }
    compositor.drawFrame(x0, y0, x1, y1);
    return complete;
  }
}
