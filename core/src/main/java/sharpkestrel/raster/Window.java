package sharpkestrel.raster;

/** A rectangle of pixels; it may reach beyond the grid it is asked of, where everything is no-data. */
public record Window(int x, int y, int width, int height) {

  public Window {
    if (width < 0 || height < 0) {
      throw new IllegalArgumentException(
          "A window cannot be " + width + " x " + height + " pixels");
    }
  }

  public int right() {
    return x + width;
  }

  public int bottom() {
    return y + height;
  }

  public int area() {
    return Math.multiplyExact(width, height);
  }

  public boolean isEmpty() {
    return width == 0 || height == 0;
  }

  public Window grown(int halo) {
    return new Window(x - halo, y - halo, width + 2 * halo, height + 2 * halo);
  }

  public Window intersect(Window other) {
    int left = Math.max(x, other.x);
    int top = Math.max(y, other.y);
    int w = Math.min(right(), other.right()) - left;
    int h = Math.min(bottom(), other.bottom()) - top;
    return new Window(left, top, Math.max(0, w), Math.max(0, h));
  }

  public boolean contains(Window other) {
    return other.x >= x && other.y >= y && other.right() <= right() && other.bottom() <= bottom();
  }

  /**
   * The part of a raster that sampling at points needs; points outside of it, or NaN, ask for nothing. Empty where no
   * point is inside or near.
   *
   * @param xs (input) pixel coordinates, centres at .5
   * @param reach of the kernel in pixels
   * @param whole the raster's own window
   */
  public static Window under(double[] xs, double[] ys, int count, int reach, Window whole) {
    double left = Double.POSITIVE_INFINITY;
    double top = left;
    double right = -left;
    double bottom = -left;
    for (int i = 0; i < count; i++) {
      if (xs[i] > whole.x() - reach
          && xs[i] < whole.right() + reach
          && ys[i] > whole.y() - reach
          && ys[i] < whole.bottom() + reach) {
        left = Math.min(left, xs[i]);
        right = Math.max(right, xs[i]);
        top = Math.min(top, ys[i]);
        bottom = Math.max(bottom, ys[i]);
      }
    }
    if (left > right) {
      return new Window(whole.x(), whole.y(), 0, 0);
    }
    int x = (int) Math.floor(left) - reach;
    int y = (int) Math.floor(top) - reach;
    return new Window(
            x, y, (int) Math.floor(right) + reach + 1 - x, (int) Math.floor(bottom) + reach + 1 - y)
        .intersect(whole);
  }
}
