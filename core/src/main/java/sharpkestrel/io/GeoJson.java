package sharpkestrel.io;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryCollection;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.geom.Polygon;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.raster.CrsName;

/**
 * GeoJSON (RFC 7946): longitude and latitude on WGS 84 where the layer has a CRS; its own numbers where it has none, which the member
 * {@code crs} says by null, as it did before the RFC.
 */
public final class GeoJson {

  private static final GeometryFactory SHAPES = new GeometryFactory();

  private static final String TYPE = "type";
  private static final String COORDINATES = "coordinates";
  private static final String GEOMETRIES = "geometries";
  private static final String GEOMETRY = "geometry";
  private static final String PROPERTIES = "properties";
  private static final String FEATURES = "features";

  /** Null in files of which nobody can say where on the Earth they lie. */
  private static final String SYSTEM = "crs";

  /** Twice round, so that what lies across 180 degrees is taken however it was cut. */
  private static final Envelope DEGREES = new Envelope(-360, 360, -90, 90);

  /** Longitude before latitude on WGS 84, as files older than the RFC name what it made the rule. */
  private static final String LONGITUDE_FIRST = "CRS84";

  private GeoJson() {}

  public static void write(Layer layer, Path target) {
    CoordinateMap map =
        layer.crs().isKnown() ? Crs.of(layer.crs()).to(Crs.of(Crs.WGS84)) : CoordinateMap.IDENTITY;
    ObjectNode root = Json.object().put(TYPE, "FeatureCollection");
    if (!layer.crs().isKnown()) {
      root.putNull(SYSTEM);
    }
    ArrayNode features = root.putArray(FEATURES);
    for (int i = 0; i < layer.size(); i++) {
      ObjectNode feature = features.addObject().put(TYPE, "Feature");
      put(feature.putObject(GEOMETRY), map.of(layer.geometries().get(i)));
      ObjectNode properties = feature.putObject(PROPERTIES);
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

  private static void put(ObjectNode node, Geometry shape) {
    if (shape instanceof GeometryCollection parts
        && shape.getGeometryType().equals(Geometry.TYPENAME_GEOMETRYCOLLECTION)) {
      node.put(TYPE, shape.getGeometryType());
      ArrayNode array = node.putArray(GEOMETRIES);
      for (int k = 0; k < parts.getNumGeometries(); k++) {
        put(array.addObject(), parts.getGeometryN(k));
      }
      return;
    }
    node.put(TYPE, shape.getGeometryType());
    ArrayNode array = node.putArray(COORDINATES);
    if (shape instanceof GeometryCollection parts) {
      for (int k = 0; k < parts.getNumGeometries(); k++) {
        part(array.addArray(), parts.getGeometryN(k));
      }
    } else {
      part(array, shape);
    }
  }

  private static void part(ArrayNode array, Geometry shape) {
    switch (shape) {
      case Point point when !point.isEmpty() -> position(array, point.getCoordinate());
      case LineString line -> positions(array, line);
      case Polygon polygon
      when !polygon.isEmpty() -> {
        // RFC 7946 wants outer rings anticlockwise; JTS normalises them clockwise.
        Polygon turned = (Polygon) polygon.norm().reverse();
        positions(array.addArray(), turned.getExteriorRing());
        for (int h = 0; h < turned.getNumInteriorRing(); h++) {
          positions(array.addArray(), turned.getInteriorRingN(h));
        }
      }
      default -> {
        // an empty shape has no positions
      }
    }
  }

  private static void positions(ArrayNode array, LineString line) {
    for (Coordinate coordinate : line.getCoordinates()) {
      position(array.addArray(), coordinate);
    }
  }

  private static void position(ArrayNode array, Coordinate coordinate) {
    array.add(coordinate.x).add(coordinate.y);
  }

  /**
   * Reads the features of a collection, or one feature, or one shape. Places are longitude and latitude on WGS 84; in files older
   * than the RFC that name another system (member {@code crs}) they are in that. A feature without a shape has an empty one.
   * Properties that are lists or objects are their text.
   *
   * @throws FileFormatException that says which feature is wrong
   */
  public static Layer read(Path path) {
    JsonNode root = Json.read(path);
    List<Geometry> shapes = new ArrayList<>();
    Map<String, List<Object>> values = new LinkedHashMap<>();
    for (JsonNode feature : features(root, path)) {
      try {
        JsonNode shape =
            feature.path(TYPE).asText().equals("Feature") ? feature.path(GEOMETRY) : feature;
        shapes.add(shape.isNull() || shape.isMissingNode() ? SHAPES.createPolygon() : shape(shape));
      } catch (IllegalArgumentException wrong) {
        throw new FileFormatException(
            path + ": feature " + (shapes.size() + 1) + ": " + wrong.getMessage(), wrong);
      }
      int row = shapes.size() - 1;
      feature.path(PROPERTIES).properties().forEach(property -> {
        List<Object> list = values.computeIfAbsent(property.getKey(), key -> new ArrayList<>());
        fill(list, row);
        list.add(value(property.getValue()));
      });
    }
    values.values().forEach(list -> fill(list, shapes.size()));
    CrsName system = system(root, path);
    if (system.equals(Crs.WGS84)) {
      shapes.forEach(shape -> checkDegrees(shape.getEnvelopeInternal(), path));
    }
    List<Table.Column> columns = values.entrySet().stream()
        .map(each -> Layer.column(each.getKey(), each.getKey(), "", each.getValue()))
        .toList();
    return new Layer(
        path.getFileName().toString().replaceFirst("\\.[^.]+$", ""),
        system,
        shapes,
        new Table(shapes.size(), columns),
        Map.of());
  }

  private static void fill(List<Object> list, int upTo) {
    while (list.size() < upTo) {
      list.add(null);
    }
  }

  private static Object value(JsonNode node) {
    if (node.isNull()) {
      return null;
    }
    if (node.isNumber()) {
      return node.doubleValue();
    }
    if (node.isBoolean()) {
      return node.booleanValue() ? 1 : 0;
    }
    return node.isTextual() ? node.textValue() : Json.line(node);
  }

  private static Iterable<JsonNode> features(JsonNode root, Path path) {
    String type = root.path(TYPE).asText();
    if (type.equals("FeatureCollection") && root.path(FEATURES).isArray()) {
      return root.path(FEATURES);
    }
    if (type.equals("Feature") || root.has(COORDINATES) || root.has(GEOMETRIES)) {
      return List.of(root);
    }
    throw new FileFormatException(
        path
            + " is JSON, but not GeoJSON: it has neither features nor a shape. Give a feature collection.");
  }

  private static CrsName system(JsonNode root, Path path) {
    if (root.path(SYSTEM).isNull()) {
      return CrsName.NONE;
    }
    String name = root.path(SYSTEM).path(PROPERTIES).path("name").asText();
    if (name.isEmpty() || name.endsWith(LONGITUDE_FIRST)) {
      return Crs.WGS84;
    }
    String code = name.substring(name.lastIndexOf(':') + 1);
    if (name.toUpperCase(Locale.ROOT).contains("EPSG") && code.matches("\\d{1,6}")) {
      return CrsName.epsg(Integer.parseInt(code));
    }
    throw new FileFormatException(path + " names a coordinate system that is not known here: "
        + name + ". Give the file in longitude and latitude, or as a GeoPackage.");
  }

  private static void checkDegrees(Envelope box, Path path) {
    if (!box.isNull() && !DEGREES.contains(box)) {
      throw new FileFormatException(
          path + " names no coordinate system, so its places are longitude and"
              + " latitude; but some cannot be, such as " + box.getMaxX() + ", " + box.getMaxY()
              + ". Write it in degrees, or give it as a GeoPackage, which says its system.");
    }
  }

  private static Geometry shape(JsonNode node) {
    JsonNode at = node.path(COORDINATES);
    String type = node.path(TYPE).asText();
    return switch (type) {
      case "Point" -> at.isEmpty() ? SHAPES.createPoint() : SHAPES.createPoint(coordinate(at));
      case "MultiPoint" -> SHAPES.createMultiPointFromCoords(coordinates(at));
      case "LineString" -> SHAPES.createLineString(coordinates(at));
      case "MultiLineString" ->
        SHAPES.createMultiLineString(parts(at, part -> SHAPES.createLineString(coordinates(part)))
            .toArray(LineString[]::new));
      case "Polygon" -> polygon(at);
      case "MultiPolygon" ->
        SHAPES.createMultiPolygon(parts(at, GeoJson::polygon).toArray(Polygon[]::new));
      case "GeometryCollection" ->
        SHAPES.createGeometryCollection(
            parts(node.path(GEOMETRIES), GeoJson::shape).toArray(Geometry[]::new));
      default -> throw new IllegalArgumentException("'" + type + "' is no kind of shape");
    };
  }

  private static <T> List<T> parts(JsonNode array, Function<JsonNode, T> each) {
    List<T> parts = new ArrayList<>(array.size());
    array.forEach(part -> parts.add(each.apply(part)));
    return parts;
  }

  private static Polygon polygon(JsonNode rings) {
    if (rings.isEmpty()) {
      return SHAPES.createPolygon();
    }
    List<LinearRing> all = parts(rings, ring -> SHAPES.createLinearRing(coordinates(ring)));
    return SHAPES.createPolygon(
        all.getFirst(), all.subList(1, all.size()).toArray(LinearRing[]::new));
  }

  private static Coordinate[] coordinates(JsonNode positions) {
    return parts(positions, GeoJson::coordinate).toArray(Coordinate[]::new);
  }

  private static Coordinate coordinate(JsonNode position) {
    if (!position.path(0).isNumber() || !position.path(1).isNumber()) {
      throw new IllegalArgumentException(
          "a position is two numbers or three, not " + Json.line(position));
    }
    return new Coordinate(position.get(0).doubleValue(), position.get(1).doubleValue());
  }
}
