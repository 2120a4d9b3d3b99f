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
}
