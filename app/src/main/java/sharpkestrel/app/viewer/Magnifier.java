package sharpkestrel.app.viewer;

import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import sharpkestrel.raster.Affine;

/** A round glass in a corner of a pane that shows what is under the mouse, larger, with a cross at the very place. */
final class Magnifier {

  static final int SIDE = 124;
  private static final int MARGIN = 12;
  private static final double TIMES = 6;
  private static final Color RIM = Color.web("#FFF4E6");

  private final int left;
  private final int top;

  private Magnifier(int left, int top) {
    this.left = left;
    this.top = top;
  }

  /** In the lower right corner of a pane; in its lower left while the mouse is there. */
  static Magnifier in(int paneLeft, int paneRight, int height, double mouseX, double mouseY) {
    int top = height - SIDE - MARGIN;
    int right = paneRight - SIDE - MARGIN;
    boolean near = mouseX > right - 40 && mouseY > top - 40;
    return new Magnifier(near ? paneLeft + MARGIN : right, top);
  }

  /**
   * @param toPixels from the picture's pixels to the raster's
   * @return whether all that shows is there
   */
  boolean draw(
      Compositor compositor, int width, PaneLayer layer, Affine toPixels, double x, double y) {
    int[] pixels = compositor.pixels();
    int[] before = new int[SIDE * SIDE];
    for (int row = 0; row < SIDE; row++) {
      System.arraycopy(pixels, (top + row) * width + left, before, row * SIDE, SIDE);
    }
    double cx = left + SIDE / 2.0;
    double cy = top + SIDE / 2.0;
    double a = toPixels.a() / TIMES;
    double b = toPixels.b() / TIMES;
    double d = toPixels.d() / TIMES;
    double e = toPixels.e() / TIMES;
    Affine larger = new Affine(
        a, b, toPixels.x(x, y) - a * cx - b * cy, d, e, toPixels.y(x, y) - d * cx - e * cy);
    boolean complete =
        compositor.drawRaster(layer.tiles, larger, left, top, left + SIDE, top + SIDE);
    double radius = SIDE / 2.0;
    for (int row = 0; row < SIDE; row++) {
      for (int col = 0; col < SIDE; col++) {
        if (Math.hypot(col + 0.5 - radius, row + 0.5 - radius) > radius) {
          pixels[(top + row) * width + left + col] = before[row * SIDE + col];
        }
      }
    }
    return complete;
  }

  /** The glass's rim and its cross, whose middle is left free; nothing else is drawn over the glass. */
  void drawRim(GraphicsContext g) {
    double cx = left + SIDE / 2.0;
    double cy = top + SIDE / 2.0;
    g.save();
    g.beginPath();
    g.arc(cx, cy, SIDE / 2.0, SIDE / 2.0, 0, 360);
    g.clip();
    g.clearRect(left, top, SIDE, SIDE);
    g.restore();
    g.setStroke(RIM);
    g.setLineWidth(2);
    g.strokeOval(left, top, SIDE, SIDE);
    g.setLineWidth(1);
    g.strokeLine(cx - 40, cy, cx - 6, cy);
    g.strokeLine(cx + 6, cy, cx + 40, cy);
    g.strokeLine(cx, cy - 40, cx, cy - 6);
    g.strokeLine(cx, cy + 6, cx, cy + 40);
  }
}
