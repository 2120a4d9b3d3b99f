package sharpkestrel.app.viewer;

import sharpkestrel.app.model.Display;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.raster.Affine;

/** Composes what the panes show into one frame: alone, swiped, side by side or blinking. */
final class PanePainter {

  private final Workspace workspace;
  private final Panes panes;
  private final PaneViews views;
  private final Compositor compositor;
  private double swipe = 0.6;
  private boolean blinking;
  private boolean outlinesShown = true;
  private Overlay overlay;

  PanePainter(Workspace workspace, Panes panes, PaneViews views, Compositor compositor) {
    this.workspace = workspace;
    this.panes = panes;
    this.views = views;
    this.compositor = compositor;
  }

  /** Where pane B begins when it is swiped over pane A, as a share of the width. */
  double swipe() {
    return swipe;
  }

  void setSwipe(double share) {
    swipe = Math.max(0.02, Math.min(0.98, share));
  }

  void setBlinking(boolean now) {
    blinking = now;
  }

  void toggleOutlines() {
    outlinesShown = !outlinesShown;
  }

  /** Lays something over pane A; null takes it away. */
  void setOverlay(Overlay newOverlay) {
    if (overlay != null && overlay != newOverlay) {
      overlay.close();
    }
    overlay = newOverlay;
  }

  boolean outlinesShown() {
    return outlinesShown;
  }

  /** Whether both panes lie in one world, so that one can be laid over the other. */
  private boolean canOverlay() {
    return panes.b() != null && panes.a().sharesWorldWith(panes.b());
  }

  boolean showsB() {
    return workspace.display().compareProperty().get() != Display.Compare.ONE && panes.b() != null
        || blinking && canOverlay();
  }

  /** Draws a frame; tells whether all of it was at hand. */
  boolean draw(int width, int height) {
    PaneLayer a = panes.a();
    PaneLayer b = panes.b();
    Viewport view = views.a();
    if (blinking && canOverlay()) {
      return draw(b, view, 0, width, height);
    }
    return switch (workspace.display().compareProperty().get()) {
      case SWIPE -> {
        int split = canOverlay() ? (int) (swipe * width) : width;
        boolean complete = draw(a, view, 0, split, height);
        if (canOverlay()) {
          complete &= draw(b, view, split, width, height);
          compositor.drawLine(split);
        }
        yield complete;
      }
      case SIDE_BY_SIDE -> {
        int half = b == null ? width : width / 2;
        boolean complete = draw(a, view, 0, half, height);
        if (b != null) {
          complete &= draw(b, views.of(true).panned(half, 0), half, width, height);
          compositor.drawLine(half);
        }
        yield complete;
      }
      case ONE -> draw(a, view, 0, width, height);
    };
  }

  private boolean draw(PaneLayer layer, Viewport at, int from, int to, int height) {
    Affine map = at.toPixels(layer.raster.grid(), layer.rawScale);
    boolean complete = compositor.drawRaster(layer.tiles, map, from, 0, to, height);
    if (overlay != null && layer == panes.a()) {
      complete &= overlay.draw(compositor, at, layer, from, to, height);
    }
    if (!outlinesShown) {
      return complete;
    }
    if (layer.labels != null && layer.paint != null) {
      complete &= compositor.drawObjects(layer.labels, layer.paint, map, from, 0, to, height);
    }
    double s = 1 / at.unitsPerPixel();
    Affine worldToScreen = new Affine(s, 0, -at.left() * s, 0, s, -at.top() * s);
    for (Drawing.Drawn drawn : layer.outlines) {
      compositor.drawOutlines(drawn.outlines(), worldToScreen, drawn.colour(), from, 0, to, height);
    }
    return complete;
  }
}
