package sharpkestrel.app.viewer;

import java.nio.IntBuffer;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Predicate;
import javafx.application.Platform;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.scene.control.Label;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.StretchRule;
import sharpkestrel.app.model.ViewPlace;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.work.Lanes;
import sharpkestrel.geo.CrsException;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/** The picture well with panes A and B, pan, zoom, swipe, picking and the trial patch. */
public final class PictureView extends Region {

  private static final Predicate<PaneLayer> NOWHERE = layer -> false;

  /** What is laid over the picture, to be seen through. */
  private static final int OVER = 0x96F0873E;

  private final Workspace workspace;
  private final ImageView image = new ImageView();
  private final Compositor compositor = new Compositor();
  private final HBox tagA = tag("A", "letter-a");
  private final HBox tagB = tag("B", "letter-b");
  private final Label badge = new Label();
  private final ReadOnlyStringWrapper zoomText = new ReadOnlyStringWrapper("");
  private final ReadOnlyBooleanWrapper classesSeen = new ReadOnlyBooleanWrapper();
  private final CursorReadout readouts = new CursorReadout(Lanes.view().layers());
  private PixelBuffer<IntBuffer> buffer;
  private final Panes panes;
  private PaneLayer readFrom;
  private Viewport drawnView;
  private boolean framePending;
  private final Trials trials;
  private final PictureMouse mouse;
  private boolean complete;
  private final PanePainter painter;
  private final PaneViews views;
  private final ToolLayer tools;
  private Predicate<PaneLayer> arrival = NOWHERE;
  private Overlay overlay;
  private long frames;
  private final Overview overview = new Overview();

  public PictureView(Workspace workspace) {
    this.workspace = workspace;
    getStyleClass().add("well");
    setId("picture");
    badge.getStyleClass().add("preview-badge");
    badge.setVisible(false);
    panes = new Panes(workspace, Lanes.view().layers(), this::stretchWindow, this::repaint);
    views = new PaneViews(workspace, panes);
    tools = new ToolLayer(views);
    painter = new PanePainter(workspace, panes, views, compositor);
    getChildren().addAll(image, tools.canvas(), tagA, tagB, badge);
    tagB.setVisible(false);
    trials = new Trials(workspace, panes, views, this::repaint);
    getChildren().addAll(trials.names());
    setFocusTraversable(true);
    mouse = new PictureMouse(this, workspace, panes, views, painter, tools, trials, overview);
    mouse.onMoved(this::readOut);
    panes.onShownInA(made -> {
      boolean otherWorld = !follows(made);
      if (panes.a() != null && panes.a().result != made.result) {
        trials.clearTrial();
      }
      if (!arrival.test(made) && (otherWorld || !views.isSet())) {
        fit(made);
      }
      arrival = NOWHERE;
      lookWhereWanted();
    });
    workspace.display().viewWantedProperty().addListener((p, before, now) -> {
      if (panes.isCurrent()) {
        lookWhereWanted();
      }
    });
    workspace.display().compareProperty().addListener((p, before, now) -> repaint());
    workspace.display().objectStyleProperty().addListener((p, before, now) -> {
      compositor.setStyle(now);
      repaint();
    });
  }

  /** Whether a layer about to be shown in pane A can be shown where the one before is, which it then is. */
  private boolean follows(PaneLayer made) {
    PaneLayer before = panes.a();
    if (before == null || before.isPlaced() != made.isPlaced()) {
      return false;
    }
    if (!before.sharesWorldWith(made) && views.isSet()) {
      try {
        views.moveTo(before.raster.grid().crs(), made.raster.grid().crs());
        trials.clear();
      } catch (CrsException apart) {
        return false;
      }
    }
    return true;
  }

  private void lookWhereWanted() {
    ViewPlace wanted = workspace.display().viewWantedProperty().get();
    if (wanted != null && views.lookAt(wanted)) {
      workspace.display().viewWantedProperty().set(null);
      repaint();
    }
  }

  /** Says what is to be in the middle of pane A when a result is shown there next. */
  public void arriveAt(Result result, double col, double row) {
    arrival = layer -> {
      boolean expected = layer.result == result && views.isSet();
      if (expected) {
        views.showAt(layer, col, row);
      }
      return expected;
    };
  }

  /** Shows all of what pane A will show next. */
  public void fitNext() {
    arrival = layer -> {
      fit(layer);
      return true;
    };
  }

  /** Column and row of what pane A shows in its middle; none where it shows nothing. */
  public Optional<double[]> middle() {
    return isShowing() ? Optional.of(views.middle()) : Optional.empty();
  }

  private static HBox tag(String letter, String style) {
    Label which = new Label(letter);
    which.getStyleClass().add(style);
    HBox box = new HBox(which, new Label());
    box.getStyleClass().add("pane-tag");
    box.setMouseTransparent(true);
    return box;
  }

