package sharpkestrel.app.viewer;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.Label;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Window;

/** What is tried in the trial patch, one value or four side by side, and which part of a raster that is. */
public final class Trials {

  private final Workspace workspace;
  private final Panes panes;
  private final PaneViews views;
  private final Runnable changed;
  private final TrialPatch patch = new TrialPatch();
  private final Label[] names = new Label[4];
  private Consumer<Integer> taken = k -> {};
  private Runnable again = () -> {};
  private final AtomicInteger asked = new AtomicInteger();
  private int count;

  /**
   * @param changed told when the picture is to be drawn anew
   */
  Trials(Workspace workspace, Panes panes, PaneViews views, Runnable changed) {
    this.workspace = workspace;
    this.panes = panes;
    this.views = views;
    this.changed = changed;
    for (int k = 0; k < names.length; k++) {
      names[k] = new Label();
      names[k].getStyleClass().add("variant-tag");
      names[k].setMouseTransparent(true);
      names[k].setVisible(false);
      names[k].setManaged(false);
    }
    panes.onRestretched(this::follow);
  }

  /** What is tried follows the look, as the picture around it does. */
  private void follow() {
    Look look = workspace.display().lookProperty().get();
    if (patch.layers().stream().allMatch(layer -> layer.showsBandsOf(look))) {
      for (PaneLayer layer : patch.layers()) {
        boolean alike = panes.a().holdsLike(layer.raster, look);
        layer.restretch(alike ? panes.a().sample() : layer.sample(), look);
      }
    } else {
      again.run();
    }
  }

  /** Names of variants, to be laid over the picture. */
  List<? extends Node> names() {
    return List.of(names);
  }

  /** Whether there is a patch. */
  public boolean isSet() {
    return patch.isSet();
  }

  /** Whether the patch shows something that was tried. */
  public boolean isTried() {
    return !patch.layers().isEmpty();
  }

  /** How many trials were shown so far. */
  public int count() {
    return count;
  }

  /** Sets a patch where there is none yet. */
  public void ensure() {
    if (!patch.isSet()) {
      here();
    }
  }

  /** Sets a patch of a quarter of the view in its middle. */
  public void here() {
    if (views.isSet()) {
      double w = views.paneWidth();
      double h = views.height();
      between(0.3 * w, 0.3 * h, 0.7 * w, 0.75 * h);
    }
  }

  /** Sets the patch between two places of the picture. */
  void between(double x0, double y0, double x1, double y1) {
    Viewport view = views.a();
    double s = view.unitsPerPixel();
    patch.between(
        view.left() + x0 * s, view.top() + y0 * s, view.left() + x1 * s, view.top() + y1 * s);
    changed.run();
  }

  /** Takes the patch away, and what was tried in it. */
  public void clear() {
    asked.incrementAndGet();
    patch.clear();
    again = () -> {};
    changed.run();
  }

  /** Takes away what was tried; the patch stays. */
  public void clearTrial() {
    asked.incrementAndGet();
    patch.show(null);
    again = () -> {};
    changed.run();
  }

  /**
   * Shows what a trial made inside of the patch only.
   *
   * @param value a raster, or objects
   * @param backdrop the picture under it; the raster itself where it is one
   * @param alike whether it is to be seen as light and dark as pane A
   */
  public void show(Object value, Raster backdrop, boolean alike) {
    again = () -> show(value, backdrop, alike);
    int mine = asked.incrementAndGet();
    BooleanSupplier wanted = () -> mine == asked.get();
    panes.tried(value, backdrop, window(backdrop, Integer.MAX_VALUE), alike, wanted, made -> {
      patch.show(made);
      count++;
      changed.run();
    });
  }

