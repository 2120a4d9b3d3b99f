package sharpkestrel.io;

import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.CrsName;

/**
 * Vector features: a geometry and a row of the table for each.
 *
 * @param remarks texts about the whole layer, by name
 */
public record Layer(
    String name, CrsName crs, List<Geometry> geometries, Table table, Map<String, String> remarks) {

  public Layer {
    if (geometries.size() != table.rows()) {
      throw new IllegalArgumentException(
          geometries.size() + " geometries for " + table.rows() + " rows");
    }
  }

  public static Layer of(String name, OutlineSet set) {
    return new Layer(name, set.crs(), set.outlines(), set.table(), Map.of());
  }

  public OutlineSet outlines() {
    return new OutlineSet(crs, geometries, table);
  }

  public int size() {
    return geometries.size();
  }

  /** A column of what files hold: texts where one is among them, else numbers, NaN where there is none. */
  static Table.Column column(String name, String title, String unit, List<Object> list) {
    boolean text = list.stream().anyMatch(v -> v instanceof String);
    if (text) {
      return Table.Column.ofTexts(
          name, title, list.stream().map(v -> v == null ? "" : v.toString()).toList());
    }
    double[] numbers = new double[list.size()];
    for (int i = 0; i < numbers.length; i++) {
      numbers[i] = list.get(i) instanceof Number n ? n.doubleValue() : Double.NaN;
    }
    return new Table.Column(name, title, unit, numbers);
  }
}
