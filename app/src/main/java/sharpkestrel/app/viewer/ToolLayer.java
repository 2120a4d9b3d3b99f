package sharpkestrel.app.viewer;

import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import sharpkestrel.raster.Affine;

/** The tool that works in both panes: its marks over them, the glass under the mouse, its clicks and drags. */
final class ToolLayer {

  /** Screen pixels within which something counts as hit. */
  private static final double REACH = 9;

  private final PaneViews views;
  private final Canvas canvas = new Canvas();
  private PaneTool tool;
  private boolean glassAlways;
  private boolean grabbed;
  private boolean inB;

  ToolLayer(PaneViews views) {
    this.views = views;
    canvas.setMouseTransparent(true);
  }

  Canvas canvas() {
    return canvas;
  }

  void setTool(PaneTool newTool) {
    tool = newTool;
  }

  /** Shows what is under the mouse larger whatever tool is in hand, or only for tools that want it. */
  void toggleGlass() {
    glassAlways = !glassAlways;
  }

  boolean isInHand() {
    return tool != null && views.isSet() && tool.isInHand();
  }

  /** Whether the mouse alone changes what is drawn. */
  boolean followsMouse() {
    return glassAlways || isInHand();
  }

  /** Whether a press at a place of the picture takes hold of something. */
  boolean press(double x, double y) {
    inB = views.overB(x);
    Affine map = views.toPixels(inB);
    double reach = REACH * Math.hypot(map.a(), map.d());
    grabbed = tool.grab(inB, map.x(x, y), map.y(x, y), reach);
    return grabbed;
  }

  void drag(double x, double y) {
    Affine map = views.toPixels(inB);
    tool.drag(inB, map.x(x, y), map.y(x, y));
  }

  void let() {
    tool.let();
  }

  void hover(double x, double y) {
    boolean here = views.overB(x);
    Affine map = views.toPixels(here);
    tool.hover(here, map.x(x, y), map.y(x, y));
  }

  void click(double x, double y, PaneTool.Click how) {
    boolean here = views.overB(x);
    Affine map = views.toPixels(here);
    tool.click(here, map.x(x, y), map.y(x, y), how);
  }

  /**
   * Draws what belongs over both panes.
   *
   * @param mouseX below 0 where the mouse is not in the picture
   * @return whether all that the glass shows was at hand
   */
  boolean draw(Compositor compositor, int width, int height, double mouseX, double mouseY) {
    if (canvas.getWidth() != width || canvas.getHeight() != height) {
      canvas.setWidth(width);
      canvas.setHeight(height);
    }
    GraphicsContext g = canvas.getGraphicsContext2D();
    g.clearRect(0, 0, width, height);
    if (!isInHand() && !(glassAlways && views.isSet())) {
      return true;
    }
    int half = (int) views.paneWidth();
    boolean complete = true;
    boolean over = views.overB(mouseX);
    Magnifier glass = null;
    if ((glassAlways || tool.wantsGlass())
        && mouseX >= 0
        && half > 2 * Magnifier.SIDE
        && height > 2 * Magnifier.SIDE) {
      glass = Magnifier.in(over ? half : 0, over ? width : half, height, mouseX, mouseY);
      complete =
          glass.draw(compositor, width, views.layer(over), views.toPixels(over), mouseX, mouseY);
    }
    for (boolean side : views.sideBySide() ? new boolean[] {false, true} : new boolean[1]) {
      if (!isInHand()) {
        break;
      }
      g.save();
      g.beginPath();
      g.rect(side ? half : 0, 0, side ? width - half : half, height);
      g.clip();
      tool.draw(g, side, views.toPixels(side).inverse());
      g.restore();
    }
    if (glass != null) {
      glass.drawRim(g);
    }
    return complete;
  }
}
