package sharpkestrel.app.viewer;

import java.util.List;
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
  private List<PaneLayer> variants = List.of();

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
    let();
  }

  /** What was tried is not drawn any more. */
  private void let() {
    layers().forEach(layer -> layer.close(null));
    if (tried != null) {
      tried.close(null);
    }
    if (before != null) {
      before.close(null);
    }
    variants = List.of();
    tried = null;
    before = null;
  }

  /** What was tried, shown inside of the patch; null for nothing. */
  void show(PaneLayer layer) {
    if (layer == null) {
      let();
      return;
    }
    variants.forEach(variant -> variant.close(null));
    variants = List.of();
    if (before == null) {
      before = tried;
    } else {
      // that one was never whole, and is not wanted any more
      tried.close(null);
    }
    tried = layer;
  }

  /** The same step with four values of a setting, side by side: each shows the ground in the patch's middle. */
  void showVariants(List<PaneLayer> four) {
    variants.forEach(variant -> variant.close(null));
    variants = List.copyOf(four);
  }

  /** All that is shown in it. */
  List<PaneLayer> layers() {
    return tried == null || hasVariants() ? variants : List.of(tried);
  }

  boolean hasVariants() {
    return !variants.isEmpty();
  }

  /** The variant under a place of the picture; -1 for none. */
  int variantAt(Viewport view, double x, double y) {
    for (int k = 0; k < variants.size(); k++) {
      int[] cell = cell(view, k);
      if (x >= cell[0] && y >= cell[1] && x < cell[2] && y < cell[3]) {
        return k;
      }
    }
    return -1;
  }

  /** Left, top, right and bottom of a quarter of the patch on the screen. */
  int[] cell(Viewport view, int k) {
    double s = view.unitsPerPixel();
    double x0 = (left - view.left()) / s;
    double y0 = (top - view.top()) / s;
    double x1 = (right - view.left()) / s;
    double y1 = (bottom - view.top()) / s;
    double midX = (x0 + x1) / 2;
    double midY = (y0 + y1) / 2;
    boolean right2 = (k & 1) == 1;
    boolean lower = (k >> 1) == 1;
    return new int[] {
      (int) (right2 ? midX : x0),
      (int) (lower ? midY : y0),
      (int) (right2 ? x1 : midX),
      (int) (lower ? y1 : midY)
    };
  }

  private boolean drawVariants(
      Compositor compositor, Viewport view, PaneLayer under, int width, int height) {
    boolean complete = true;
    for (int k = 0; k < variants.size(); k++) {
      PaneLayer layer = variants.get(k);
      if (!layer.sharesWorldWith(under)) {
        continue;
      }
      int[] cell = cell(view, k);
      double s = view.unitsPerPixel();
      // the middle of the patch comes into the middle of the cell
      double dx = (cell[0] + cell[2]) / 2.0 - ((left + right) / 2 - view.left()) / s;
      double dy = (cell[1] + cell[3]) / 2.0 - ((top + bottom) / 2 - view.top()) / s;
      Affine map = view.panned(dx, dy).toPixels(layer.raster.grid(), layer.rawScale);
      complete &= compositor.drawRaster(
          layer.tiles, map, cell[0], cell[1], Math.min(width, cell[2]), Math.min(height, cell[3]));
      compositor.drawFrame(cell[0], cell[1], cell[2], cell[3]);
    }
    return complete;
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
    if (hasVariants()) {
      return drawVariants(compositor, view, under, width, height);
    }
    int[] part = {x0, y0, Math.min(width, x1), Math.min(height, y1)};
    // what was tried before stands until the next is there, so that a slider does not make the
    // picture flicker
    clear(compositor, view, under, part, borders);
    draw(before, compositor, view, under, part, borders);
    boolean complete = draw(tried, compositor, view, under, part, borders);
    if (complete && before != null) {
      before.close(tried);
      before = null;
    }
    compositor.drawFrame(x0, y0, x1, y1);
    return complete;
  }

  /** Objects that were tried stand in place of those around the patch, not over them. */
  private void clear(
      Compositor compositor, Viewport view, PaneLayer under, int[] part, boolean borders) {
    if (borders && tried != null && tried.labels != null && under.labels != null) {
      Affine map = view.toPixels(under.raster.grid(), under.rawScale);
      compositor.drawRaster(under.tiles, map, part[0], part[1], part[2], part[3]);
    }
  }

  private static boolean draw(
      PaneLayer layer,
      Compositor compositor,
      Viewport view,
      PaneLayer under,
      int[] part,
      boolean borders) {
    if (layer == null || !layer.sharesWorldWith(under)) {
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