  private static void name(HBox tag, PaneLayer layer) {
    ((Label) tag.getChildren().get(1))
        .setText(layer == null || layer.result == null ? "" : layer.result.title());
  }

  /** Does what showing a raster needs first, without showing it; away from the interface thread. */
  public static void readAhead(Raster raster, Look look) {
    StretchSample.of(raster, look.bandsOf(raster), raster.grid().window());
  }

  /** What the look of pane A is found from; empty where nothing is shown. */
  public Optional<StretchSample> sample() {
    return Optional.ofNullable(panes.a()).map(PaneLayer::sample);
  }

  /** Low and high ends that pane A is stretched between now, of red, green and blue; empty where nothing is shown. */
  public Optional<StretchRule.Ends> ends() {
    return Optional.ofNullable(panes.a()).map(layer -> layer.tiles.stretch().ends());
  }

  /** The raster that pane A shows; empty where nothing is shown. */
  public Optional<Raster> shown() {
    return Optional.ofNullable(panes.a()).map(layer -> layer.raster);
  }

  /** Told when pane A shows other bands or colours. */
  public void onRestretched(Runnable listener) {
    panes.onRestretched(listener);
  }

  public void onReadout(Consumer<CursorReadout.Readout> listener) {
    readouts.onReadout(listener);
  }

  public void onPicked(Consumer<Integer> listener) {
    mouse.onPicked(listener);
  }

  /** Whether pane A shows objects in the colours of their classes. */
  public ReadOnlyBooleanProperty classesSeenProperty() {
    return classesSeen.getReadOnlyProperty();
  }

  public ReadOnlyStringProperty zoomTextProperty() {
    return zoomText.getReadOnlyProperty();
  }

  /** Whether every visible tile is drawn at its own level. */
  public boolean isComplete() {
    return complete && panes.isCurrent();
  }

  /**
   * The middle of what is drawn now, as large as it fits, as a small picture.
   *
   * @return ARGB row by row; empty before the first frame
   */
  public int[] small(int width, int height) {
    if (buffer == null || !isShowing()) {
      return new int[0];
    }
    int[] all = buffer.getBuffer().array();
    int across = buffer.getWidth();
    double step = Math.min((double) across / width, (double) buffer.getHeight() / height);
    double left = (across - step * width) / 2;
    double top = (buffer.getHeight() - step * height) / 2;
    int[] pixels = new int[width * height];
    for (int y = 0; y < height; y++) {
      for (int x = 0; x < width; x++) {
        int at = (int) (top + (y + 0.5) * step) * across + (int) (left + (x + 0.5) * step);
        pixels[y * width + x] = 0xff000000 | all[at];
      }
    }
    return pixels;
  }

  /** How many frames were drawn so far. */
  public long frames() {
    return frames;
  }

  private Window stretchWindow(Raster raster, Look look) {
    boolean elsewhere = panes.a() != null && !panes.a().sharesWorldWith(raster);
    if (!look.stretch().fromView() || !views.isSet() || elsewhere) {
      return raster.grid().window();
    }
    Affine map = views
        .a()
        .toPixels(
            raster.grid(),
            panes.a() != null && raster == panes.a().raster ? panes.a().rawScale : 1);
    int left = (int) map.x(0, 0);
    int top = (int) map.y(0, 0);
    return new Window(left, top, (int) Math.max(1, map.x(getWidth(), 0) - left), (int)
            Math.max(1, map.y(0, getHeight()) - top))
        .intersect(raster.grid().window());
  }

  /** Shows all of pane A. */
  public void fit() {
    if (panes.a() != null) {
      fit(panes.a());
    }
  }

  private void fit(PaneLayer layer) {
    views.fit(layer);
    repaint();
  }

  /** One screen pixel for one pixel of pane A, about the middle. */
  public void oneToOne() {
    if (isShowing()) {
      views.oneToOne();
      repaint();
    }
  }

  private boolean isShowing() {
    return views.isSet() && panes.a() != null;
  }

  /** Takes a tool in hand; null puts the one in hand away. */
  public void setTool(PaneTool tool) {
    tools.setTool(tool);
    repaint();
  }

  /**
   * Lays a raster over pane A wherever it reaches a value.
   *
   * @param raster its first band counts
   */
  public void showOver(Raster raster, double threshold) {
    overlay = new Overlay(raster, threshold, OVER, () -> Platform.runLater(this::repaint));
    painter.setOverlay(overlay);
    repaint();
  }

  /** Changes from which value on the raster laid over pane A shows, at once. */
  public void setThresholdOver(double threshold) {
    if (overlay != null) {
      overlay.setThreshold(threshold);
      repaint();
    }
  }

  public void clearOver() {
    overlay = null;
    painter.setOverlay(null);
    repaint();
  }

