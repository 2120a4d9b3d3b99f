package sharpkestrel.app.viewer;

import javafx.scene.canvas.GraphicsContext;
import sharpkestrel.raster.Affine;

/**
 * A tool that is used in the picture: it draws over the panes and takes clicks and drags in them. Places are in full-size
 * pixels of the raster that the pane shows.
 */
public interface PaneTool {

  /** Whether it works on what the panes show now. */
  boolean isInHand();

  /** Whether what is under the mouse is to be shown larger. */
  default boolean wantsGlass() {
    return false;
  }

  /**
   * @param inB which pane
   * @param toScreen from the raster's pixels to those of the picture
   */
  default void draw(GraphicsContext g, boolean inB, Affine toScreen) {}

  /**
   * Asked when the mouse is pressed; true takes the drag that may follow.
   *
   * @param reach pixels of the raster in which something counts as hit
   */
  default boolean grab(boolean inB, double col, double row, double reach) {
    return false;
  }

  default void drag(boolean inB, double col, double row) {}

  /** The drag has ended. */
  default void let() {}

  void click(boolean inB, double col, double row);

  /** The mouse is over a place, no button held. */
  default void hover(boolean inB, double col, double row) {}

  /** What is held while clicking. */
  enum Click {
    PLAIN,
    /** With Shift. */
    ADD,
    /** With Alt. */
    LEAVE_OUT
  }

  /** A click of a tool that tells one with a key held from a plain one. */
  default void click(boolean inB, double col, double row, Click how) {
    click(inB, col, row);
  }
}
