package sharpkestrel.app.viewer;

import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Raster;

/** A raster laid over pane A in one colour wherever it reaches a value; which value is changed at once. */
final class Overlay {

  private final ImageTiles tiles;
  private final int colour;

  /**
   * @param raster its first band counts
   * @param colour ARGB, to be seen through
   */
  Overlay(Raster raster, double threshold, int colour, TileNews news) {
    this.colour = colour;
    tiles = new ImageTiles(raster, new int[] {0, 0, 0}, Stretch.from(threshold, colour), news);
  }

  void setThreshold(double threshold) {
    tiles.setStretch(Stretch.from(threshold, colour));
  }

  void close() {
    tiles.close();
  }

  /**
   * @param from first column of the picture to draw in
   * @param under what it is laid over; nothing is drawn over one that lies in another world
   * @return whether all of it was at hand
   */
  boolean draw(
      Compositor compositor, Viewport view, PaneLayer under, int from, int to, int height) {
    if (!under.sharesWorldWith(tiles.raster())) {
      return true;
    }
    Affine map = view.toPixels(tiles.raster().grid(), under.rawScale);
    return compositor.drawRaster(tiles, map, from, 0, to, height);
  }
}
