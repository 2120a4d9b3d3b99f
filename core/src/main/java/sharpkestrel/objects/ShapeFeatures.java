package sharpkestrel.objects;

import java.util.ArrayList;
import java.util.List;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.LocalArea;
import sharpkestrel.outline.MinimumRectangle;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Window;

/**
 * Form of every object in one pass over the labels: pixels in each row of an object give its hull, pixels beside
 * others its border.
 *
 * <p>The perimeter counts crossings of the border by lines in four directions (Crofton's formula), which unlike a
 * count of pixel sides does not depend on how an object is turned: within 6 % for straight sides.
 */
final class ShapeFeatures {

  private ShapeFeatures() {}

  static List<Table.Column> of(ObjectSet set, ObjectGeometry geometry) {
    int n = set.count();
    LabelRaster labels = set.labels();
    Grid grid = labels.grid();
    int width = grid.width();
    int height = grid.height();
    int[] rowOf = set.rowOf();
    int[] offsets = new int[n + 1];
    int[] tops = new int[n];
    for (int i = 0; i < n; i++) {
      Window bounds = geometry.bounds(i);
      tops[i] = bounds.y();
      offsets[i + 1] = offsets[i] + bounds.height();
    }
    int[] low = new int[offsets[n]];
    int[] high = new int[offsets[n]];
    java.util.Arrays.fill(low, Integer.MAX_VALUE);
    java.util.Arrays.fill(high, -1);
    long[] pixels = new long[n];
    long[] straight = new long[n];
    long[] diagonal = new long[n];
    Moments moments = new Moments(n);
    int[] euler = new int[n];
    int[] above = new int[width + 2];
    int[] here = new int[width + 2];
    int[] below = new int[width + 2];
    java.util.Arrays.fill(above, -1);
    fetch(labels, rowOf, 0, here);
    for (int y = 0; y < height; y++) {
      if (y + 1 < height) {
        fetch(labels, rowOf, y + 1, below);
      } else {
        java.util.Arrays.fill(below, -1);
      }
      for (int x = 1; x <= width; x++) {
        int object = here[x];
        if (object < 0) {
          continue;
        }
        pixels[object]++;
        moments.add(object, x - 1, y);
        euler[object] += corners(object, here[x + 1], below[x], below[x + 1]);
        int k = offsets[object] + y - tops[object];
        low[k] = Math.min(low[k], x - 1);
        high[k] = x;
        straight[object] += (here[x - 1] != object ? 1 : 0)
            + (here[x + 1] != object ? 1 : 0)
            + (above[x] != object ? 1 : 0)
            + (below[x] != object ? 1 : 0);
        diagonal[object] += (above[x - 1] != object ? 1 : 0)
            + (above[x + 1] != object ? 1 : 0)
            + (below[x - 1] != object ? 1 : 0)
            + (below[x + 1] != object ? 1 : 0);
      }
      int[] swap = above;
      above = here;
      here = below;
      below = swap;
    }
    LocalArea local = LocalArea.of(set.labels().grid());
    double[] area = new double[n];
    double[] perimeter = new double[n];
    double[] length = new double[n];
    double[] across = new double[n];
    double[] elongation = new double[n];
    double[] compactness = new double[n];
    double[] rectangularity = new double[n];
    double[] orientation = new double[n];
    double[] hull = new double[n];
    double[] solidity = new double[n];
    double[] eccentricity = new double[n];
    double[] holes = new double[n];
    for (int i = 0; i < n; i++) {
      double pixelArea = set.ground().area() * local.at(moments.col(i), moments.row(i));
      double gsd = Math.sqrt(pixelArea);
      area[i] = pixels[i] * pixelArea;
      perimeter[i] = Math.PI / 8 * (straight[i] + diagonal[i] / Math.sqrt(2)) * gsd;
      Hull corners = Hull.of(low, high, offsets[i], offsets[i + 1], tops[i]);
      MinimumRectangle box = corners.rectangle();
      length[i] = box.length() * gsd;
      across[i] = box.width() * gsd;
      elongation[i] = box.length() / box.width();
      compactness[i] = 4 * Math.PI * area[i] / (perimeter[i] * perimeter[i]);
      rectangularity[i] = pixels[i] / (box.length() * box.width());
      // clockwise from north, for rows that run south
      orientation[i] = (90 + Math.toDegrees(box.angle())) % 180;
      hull[i] = corners.area() * pixelArea;
      solidity[i] = pixels[i] / corners.area();
      eccentricity[i] = moments.eccentricity(i);
      holes[i] = Math.max(0, 1 - euler[i]);
    }
    List<Table.Column> columns = new ArrayList<>();
    columns.add(FeatureCatalogue.column("area", area));
    columns.add(FeatureCatalogue.column("perimeter", perimeter));
    columns.add(FeatureCatalogue.column("length", length));
    columns.add(FeatureCatalogue.column("width", across));
    columns.add(FeatureCatalogue.column("elongation", elongation));
    columns.add(FeatureCatalogue.column("compactness", compactness));
    columns.add(FeatureCatalogue.column("rectangularity", rectangularity));
    columns.add(FeatureCatalogue.column("orientation", orientation));
    columns.add(FeatureCatalogue.column("hull_area", hull));
    columns.add(FeatureCatalogue.column("solidity", solidity));
    columns.add(FeatureCatalogue.column("eccentricity", eccentricity));
    columns.add(FeatureCatalogue.column("holes", holes));
    return columns;
  }

