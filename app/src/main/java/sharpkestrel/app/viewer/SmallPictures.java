package sharpkestrel.app.viewer;

import sharpkestrel.app.model.Look;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/** Small pictures of places in a scene, all under one stretch; made away from the interface thread. */
public final class SmallPictures {

  private final Raster scene;
  private final int[] bands;
  private final Stretch stretch;

  public SmallPictures(Raster scene, Look look) {
    this.scene = scene;
    bands = look.bandsOf(scene);
    stretch = StretchSample.of(scene, bands, scene.grid().window()).stretch(look);
  }

  /**
   * A square picture about a place.
   *
   * @param window of full-size pixels that is to be seen whole
   * @param side of the picture
   * @return side * side colours, row by row
   */
  public int[] of(Window window, int side, Request request) {
    int longest = Math.max(1, Math.max(window.width(), window.height()));
    int level = 0;
    while (longest >> level > 2 * side && level < scene.levels() - 1) {
      level++;
    }
    int square = Math.max(1, longest >> level);
    int left = (window.x() + window.width() / 2 >> level) - square / 2;
    int top = (window.y() + window.height() / 2 >> level) - square / 2;
    Window part = new Window(left, top, square, square);
    float[][] planes = ImageTiles.read(scene, bands, level, part, request);
    int[] colours = new int[square * square];
    stretch.colour(planes, square, square, colours, square);
    int[] out = new int[side * side];
    for (int y = 0; y < side; y++) {
      for (int x = 0; x < side; x++) {
        out[y * side + x] = colours[y * square / side * square + x * square / side];
      }
    }
    return out;
  }
}
