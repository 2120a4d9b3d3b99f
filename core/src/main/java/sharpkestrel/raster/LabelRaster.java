package sharpkestrel.raster;

/** Whole numbers per pixel (object ids); they never pass through float. 0 is no object. */
public interface LabelRaster {

  Grid grid();

  /**
   * @param window in full-size pixels, inside of the grid or beyond it (0 there)
   * @param target (output) window height * width, row by row
   */
  void read(Window window, int[] target);

  /** The largest label. */
  int maxLabel();

  /** The labels of an area of the grid, on its pixels alone. */
  default LabelRaster part(Window area) {
    LabelRaster whole = this;
    return new LabelRaster() {
      @Override
      public Grid grid() {
        return whole.grid().part(area);
      }

      @Override
      public void read(Window window, int[] target) {
        whole.read(
            new Window(
                window.x() + area.x(), window.y() + area.y(), window.width(), window.height()),
            target);
      }

      @Override
      public int maxLabel() {
        return whole.maxLabel();
      }
    };
  }
}