  /**
   * What a pixel adds to the Euler number of its object, pixels less pairs side by side plus blocks of four: pieces less holes
   * where pixels that touch by a corner do not hang together (Gray 1971, IEEE Trans. Computers 20(5), 551-561).
   */
  private static int corners(int object, int right, int below, int belowRight) {
    boolean across = right == object;
    boolean down = below == object;
    return 1 - (across ? 1 : 0) - (down ? 1 : 0) + (across && down && belowRight == object ? 1 : 0);
  }

  /** Sums of whole numbers about each object's first pixel, so that nothing is lost in large scenes. */
  private static final class Moments {
    private final int[] x0;
    private final int[] y0;
    private final long[] n;
    private final long[] x;
    private final long[] y;
    private final long[] xx;
    private final long[] yy;
    private final long[] xy;

    Moments(int objects) {
      x0 = new int[objects];
      y0 = new int[objects];
      n = new long[objects];
      x = new long[objects];
      y = new long[objects];
      xx = new long[objects];
      yy = new long[objects];
      xy = new long[objects];
    }

    void add(int object, int col, int row) {
      if (n[object]++ == 0) {
        x0[object] = col;
        y0[object] = row;
      }
      long dx = col - x0[object];
      long dy = row - y0[object];
      x[object] += dx;
      y[object] += dy;
      xx[object] += dx * dx;
      yy[object] += dy * dy;
      xy[object] += dx * dy;
    }

    double col(int i) {
      return x0[i] + 0.5 + (double) x[i] / Math.max(1, n[i]);
    }

    double row(int i) {
      return y0[i] + 0.5 + (double) y[i] / Math.max(1, n[i]);
    }

    /** Of the ellipse that has the same second moments, pixels taken as squares. */
    double eccentricity(int i) {
      double mx = (double) x[i] / n[i];
      double my = (double) y[i] / n[i];
      double a = (double) xx[i] / n[i] - mx * mx + 1.0 / 12;
      double b = (double) yy[i] / n[i] - my * my + 1.0 / 12;
      double c = (double) xy[i] / n[i] - mx * my;
      double middle = (a + b) / 2;
      double half = Math.hypot((a - b) / 2, c);
      return Math.sqrt(Math.max(0, 1 - (middle - half) / (middle + half)));
    }
  }

  private static void fetch(LabelRaster labels, int[] rowOf, int y, int[] row) {
    int width = labels.grid().width();
    int[] raw = new int[width];
    labels.read(new Window(0, y, width, 1), raw);
    row[0] = -1;
    row[width + 1] = -1;
    for (int x = 0; x < width; x++) {
      row[x + 1] = rowOf[raw[x]];
    }
  }
}
