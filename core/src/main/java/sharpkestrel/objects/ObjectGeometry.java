package sharpkestrel.objects;

import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.util.AffineTransformation;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Tracer;
import sharpkestrel.raster.Window;

/** Where objects lie in the label raster, and their exact borders. */
public final class ObjectGeometry {

  private final ObjectSet set;
  private final int[] left;
  private final int[] top;
  private final int[] right;
  private final int[] bottom;

  private ObjectGeometry(ObjectSet set) {
    this.set = set;
    int n = set.count();
    left = filled(n, Integer.MAX_VALUE);
    top = filled(n, Integer.MAX_VALUE);
    right = filled(n, -1);
    bottom = filled(n, -1);
    LabelRaster labels = set.labels();
    int width = labels.grid().width();
    int[] row = new int[width];
    int[] rowOf = set.rowOf();
    for (int y = 0; y < labels.grid().height(); y++) {
      labels.read(new Window(0, y, width, 1), row);
      for (int x = 0; x < width; x++) {
        int object = rowOf[row[x]];
        if (object >= 0) {
          left[object] = Math.min(left[object], x);
          right[object] = Math.max(right[object], x);
          top[object] = Math.min(top[object], y);
          bottom[object] = y;
        }
      }
    }
  }

  private static int[] filled(int n, int value) {
    int[] array = new int[n];
    Arrays.fill(array, value);
    return array;
  }

  public static ObjectGeometry of(ObjectSet set) {
    return new ObjectGeometry(set);
  }

  /** The smallest window around an object; empty where it has no pixels. */
  public Window bounds(int row) {
    return right[row] < 0
        ? new Window(0, 0, 0, 0)
        : new Window(left[row], top[row], right[row] - left[row] + 1, bottom[row] - top[row] + 1);
  }

  /** Which pixels of its bounds are an object's, row by row. */
  boolean[] mask(int row) {
    Window window = bounds(row);
    int[] labels = new int[window.area()];
    set.labels().read(window, labels);
    boolean[] mask = new boolean[labels.length];
    int[] rowOf = set.rowOf();
    for (int i = 0; i < mask.length; i++) {
      mask[i] = rowOf[labels[i]] == row;
    }
    return mask;
  }

  /** The exact border of an object in ground coordinates. */
  public Geometry outline(int row) {
    Window window = bounds(row);
    Geometry pixels =
        Tracer.trace(mask(row), window.width(), window.height(), window.x(), window.y());
    return toGround(set.labels().grid().affine()).transform(pixels);
  }

  public List<Geometry> outlines() {
    Geometry[] all = new Geometry[set.count()];
    IntStream.range(0, all.length).parallel().forEach(i -> all[i] = outline(i));
    return List.of(all);
  }

  public static AffineTransformation toGround(Affine a) {
    return new AffineTransformation(a.a(), a.b(), a.c(), a.d(), a.e(), a.f());
  }
}
