package sharpkestrel.geo;

import java.util.List;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.expr.Table;
import sharpkestrel.raster.CrsName;

/** Outlines with their features. */
public record OutlineSet(CrsName crs, List<Geometry> outlines, Table table) {

  public int count() {
    return outlines.size();
  }
}
