package sharpkestrel.app.viewer;

import sharpkestrel.app.model.Display;
import sharpkestrel.app.model.ViewPlace;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.geo.Crs;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Extent;

/**
 * Which part of the world each pane shows. Panes that share a world move together; a raw and a placed scene side by side
 * move each by itself.
 */
final class PaneViews {

  /** Nearer to the edge than this, screen pixels, a place does not count as in view. */
  private static final double MARGIN = 40;

  private final Workspace workspace;
  private final Panes panes;
  private double width;
  private double height;
  private Viewport a;
  private Viewport b;
  private PaneLayer bOf;

  PaneViews(Workspace workspace, Panes panes) {
    this.workspace = workspace;
    this.panes = panes;
    workspace.display().compareProperty().addListener((p, before, now) -> {
      // what was in the middle of pane A stays there
      boolean halved = now == Display.Compare.SIDE_BY_SIDE;
      if (a != null && halved != (before == Display.Compare.SIDE_BY_SIDE)) {
        a = a.panned(width / (halved ? -4 : 4), 0);
      }
    });
  }

  void resize(double newWidth, double newHeight) {
    width = newWidth;
    height = newHeight;
  }

  boolean isSet() {
    return a != null;
  }

  Viewport a() {
    return a;
  }

  boolean sideBySide() {
    return workspace.display().compareProperty().get() == Display.Compare.SIDE_BY_SIDE
        && panes.b() != null;
  }

  /** Whether pane B lies in another world beside pane A. */
  private boolean apart() {
    return sideBySide() && panes.a() != null && !panes.a().sharesWorldWith(panes.b());
  }

  boolean overB(double x) {
    return sideBySide() && x >= paneWidth();
  }

  double height() {
    return height;
  }

  /** What pane A shows, in the coordinates of what it shows: pixels where that has no place. */
  Extent extent(PaneLayer layer) {
    double right = a.left() + paneWidth() * a.unitsPerPixel();
    double bottom = a.top() + height * a.unitsPerPixel();
    double scale = layer.rawScale;
    return layer.isPlaced()
        ? new Extent(a.left(), -bottom, right, -a.top())
        : new Extent(a.left() / scale, a.top() / scale, right / scale, bottom / scale);
  }

  double paneWidth() {
    return sideBySide() ? Math.floor(width / 2) : width;
  }

  /** A place of the picture as one of the pane it is in. */
  double paneX(double x) {
    return overB(x) ? x - paneWidth() : x;
  }

  /** What a pane shows, as if it began at the picture's left. */
  Viewport of(boolean inB) {
    if (!inB || !apart()) {
      return a;
    }
    if (bOf != panes.b()) {
      bOf = panes.b();
      b = Viewport.fit(bOf.raster.grid(), bOf.rawScale, paneWidth(), height);
    }
    return b;
  }

  private void set(boolean inB, Viewport view) {
    if (inB && apart()) {
      b = view;
    } else {
      a = view;
    }
  }

  PaneLayer layer(boolean inB) {
    return inB ? panes.b() : panes.a();
  }

  /** From the picture's pixels to those of a pane's raster. */
  Affine toPixels(boolean inB) {
    PaneLayer layer = layer(inB);
    Viewport here = inB ? of(true).panned(paneWidth(), 0) : a;
    return here.toPixels(layer.raster.grid(), layer.rawScale);
  }

  void fit(PaneLayer layer) {
    if (width > 0) {
      a = Viewport.fit(layer.raster.grid(), layer.rawScale, paneWidth(), height);
      bOf = null;
    }
  }

  /** Shows a place of a layer in the middle, as large on the ground as pane A was. */
  void showAt(PaneLayer layer, double col, double row) {
    Affine toWorld = Viewport.worldToPixels(layer.raster.grid(), layer.rawScale).inverse();
    double scale = a.unitsPerPixel();
    a = new Viewport(
        toWorld.x(col, row) - scale * paneWidth() / 2,
        toWorld.y(col, row) - scale * height / 2,
        scale);
    bOf = null;
  }

  /** What lies in pane A's middle, and how large. */
  ViewPlace place() {
    double scale = a.unitsPerPixel();
    return new ViewPlace(a.left() + scale * paneWidth() / 2, a.top() + scale * height / 2, scale);
  }

  /** Has pane A look at a place; false where there is no room for it yet. */
  boolean lookAt(ViewPlace place) {
    if (width == 0) {
      return false;
    }
    double scale = place.unitsPerPixel();
    // pane B may be on its way still
    boolean halved = workspace.display().compareProperty().get() == Display.Compare.SIDE_BY_SIDE;
    double across = halved ? Math.floor(width / 2) : width;
    a = new Viewport(place.x() - scale * across / 2, place.y() - scale * height / 2, scale);
    bOf = null;
    return true;
  }

  /**
   * Shows the same place at the same size in another coordinate system.
   *
   * @throws CrsException where no way leads there
   */
  void moveTo(CrsName from, CrsName to) {
    double scale = a.unitsPerPixel();
    double x = a.left() + scale * paneWidth() / 2;
    double y = -(a.top() + scale * height / 2);
    double[] places = {x, y, x + scale, y, x, y + scale};
    Crs.of(from).to(Crs.of(to)).apply(places, 3);
    double area = Math.abs((places[2] - places[0]) * (places[5] - places[1])
        - (places[4] - places[0]) * (places[3] - places[1]));
    double size = Math.sqrt(area);
    a = new Viewport(places[0] - size * paneWidth() / 2, -places[1] - size * height / 2, size);
    bOf = null;
  }

  /** The place of pane A's raster in its middle. */
  double[] middle() {
    Affine map = toPixels(false);
    return new double[] {map.x(paneWidth() / 2, height / 2), map.y(paneWidth() / 2, height / 2)};
  }

  /** One screen pixel for one pixel of pane A, about the middle. */
  void oneToOne() {
    PaneLayer layer = panes.a();
    double wanted =
        Viewport.worldToPixels(layer.raster.grid(), layer.rawScale).inverse().a();
    a = a.zoomed(a.unitsPerPixel() / wanted, paneWidth() / 2, height / 2);
  }

  /** Zooms the pane under a place of the picture about that place. */
  void zoom(double factor, double x, double y) {
    set(overB(x), of(overB(x)).zoomed(factor, paneX(x), y));
  }

  void pan(boolean inB, double dx, double dy) {
    set(inB, of(inB).panned(dx, dy));
  }

  /** Brings a place of a pane's raster into the pane's middle, without changing the zoom. */
  void centreOn(boolean inB, double col, double row) {
    Affine toScreen = toPixels(inB).inverse();
    double left = inB ? paneWidth() : 0;
    pan(inB, left + paneWidth() / 2 - toScreen.x(col, row), height / 2 - toScreen.y(col, row));
  }

  /** The same only where the place is not in view. */
  void reveal(boolean inB, double col, double row) {
    Affine toScreen = toPixels(inB).inverse();
    double x = toScreen.x(col, row) - (inB ? paneWidth() : 0);
    double y = toScreen.y(col, row);
    if (!(x > MARGIN && x < paneWidth() - MARGIN && y > MARGIN && y < height - MARGIN)) {
      centreOn(inB, col, row);
    }
  }
}
