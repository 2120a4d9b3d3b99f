package sharpkestrel.place.fit;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import sharpkestrel.geo.ControlPoints;
import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.io.FileFormatException;
import sharpkestrel.io.Json;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Raster;

/**
 * Tie points as GeoJSON (RFC 7946): a point of longitude and latitude for each, with its place in the scene, its place in
 * the points' own system to the last digit, its height and what it is for as properties. The collection says of which
 * system and of how large a scene the points are. Points on the pixels of a picture without a place have no geometry.
 */
public final class TiePointFile {

  private TiePointFile() {}

  public static void write(TiePoints points, Path target) {
    boolean placed = points.crs().isKnown();
    CoordinateMap toDegrees =
        placed ? Crs.between(points.crs(), Crs.WGS84) : CoordinateMap.IDENTITY;
    ObjectNode root = Json.object().put("type", "FeatureCollection");
    root.put("crs", points.crs().text());
    root.put("scene_width", points.width()).put("scene_height", points.height());
    ArrayNode features = root.putArray("features");
    for (TiePoint point : points.points()) {
      ObjectNode feature = features.addObject().put("type", "Feature").put("id", point.id());
      if (placed) {
        double[] degrees = {point.x(), point.y()};
        toDegrees.apply(degrees, 1);
        feature
            .putObject("geometry")
            .put("type", "Point")
            .putArray("coordinates")
            .add(degrees[0])
            .add(degrees[1]);
      } else {
        feature.putNull("geometry");
      }
      ObjectNode properties = feature.putObject("properties");
      properties.put("column", point.col()).put("row", point.row());
      properties.put("x", point.x()).put("y", point.y());
      put(properties, "ellipsoidal_height", point.height());
      put(properties, "score", point.score());
      properties.put("use", point.use().name().toLowerCase(Locale.ROOT));
    }
    Json.write(root, target);
  }

  /**
   * The control points that a raster file holds in place of a grid, as points to fit a model to. Heights of such files are of
   * any datum or none, so they are not taken.
   *
   * @throws FileFormatException where it has none, or they are in no known system
   */
  public static TiePoints ofControlPoints(Path file) {
    Raster raster = RasterFiles.open(file);
    ControlPoints points = raster.attachments().get(ControlPoints.class).orElse(ControlPoints.NONE);
    if (points.points().isEmpty() || !points.crs().isKnown()) {
      throw new FileFormatException(
          file
              + (points.points().isEmpty()
                  ? " holds no control points. Find tie points with a placed raster (step tiepoints)."
                  : " holds control points but not the coordinate system they are in. Tell it (step describe)."));
    }
    List<TiePoint> all = new ArrayList<>();
    for (ControlPoints.Point point : points.points()) {
      all.add(new TiePoint(
          all.size() + 1,
          point.col(),
          point.row(),
          point.x(),
          point.y(),
          Double.NaN,
          TiePoint.Use.CONTROL,
          Double.NaN));
    }
    return new TiePoints(points.crs(), raster.grid().width(), raster.grid().height(), all);
  }

  private static void put(ObjectNode node, String name, double value) {
    if (!Double.isNaN(value)) {
      node.put(name, value);
    }
  }

  /**
   * @throws FileFormatException that says which feature lacks what
   */
  public static TiePoints read(Path path) {
    JsonNode root = Json.read(path);
    if (!root.path("type").asText().equals("FeatureCollection")
        || !root.has("crs")
        || root.path("scene_width").asInt() < 1
        || root.path("scene_height").asInt() < 1) {
      throw new FileFormatException(path
          + " holds no tie points: it should be a GeoJSON FeatureCollection with \"crs\", \"scene_width\" and"
          + " \"scene_height\" beside its features.");
    }
    List<TiePoint> points = new ArrayList<>();
    Set<Integer> ids = new HashSet<>();
    for (JsonNode feature : root.path("features")) {
      JsonNode properties = feature.path("properties");
      int id = feature.path("id").asInt(points.size() + 1);
      for (String name : new String[] {"column", "row", "x", "y"}) {
        if (!properties.path(name).isNumber()) {
          throw new FileFormatException(
              path + ", point " + id + ": the property \"" + name + "\" is not a number.");
        }
      }
      if (!ids.add(id)) {
        throw new FileFormatException(path + ": two points have the id " + id + ".");
      }
      points.add(new TiePoint(
          id,
          properties.path("column").asDouble(),
          properties.path("row").asDouble(),
          properties.path("x").asDouble(),
          properties.path("y").asDouble(),
          properties.path("ellipsoidal_height").asDouble(Double.NaN),
          use(path, id, properties.path("use").asText("control")),
          properties.path("score").asDouble(Double.NaN)));
    }
    return new TiePoints(
        new CrsName(root.path("crs").asText()),
        root.path("scene_width").asInt(),
        root.path("scene_height").asInt(),
        points);
  }

  private static TiePoint.Use use(Path path, int id, String text) {
    try {
      return TiePoint.Use.valueOf(text.toUpperCase(Locale.ROOT));
    } catch (IllegalArgumentException unknown) {
      throw new FileFormatException(path + ", point " + id + ": \"use\" is '" + text
          + "'; it should be control, check or off.");
    }
  }
}
