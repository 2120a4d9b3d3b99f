package sharpkestrel.app.viewer;

import java.util.Arrays;
import java.util.List;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Window;

/**
 * Draws objects that nobody sees until the compiler has noticed the loops that draw them: interpreted, the first frame
 * with outlines would take a tenth of a second and more.
 */
public final class ViewerWarmup {

  private static final int SIDE = 256;
  private static final int OBJECT = 16;
  private static final int FRAMES = 60;

  private ViewerWarmup() {}

  /** To be called away from the interface thread. */
  public static void run() {
    int across = SIDE / OBJECT;
    int count = across * across;
    LabelTiles tiles = new LabelTiles(squares(across), () -> {});
    int[] rowOf = new int[count + 1];
    Arrays.setAll(rowOf, label -> label - 1);
    float[] sides = new float[count];
    Arrays.fill(sides, OBJECT);
    boolean[] bordered = new boolean[count];
    Arrays.fill(bordered, true);
    int[] fill = new int[count];
    Arrays.fill(fill, 0, count / 2, 0x40ff8040);
    ObjectPaint paint = new ObjectPaint(rowOf, rowOf, fill, bordered, sides, 3, new int[0]);
    Compositor compositor = new Compositor();
    var box = new GeometryFactory().toGeometry(new Envelope(10, 200, 20, 180));
    for (int frame = 0; frame < FRAMES; frame++) {
      compositor.begin(SIDE, SIDE);
      compositor.drawObjects(tiles, paint, Affine.IDENTITY, 0, 0, SIDE, SIDE);
      compositor.drawOutlines(List.of(box), Affine.IDENTITY, Drawings.LIGHT, 0, 0, SIDE, SIDE);
    }
  }

  private static LabelRaster squares(int across) {
    return new LabelRaster() {
      @Override
      public Grid grid() {
        return Grid.ofPixels(SIDE, SIDE);
      }

      @Override
      public int maxLabel() {
        return across * across;
      }

      @Override
      public void read(Window window, int[] target) {
        for (int i = 0; i < target.length; i++) {
          int x = window.x() + i % window.width();
          int y = window.y() + i / window.width();
          target[i] = 1 + y / OBJECT * across + x / OBJECT;
        }
      }
    };
  }
}
