package sharpkestrel.place;

import sharpkestrel.raster.Bilinear;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/** Heights of a part of a model, bilinear between pixel centres, held constant in the outermost half pixel. */
final class HeightWindow {

  private final float[] plane;
  private final int x;
  private final int y;
  private final int width;
  private final int height;

  private HeightWindow(float[] plane, Window window) {
    this.plane = plane;
    x = window.x();
    y = window.y();
    width = window.width();
    height = window.height();
  }

  /**
   * The part of the model about some of its places.
   *
   * @param values (input) {@code stride} numbers for each place, of which the last two are column and row in the model
   */
  static HeightWindow under(
      Heights heights, double[] values, int stride, int count, Request request) {
    double left = Double.POSITIVE_INFINITY;
    double top = left;
    double right = -left;
    double bottom = -left;
    for (int i = stride - 2; i < stride * count; i += stride) {
      left = Math.min(left, values[i]);
      right = Math.max(right, values[i]);
      top = Math.min(top, values[i + 1]);
      bottom = Math.max(bottom, values[i + 1]);
    }
    Raster model = heights.model();
    Window window = left > right
        ? new Window(0, 0, 0, 0)
        : new Window(
                (int) Math.floor(Math.max(left, -8)) - 2,
                (int) Math.floor(Math.max(top, -8)) - 2,
                (int) Math.max(0, Math.min(right, model.grid().width() + 8.0) - Math.max(left, -8))
                    + 5,
                (int) Math.max(0, Math.min(bottom, model.grid().height() + 8.0) - Math.max(top, -8))
                    + 5)
            .intersect(model.grid().window());
    float[] plane = new float[window.area()];
    if (!window.isEmpty()) {
      float[][] target = new float[model.bands().size()][];
      target[0] = plane;
      model.read(0, window, target, request);
    }
    return new HeightWindow(plane, window);
  }

  /** Height at a place in the model's pixels; NaN outside of it and in its voids. */
  double at(double col, double row) {
    double px = col - x - 0.5;
    double py = row - y - 0.5;
    if (px >= 0 && py >= 0 && px < width - 1 && py < height - 1) {
      int left = (int) px;
      int above = (int) py;
      float fx = (float) (px - left);
      float fy = (float) (py - above);
      int i = above * width + left;
      float top = plane[i] + (plane[i + 1] - plane[i]) * fx;
      float bottom = plane[i + width] + (plane[i + width + 1] - plane[i + width]) * fx;
      return top + (bottom - top) * fy;
    }
    boolean within = px >= -0.5 && py >= -0.5 && px <= width - 0.5 && py <= height - 0.5;
    return within ? Bilinear.held(plane, width, height, col - x, row - y) : Double.NaN;
  }
}
