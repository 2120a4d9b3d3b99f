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
}
