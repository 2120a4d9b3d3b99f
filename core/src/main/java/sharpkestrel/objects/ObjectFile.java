package sharpkestrel.objects;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygon;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.io.FileFormatException;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.Layer;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Window;
import sharpkestrel.segment.ScratchLabels;

/**
 * Object sets as GeoPackages: exact outlines with all features, and the grid among the remarks, from which the labels
 * are drawn again when the file is read.
 */
public final class ObjectFile {

  private static final String GRID = "grid";
  private static final String GROUND = "ground";

  private ObjectFile() {}

  public static Layer toLayer(ObjectSet set, String name) {
    double[] ids = Arrays.stream(set.ids()).asDoubleStream().toArray();
    List<Table.Column> columns = new ArrayList<>();
    columns.add(new Table.Column("id", "Id", "", ids));
    columns.addAll(
        set.table().columns().stream().filter(c -> !c.name().equals("id")).toList());
    Grid grid = set.labels().grid();
    Affine a = grid.affine();
    Map<String, String> remarks = new HashMap<>();
    remarks.put(
        GRID,
        String.join(
            ",",
            List.of(
                "" + grid.width(),
                "" + grid.height(),
                "" + a.a(),
                "" + a.b(),
                "" + a.c(),
                "" + a.d(),
                "" + a.e(),
                "" + a.f())));
    remarks.put(GROUND, set.ground().width() + "," + set.ground().height());
    return new Layer(
        name,
        grid.crs(),
        ObjectGeometry.of(set).outlines(),
        new Table(set.count(), columns),
        remarks);
  }

  public static void write(ObjectSet set, Path path) {
    GeoPackage.write(toLayer(set, "objects"), path);
  }

  /**
   * @throws FileFormatException where the file holds no object set
   */
  public static ObjectSet read(Path path) {
    Layer layer = GeoPackage.read(path, "");
    String[] grid = layer.remarks().getOrDefault(GRID, "").split(",");
    String[] ground = layer.remarks().getOrDefault(GROUND, "").split(",");
    if (grid.length != 8 || ground.length != 2) {
      throw new FileFormatException(path
          + " holds outlines but no object set: it does not say on which pixels its objects lie. Choose a file"
          + " written by segment, measure or winnow.");
    }
    double[] n = Arrays.stream(grid).mapToDouble(Double::parseDouble).toArray();
    Grid on = new Grid(
        (int) n[0], (int) n[1], new Affine(n[2], n[3], n[4], n[5], n[6], n[7]), layer.crs());
    LabelRaster labels = draw(layer.geometries(), on);
    int[] rowOf = new int[layer.size() + 1];
    Arrays.setAll(rowOf, i -> i - 1);
    double[] ids = layer.table().values("id");
    List<Table.Column> columns =
        layer.table().columns().stream().filter(c -> !c.name().equals("id")).toList();
    return new ObjectSet(
        labels,
        rowOf,
        Arrays.stream(ids).mapToInt(id -> (int) id).toArray(),
        new Table(layer.size(), columns),
        new GroundSize(Double.parseDouble(ground[0]), Double.parseDouble(ground[1])));
  }

  /** Labels 1 to n of polygons on a grid: the pixels whose centres they cover, by scan lines. */
  static LabelRaster draw(List<Geometry> geometries, Grid grid) {
    ScratchLabels labels = new ScratchLabels(grid);
    var toPixels = ObjectGeometry.toGround(grid.affine().inverse());
    for (int i = 0; i < geometries.size(); i++) {
      Geometry pixels = toPixels.transform(geometries.get(i));
      Envelope box = pixels.getEnvelopeInternal();
      if (box.isNull()) {
        continue;
      }
      Window window = new Window(
              (int) Math.floor(box.getMinX()),
              (int) Math.floor(box.getMinY()),
              (int) Math.ceil(box.getWidth()) + 2,
              (int) Math.ceil(box.getHeight()) + 2)
          .intersect(grid.window());
      int[] values = new int[window.area()];
      labels.read(window, values);
      for (int k = 0; k < pixels.getNumGeometries(); k++) {
        if (pixels.getGeometryN(k) instanceof Polygon polygon) {
          fill(polygon, window, values, i + 1);
        }
      }
      labels.write(window, values);
    }
    labels.setMaxLabel(geometries.size());
    return labels;
  }

  private static void fill(Polygon polygon, Window window, int[] values, int label) {
    Coordinate[][] rings = new Coordinate[1 + polygon.getNumInteriorRing()][];
    rings[0] = polygon.getExteriorRing().getCoordinates();
    for (int h = 1; h < rings.length; h++) {
      rings[h] = polygon.getInteriorRingN(h - 1).getCoordinates();
    }
    double[] crossings = new double[16];
    for (int y = window.y(); y < window.bottom(); y++) {
      double middle = y + 0.5;
      int n = 0;
      for (Coordinate[] ring : rings) {
        for (int i = 0; i + 1 < ring.length; i++) {
          double y0 = ring[i].y;
          double y1 = ring[i + 1].y;
          if ((y0 <= middle) != (y1 <= middle)) {
            if (n == crossings.length) {
              crossings = Arrays.copyOf(crossings, 2 * n);
            }
            crossings[n++] = ring[i].x + (middle - y0) / (y1 - y0) * (ring[i + 1].x - ring[i].x);
          }
        }
      }
      Arrays.sort(crossings, 0, n);
      for (int k = 0; k + 1 < n; k += 2) {
        int from = Math.max(window.x(), (int) Math.ceil(crossings[k] - 0.5));
        int to = Math.min(window.right(), (int) Math.ceil(crossings[k + 1] - 0.5));
        for (int x = from; x < to; x++) {
          values[(y - window.y()) * window.width() + x - window.x()] = label;
        }
      }
    }
  }
}
