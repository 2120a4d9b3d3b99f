package sharpkestrel.extract;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Polygon;
import sharpkestrel.expr.Table;
import sharpkestrel.outline.MinimumRectangle;

/**
 * Features of outlines. Form is measured on the outline as drawn, rectangularity and compactness on its exact border,
 * which drawing would flatter; all other features are the means of the objects it was joined from, weighted by area.
 */
final class OutlineFeatures {

  private OutlineFeatures() {}

  /**
   * @param objects features of the objects
   * @param members for each group the rows of its objects
   * @param groupOf for each outline its group
   * @param exact borders in pixels
   * @param drawn the same, drawn to form
   * @param pixel side of a pixel in metres
   */
  static Table of(
      Table objects,
      int[][] members,
      int[] groupOf,
      List<Polygon> exact,
      List<Polygon> drawn,
      double pixel) {
    int n = groupOf.length;
    Map<String, Table.Column> columns = new LinkedHashMap<>();
    double[] area = column(columns, "area", "Area", "m²", n);
    double[] perimeter = column(columns, "perimeter", "Perimeter", "m", n);
    double[] length = column(columns, "length", "Length", "m", n);
    double[] width = column(columns, "width", "Width", "m", n);
    double[] elongation = column(columns, "elongation", "Elongation", "", n);
    double[] compactness = column(columns, "compactness", "Compactness", "", n);
    double[] rectangularity = column(columns, "rectangularity", "Rectangularity", "", n);
    double[] orientation = column(columns, "orientation", "Orientation", "°", n);
    double[] count = column(columns, "objects", "Objects", "", n);
    for (int i = 0; i < n; i++) {
      MinimumRectangle box = box(drawn.get(i));
      area[i] = drawn.get(i).getArea() * pixel * pixel;
      perimeter[i] = drawn.get(i).getLength() * pixel;
      length[i] = box.length() * pixel;
      width[i] = box.width() * pixel;
      elongation[i] = box.length() / box.width();
      // pixel sides run 4/pi times too long on the whole
      double border = exact.get(i).getLength() * Math.PI / 4;
      compactness[i] = 4 * Math.PI * exact.get(i).getArea() / (border * border);
      MinimumRectangle around = box(exact.get(i));
      rectangularity[i] = exact.get(i).getArea() / (around.length() * around.width());
      // clockwise from north, for rows that run south
      orientation[i] = (90 + Math.toDegrees(box.angle())) % 180;
      count[i] = members[groupOf[i]].length;
    }
    double[] weights = objects.values("area");
    for (Table.Column feature : objects.columns()) {
      if (!feature.isText() && !columns.containsKey(feature.name())) {
        double[] values = column(columns, feature.name(), feature.title(), feature.unit(), n);
        double[] means = means(feature.values(), weights, members);
        for (int i = 0; i < n; i++) {
          values[i] = means[groupOf[i]];
        }
      }
    }
    return new Table(n, new ArrayList<>(columns.values()));
  }

  private static double[] column(
      Map<String, Table.Column> columns, String name, String title, String unit, int rows) {
    double[] values = new double[rows];
    columns.put(name, new Table.Column(name, title, unit, values));
    return values;
  }

  private static double[] means(double[] values, double[] weights, int[][] members) {
    double[] means = new double[members.length];
    for (int g = 0; g < members.length; g++) {
      double sum = 0;
      double total = 0;
      for (int row : members[g]) {
        sum += weights[row] * values[row];
        total += weights[row];
      }
      means[g] = sum / total;
    }
    return means;
  }

  private static MinimumRectangle box(Polygon polygon) {
    Coordinate[] hull = polygon.convexHull().getCoordinates();
    double[] xs = new double[hull.length];
    double[] ys = new double[hull.length];
    for (int i = 0; i < hull.length; i++) {
      xs[i] = hull[i].x;
      ys[i] = hull[i].y;
    }
    return MinimumRectangle.ofHull(xs, ys, hull.length - 1);
  }
}