  /** Draws objects of pane A another way: at once, or as soon as the layer that is being made for it is there. */
  public void paint(ObjectPaint paint) {
    panes.paint(paint);
  }

  /** Draws pane A's objects as they are drawn when they are first shown. */
  public void paintAsFirst() {
    panes.paintAsFirst();
  }

  /** What is tried in the trial patch. */
  public Trials trials() {
    return trials;
  }

  /** All of pane A in the corner, or not. */
  public void toggleOverview() {
    overview.toggle();
    repaint();
    requestLayout();
  }

  /** What is under the mouse larger in the corner, or not. */
  public void toggleGlass() {
    tools.toggleGlass();
    repaint();
  }

  public void drawPatch() {
    mouse.drawPatch();
  }

  public void setSpaceHeld(boolean held) {
    mouse.setSpaceHeld(held);
  }

  public void setBlinking(boolean now) {
    painter.setBlinking(now);
    repaint();
  }

  public void toggleOutlines() {
    painter.toggleOutlines();
    repaint();
  }

  /** Brings a place of pane A into its middle without changing the zoom. */
  public void centreOn(double col, double row) {
    if (isShowing()) {
      views.centreOn(false, col, row);
      repaint();
    }
  }

  /** Brings a place of one of the panes into view where it is not, without changing the zoom. */
  public void reveal(boolean inB, double col, double row) {
    if (isShowing() && views.sideBySide()) {
      views.reveal(inB, col, row);
      repaint();
    }
  }

  private void readOut() {
    if (isShowing() && mouse.x() >= 0) {
      boolean inB = views.overB(mouse.x());
      readouts.ask(
          views.layer(inB), views.of(inB), views.paneX(mouse.x()), mouse.y(), zoomText.get());
    }
  }

  /** Asks for a frame; many asks before the next pulse make one frame. */
  public void repaint() {
    if (!framePending) {
      framePending = true;
      Platform.runLater(() -> {
        framePending = false;
        drawFrame();
      });
    }
  }

  @Override
  protected void layoutChildren() {
    int w = (int) getWidth();
    int h = (int) getHeight();
    if (w > 0 && h > 0 && (buffer == null || buffer.getWidth() != w || buffer.getHeight() != h)) {
      buffer =
          new PixelBuffer<>(w, h, IntBuffer.allocate(w * h), PixelFormat.getIntArgbPreInstance());
      image.setImage(new WritableImage(buffer));
      views.resize(w, h);
      if (!views.isSet()) {
        fit();
      }
      if (panes.isCurrent()) {
        lookWhereWanted();
      }
      repaint();
    }
    tagA.autosize();
    tagA.relocate(10, 10);
    tagB.autosize();
    tagB.relocate(w - tagB.getWidth() - 10, 10);
    badge.autosize();
    badge.relocate(overview.besideIt(), h - badge.getHeight() - 10);
  }

  private void drawFrame() {
    if (buffer == null) {
      return;
    }
    int w = buffer.getWidth();
    int h = buffer.getHeight();
    compositor.begin(w, h);
    PaneLayer a = panes.a();
    complete = true;
    name(tagA, a);
    classesSeen.set(a != null && a.showsClasses());
    if (a != readFrom) {
      readFrom = a;
      readOut();
    }
    name(tagB, panes.b());
    if (isShowing()) {
      if (views.a() != drawnView) {
        drawnView = views.a();
        panes.viewMoved();
      }
      workspace.display().viewProperty().set(views.place());
      complete = painter.draw(w, h);
      complete &= overview.draw(compositor, a, views.a(), (int) views.paneWidth(), h);
      complete &= tools.draw(compositor, w, h, mouse.x(), mouse.y());
      complete &= trials.draw(compositor, w, h, painter.outlinesShown());
      tagB.setVisible(painter.showsB());
      showZoom(a);
    }
    trials.placeNames();
    System.arraycopy(compositor.pixels(), 0, buffer.getBuffer().array(), 0, w * h);
    buffer.updateBuffer(all -> null);
    frames++;
  }

  private void showZoom(PaneLayer a) {
    double ratio = views.a().toPixels(a.raster.grid(), a.rawScale).a();
    zoomText.set(
        ratio >= 1
            ? "1:"
                + (ratio < 9.95 && Math.abs(ratio - Math.rint(ratio)) > 0.05
                    ? String.format(java.util.Locale.ROOT, "%.1f", ratio)
                    : Long.toString(Math.round(ratio)))
            : String.format(java.util.Locale.ROOT, "%.1f:1", 1 / ratio));
    int level = Compositor.levelFor(ratio, a.raster.levels());
    boolean preview = a.raster.zoom() == Zoom.FULL_RESOLUTION && level > 0;
    badge.setVisible(preview);
    badge.setText("preview 1:" + (1 << level));
  }
}
