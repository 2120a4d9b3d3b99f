package sharpkestrel.io;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.geom.Polygon;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;

/** GeoJSON (RFC 7946): longitude and latitude on WGS 84 where the layer has a CRS, its own numbers where it has none. */
public final class GeoJson {

  private GeoJson() {}

  public static void write(Layer layer, Path target) {
    CoordinateMap map =
        layer.crs().isKnown() ? Crs.of(layer.crs()).to(Crs.of(Crs.WGS84)) : CoordinateMap.IDENTITY;
    ObjectNode root = Json.object().put("type", "FeatureCollection");
    ArrayNode features = root.putArray("features");
    for (int i = 0; i < layer.size(); i++) {
      ObjectNode feature = features.addObject().put("type", "Feature");
      geometry(feature.putObject("geometry"), layer.geometries().get(i), map);
      ObjectNode properties = feature.putObject("properties");
      for (Table.Column column : layer.table().columns()) {
        double value = column.values()[i];
        if (Double.isNaN(value)) {
          properties.putNull(column.name());
        } else if (column.isText()) {
          properties.put(column.name(), column.text(i));
        } else {
          properties.put(column.name(), value);
        }
      }
    }
    Json.write(root, target);
  }

  private static void geometry(ObjectNode node, Geometry geometry, CoordinateMap map) {
    switch (geometry) {
      case Point point -> {
        node.put("type", "Point");
        position(node.putArray("coordinates"), point.getCoordinate(), map);
      }
      case Polygon polygon -> {
        node.put("type", "Polygon");
        rings(node.putArray("coordinates"), polygon, map);
      }
      default -> {
        node.put("type", "MultiPolygon");
        ArrayNode parts = node.putArray("coordinates");
        for (int k = 0; k < geometry.getNumGeometries(); k++) {
          if (geometry.getGeometryN(k) instanceof Polygon polygon) {
            rings(parts.addArray(), polygon, map);
          }
        }
      }
    }
  }

  private static void rings(ArrayNode array, Polygon polygon, CoordinateMap map) {
    // RFC 7946 wants outer rings anticlockwise; JTS normalises them clockwise.
    Polygon turned = (Polygon) polygon.norm().reverse();
    ring(array.addArray(), turned.getExteriorRing(), map);
    for (int h = 0; h < turned.getNumInteriorRing(); h++) {
      ring(array.addArray(), turned.getInteriorRingN(h), map);
    }
  }

  private static void ring(ArrayNode array, LineString ring, CoordinateMap map) {
    for (Coordinate coordinate : ring.getCoordinates()) {
      position(array.addArray(), coordinate, map);
    }
  }

  private static void position(ArrayNode array, Coordinate coordinate, CoordinateMap map) {
    double[] xy = {coordinate.x, coordinate.y};
    map.apply(xy, 1);
    array.add(xy[0]).add(xy[1]);
  }
}