  /**
   * Shows four trials of one step side by side in the patch.
   *
   * @param titles what tells them apart
   * @param alike whether they are to be seen as light and dark as pane A
   * @param whenTaken told which is clicked
   */
  public void showFour(
      List<Raster> four, List<String> titles, boolean alike, Consumer<Integer> whenTaken) {
    PaneLayer[] layers = new PaneLayer[four.size()];
    taken = whenTaken;
    again = () -> showFour(four, titles, alike, whenTaken);
    int mine = asked.incrementAndGet();
    BooleanSupplier wanted = () -> mine == asked.get();
    for (int k = 0; k < layers.length; k++) {
      int place = k;
      Raster raster = four.get(k);
      panes.tried(raster, raster, window(raster, Integer.MAX_VALUE), alike, wanted, made -> {
        layers[place] = made;
        if (Arrays.stream(layers).allMatch(Objects::nonNull)) {
          patch.showVariants(List.of(layers));
          for (int n = 0; n < names.length; n++) {
            names[n].setText(titles.get(n));
          }
          changed.run();
        }
      });
    }
  }

  /** Takes the variant under a place of the picture; false where there is none. */
  boolean click(double x, double y) {
    int variant = isShowing() ? patch.variantAt(views.a(), x, y) : -1;
    if (variant >= 0) {
      taken.accept(variant);
    }
    return variant >= 0;
  }

  private boolean isShowing() {
    return views.isSet() && panes.a() != null;
  }

  private boolean sharesWorld(Raster raster) {
    return isShowing() && panes.a().sharesWorldWith(raster);
  }

  /** The patch in a raster's own coordinates, pixels where it has no place; empty where it lies in another world. */
  public Optional<Extent> patchOn(Raster raster) {
    ensure();
    return sharesWorld(raster) ? patch.on(panes.a()) : Optional.empty();
  }

  /** What is in view in a raster's own coordinates, cut to it; empty where none of it is. */
  public Optional<Extent> viewOn(Raster raster) {
    return sharesWorld(raster) ? cut(views.extent(panes.a()), raster) : Optional.empty();
  }

  /** The patch cut to a raster; empty where it lies beside it. */
  public Optional<Extent> patchWithin(Raster raster) {
    return patchOn(raster).flatMap(extent -> cut(extent, raster));
  }

  private static Optional<Extent> cut(Extent extent, Raster raster) {
    Extent common = extent.intersect(pixels(raster).extent());
    return common.isEmpty() ? Optional.empty() : Optional.of(common);
  }

  /** The grid whose coordinates extents on a raster are in. */
  private static Grid pixels(Raster raster) {
    Grid grid = raster.grid();
    return grid.crs().isKnown() ? grid : Grid.ofPixels(grid.width(), grid.height());
  }

  /**
   * The pixels of a raster under the patch, or in view where there is none, about their middle; all of it where it lies in
   * another world. To be asked on the interface thread.
   *
   * @param most pixels a side
   */
  public Window window(Raster raster, int most) {
    Optional<Extent> area = patch.isSet() ? patchWithin(raster) : viewOn(raster);
    Window found = area.map(pixels(raster)::under)
        .filter(w -> !w.isEmpty())
        .orElse(raster.grid().window());
    return middle(found, most);
  }

  /** The middle of a window, no more than so many pixels a side. */
  public static Window middle(Window window, int most) {
    int width = Math.min(window.width(), most);
    int height = Math.min(window.height(), most);
    return new Window(
        window.x() + (window.width() - width) / 2,
        window.y() + (window.height() - height) / 2,
        width,
        height);
  }

  /** Tells whether all that is to be drawn was at hand. */
  boolean draw(Compositor compositor, int width, int height, boolean borders) {
    return patch.draw(compositor, views.a(), panes.a(), width, height, borders);
  }

  /** Puts the names of variants where those are. */
  void placeNames() {
    for (int k = 0; k < names.length; k++) {
      names[k].setVisible(isShowing() && patch.hasVariants());
      if (names[k].isVisible()) {
        int[] cell = patch.cell(views.a(), k);
        names[k].autosize();
        names[k].relocate(cell[0] + 6, cell[1] + 6);
      }
    }
  }
}
