package sharpkestrel.objects;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.io.FileFormatException;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.Layer;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.segment.regions.DrawnRegions;

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
    remarks.put(GROUND, set.ground().toText());
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
    String ground = layer.remarks().getOrDefault(GROUND, "");
    if (grid.length != 8 || ground.isEmpty()) {
      throw new FileFormatException(path
          + " holds outlines but no object set: it does not say on which pixels its objects lie. Choose a file"
          + " written by segment, measure or winnow.");
    }
    double[] n = Arrays.stream(grid).mapToDouble(Double::parseDouble).toArray();
    Grid on = new Grid(
        (int) n[0], (int) n[1], new Affine(n[2], n[3], n[4], n[5], n[6], n[7]), layer.crs());
    ScratchLabels labels = new ScratchLabels(on);
    DrawnRegions.draw(layer.geometries(), labels, Job.QUIET);
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
        GroundSize.parse(ground));
  }
}
