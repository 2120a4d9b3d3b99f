package sharpkestrel.extract;

import java.util.List;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.expr.Table;
import sharpkestrel.io.Layer;
import sharpkestrel.raster.CrsName;

/** Outlines with their features. */
public record OutlineSet(CrsName crs, List<Geometry> outlines, Table table) {

  public int count() {
    return outlines.size();
  }

  public Layer toLayer(String name) {
    return new Layer(name, crs, outlines, table, java.util.Map.of());
  }

  public static OutlineSet of(Layer layer) {
    return new OutlineSet(layer.crs(), layer.geometries(), layer.table());
  }
}
