package sharpkestrel.app.viewer;

import java.util.function.Consumer;
import javafx.scene.Cursor;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import sharpkestrel.app.model.Display;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Window;

/** What the mouse does in the picture: pan, zoom and swipe, the patch, the tool in hand, picking. */
final class PictureMouse {

  /** Nearer to the swipe's line than this, screen pixels, the mouse takes it. */
  private static final double NEAR = 9;

  /** A press that moves further, screen pixels, is no click. */
  private static final double STILL = 4;

  private static final double ZOOM = 1.0018;

  private final PictureView picture;
  private final Workspace workspace;
  private final Panes panes;
  private final PaneViews views;
  private final PanePainter painter;
  private final ToolLayer tools;
  private final Trials trials;
  private final Overview overview;
  private double x = -1;
  private double y = -1;
  private double pressX;
  private double pressY;
  private double lastX;
  private double lastY;
  private boolean dragged;
  private boolean grabbed;
  private boolean swiping;
  private boolean spaceHeld;
  private boolean patchTool;
  private Consumer<Integer> picked = row -> {};
  private Runnable whenMoved = () -> {};

  PictureMouse(
      PictureView picture,
      Workspace workspace,
      Panes panes,
      PaneViews views,
      PanePainter painter,
      ToolLayer tools,
      Trials trials,
      Overview overview) {
    this.picture = picture;
    this.workspace = workspace;
    this.panes = panes;
    this.views = views;
    this.painter = painter;
    this.tools = tools;
    this.trials = trials;
    this.overview = overview;
    picture.setOnScroll(e -> {
      if (views.isSet() && e.getDeltaY() != 0) {
        views.zoom(Math.pow(ZOOM, e.getDeltaY()), e.getX(), e.getY());
        picture.repaint();
      }
    });
    picture.setOnMousePressed(this::pressed);
    picture.setOnMouseDragged(this::dragged);
    picture.setOnMouseReleased(this::released);
    picture.setOnMouseMoved(this::moved);
  }

  /** Where the mouse was last in the picture; below 0 before it ever was. */
  double x() {
    return x;
  }

  double y() {
    return y;
  }

  /** Told the row of the object that is clicked, -1 for none. */
  void onPicked(Consumer<Integer> listener) {
    picked = listener;
  }

  void onMoved(Runnable listener) {
    whenMoved = listener;
  }

  /** The next drag draws the trial patch. */
  void drawPatch() {
    patchTool = true;
    picture.setCursor(Cursor.CROSSHAIR);
  }

  /** While it is held the mouse pans, whatever tool is in hand. */
  void setSpaceHeld(boolean held) {
    spaceHeld = held;
  }

  private boolean onSwipe(MouseEvent e) {
    return workspace.display().compareProperty().get() == Display.Compare.SWIPE
        && panes.b() != null
        && Math.abs(e.getX() - painter.swipe() * picture.getWidth()) < NEAR;
  }

  private void pressed(MouseEvent e) {
    picture.requestFocus();
    pressX = lastX = e.getX();
    pressY = lastY = e.getY();
    dragged = false;
    grabbed = !spaceHeld && tools.isInHand() && tools.press(e.getX(), e.getY());
    swiping = !spaceHeld && onSwipe(e);
  }

  private void dragged(MouseEvent e) {
    dragged |= Math.hypot(e.getX() - pressX, e.getY() - pressY) > STILL;
    if (grabbed && dragged) {
      tools.drag(e.getX(), e.getY());
      x = e.getX();
      y = e.getY();
    } else if (swiping) {
      painter.setSwipe(e.getX() / picture.getWidth());
    } else if (patchTool && !spaceHeld && views.isSet()) {
      trials.between(pressX, pressY, e.getX(), e.getY());
    } else if (views.isSet() && dragged && !grabbed) {
      views.pan(views.overB(pressX), e.getX() - lastX, e.getY() - lastY);
    }
    lastX = e.getX();
    lastY = e.getY();
    picture.repaint();
  }

  private void released(MouseEvent e) {
    boolean used = !dragged && (clickedOverview(e) || trials.click(e.getX(), e.getY()));
    if (patchTool && dragged) {
      patchTool = false;
      picture.setCursor(Cursor.DEFAULT);
    } else if (grabbed && dragged) {
      tools.let();
    } else if (!used && !dragged && tools.isInHand() && e.getButton() == MouseButton.PRIMARY) {
      tools.click(
          e.getX(),
          e.getY(),
          e.isShiftDown()
              ? PaneTool.Click.ADD
              : e.isAltDown() ? PaneTool.Click.LEAVE_OUT : PaneTool.Click.PLAIN);
    } else if (!used && !dragged && !swiping && e.getButton() == MouseButton.PRIMARY) {
      pick(e.getX(), e.getY());
    }
    swiping = false;
    grabbed = false;
    picture.repaint();
  }

  private boolean clickedOverview(MouseEvent e) {
    if (!views.isSet() || panes.a() == null || !overview.contains(e.getX(), e.getY())) {
      return false;
    }
    double[] at = overview.at(panes.a(), e.getX(), e.getY());
    picture.centreOn(at[0], at[1]);
    return true;
  }

  /** Tells which object lies at a place of the picture, once that was looked up. */
  private void pick(double atX, double atY) {
    PaneLayer layer = panes.a();
    if (layer == null || layer.paint == null || !views.isSet()) {
      picked.accept(-1);
      return;
    }
    Affine map = views.a().toPixels(layer.raster.grid(), layer.rawScale);
    int col = (int) Math.floor(map.x(views.paneX(atX), atY));
    int row = (int) Math.floor(map.y(views.paneX(atX), atY));
    workspace.ask(
        this,
        job -> {
          int[] label = new int[1];
          layer.labels.labels().read(new Window(col, row, 1, 1), label);
          return label[0];
        },
        label -> {
          if (panes.a() == layer) {
            picked.accept(layer.paint.rowOf()[label]);
          }
        });
  }

  private void moved(MouseEvent e) {
    x = e.getX();
    y = e.getY();
    boolean cross = patchTool || tools.isInHand();
    picture.setCursor(onSwipe(e) ? Cursor.H_RESIZE : cross ? Cursor.CROSSHAIR : Cursor.DEFAULT);
    whenMoved.run();
    if (tools.isInHand()) {
      tools.hover(x, y);
    }
    if (tools.followsMouse()) {
      picture.repaint();
    }
  }
}
