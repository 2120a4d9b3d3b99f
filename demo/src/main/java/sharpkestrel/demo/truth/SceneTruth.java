package sharpkestrel.demo.truth;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Parishes;
import sharpkestrel.demo.scene.Scene;
import sharpkestrel.demo.things.Building;
import sharpkestrel.demo.things.Things;
import sharpkestrel.demo.things.Vehicle;
import sharpkestrel.demo.things.Vessel;
import sharpkestrel.expr.Table;
import sharpkestrel.expr.Table.Column;
import sharpkestrel.geo.RpcFit;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.Json;
import sharpkestrel.io.Layer;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Extent;

/** The truth of one scene: what lies in it, where its products show it, and what its sensor did. */
public final class SceneTruth {

  private final Scene scene;
  private final Ground ground;
  private final Things things;
  private final Parishes parishes;
  private final CrsName crs;
  private final double undulation;
  private final double pixelArea;
  private final Outlines.Product raw;
  private final Outlines.Product ortho;
  private final Extent delivered;

  /** A thing in the scene with its outlines. */
  private record Seen<T>(T thing, boolean whole, Geometry raw, Geometry ortho, Geometry ground) {}

  /**
   * @param delivered the ground of an ortho in place of the raw image; null where the image is delivered
   */
  public SceneTruth(
      Scene scene,
      Ground ground,
      Things things,
      Parishes parishes,
      CrsName crs,
      double undulation,
      double pixelSize,
      Extent delivered) {
    this.delivered = delivered;
    this.scene = scene;
    this.ground = ground;
    this.things = things;
    this.parishes = parishes;
    this.crs = crs;
    this.undulation = undulation;
    pixelArea = pixelSize * pixelSize;
    raw = Outlines.raw(scene.sensor(), undulation);
    ortho = Outlines.terrainOrtho(scene.sensor(), undulation, ground);
  }

  /** Writes the layers of the scene's things, its check points, and what was done to it. */
  public void write(Path folder, RpcFit fit, double[] bias) {
    List<Seen<Building>> buildings = buildings();
    List<Column> facts = columns(buildings, this::ofBuilding);
    layers("roofs", buildings, facts, folder);
    layer(
        "footprints",
        buildings.stream().map(one -> Outlines.footprint(one.thing)).toList(),
        facts,
        crs,
        1,
        folder.resolve("footprints.gpkg"));
    List<Seen<Vessel>> vessels = vessels();
    layers("vessels", vessels, columns(vessels, SceneTruth::ofVessel), folder);
    List<Seen<Vehicle>> vehicles = vehicles();
    layers("vehicles", vehicles, columns(vehicles, SceneTruth::ofVehicle), folder);
    checkPoints(folder.resolve("check-points.json"));
    made(folder.resolve("scene.json"), fit, bias);
    answers(buildings, vessels, vehicles, folder.resolve("answers.json"));
  }

  private boolean inView(double e, double n, double h) {
    Coordinate at = raw.of(e, n, h);
    double margin = 80;
    return at.x > -margin
        && at.y > -margin
        && at.x < scene.sensor().width() + margin
        && at.y < scene.sensor().height() + margin;
  }

  private <T> void see(
      List<Seen<T>> seen, T thing, Geometry inRaw, Geometry inOrtho, Geometry onGround) {
    Envelope box = (delivered == null ? inRaw : inOrtho).getEnvelopeInternal();
    Envelope image = delivered == null
        ? new Envelope(0, scene.sensor().width(), 0, scene.sensor().height())
        : new Envelope(delivered.west(), delivered.east(), delivered.south(), delivered.north());
    // what only touches the edge has nothing in it
    boolean meets = box.getMaxX() > image.getMinX()
        && box.getMaxY() > image.getMinY()
        && box.getMinX() < image.getMaxX()
        && box.getMinY() < image.getMaxY();
    if (meets) {
      seen.add(new Seen<>(thing, image.contains(box), inRaw, inOrtho, onGround));
    }
  }

  private List<Seen<Building>> buildings() {
    List<Seen<Building>> seen = new ArrayList<>();
    for (Building b : things.buildings()) {
      if (inView(b.east(), b.north(), b.base())) {
        see(
            seen,
            b,
            Outlines.roof(b, raw),
            Outlines.roof(b, ortho),
            Outlines.roof(b, Outlines.above()));
      }
    }
    return seen;
  }

  private List<Seen<Vessel>> vessels() {
    List<Seen<Vessel>> seen = new ArrayList<>();
    for (Vessel v : things.vessels()) {
      if (inView(v.east(), v.north(), v.level())) {
        double foot = v.state() == Vessel.State.ASHORE ? ground.height(v.east(), v.north()) : 0;
        see(
            seen,
            v,
            Outlines.vessel(v, foot, raw),
            Outlines.vessel(v, foot, ortho),
            Outlines.vessel(v, foot, Outlines.above()));
      }
    }
    return seen;
  }

  private List<Seen<Vehicle>> vehicles() {
    List<Seen<Vehicle>> seen = new ArrayList<>();
    for (Vehicle v : things.vehicles()) {
      if (inView(v.east(), v.north(), v.level())) {
        double foot = ground.height(v.east(), v.north());
        see(
            seen,
            v,
            Outlines.vehicle(v, foot, raw),
            Outlines.vehicle(v, foot, ortho),
            Outlines.vehicle(v, foot, Outlines.above()));
      }
    }
    return seen;
  }

  private interface Describe<T> {
    void into(T thing, Columns columns);
  }

  /** Columns of a table that are filled row by row. */
  private static final class Columns {
    final Map<String, List<Double>> numbers = new java.util.LinkedHashMap<>();
    final Map<String, List<String>> texts = new java.util.LinkedHashMap<>();

    void number(String name, double value) {
      numbers.computeIfAbsent(name, any -> new ArrayList<>()).add(value);
    }

    void text(String name, String value) {
      texts.computeIfAbsent(name, any -> new ArrayList<>()).add(value);
    }

    List<Column> made() {
      List<Column> made = new ArrayList<>();
      numbers.forEach((name, values) -> made.add(new Column(
          name, title(name), unit(name), values.stream().mapToDouble(v -> v).toArray())));
      texts.forEach((name, values) -> made.add(Column.ofTexts(name, title(name), values)));
      return made;
    }

    private static String title(String name) {
      return name.substring(0, 1).toUpperCase(Locale.ROOT) + name.substring(1).replace('_', ' ');
    }

    private static String unit(String name) {
      return switch (name) {
        case "area" -> "m²";
        case "height", "length", "beam", "ground" -> "m";
        case "heading" -> "°";
        default -> "";
      };
    }
  }

  private <T> List<Column> columns(List<Seen<T>> seen, Describe<T> describe) {
    Columns columns = new Columns();
    for (Seen<T> one : seen) {
      describe.into(one.thing, columns);
      columns.number("whole", one.whole ? 1 : 0);
    }
    return columns.made();
  }

  private static String label(Enum<?> value) {
    return value.name().toLowerCase(Locale.ROOT).replace('_', ' ');
  }

  private void ofBuilding(Building b, Columns columns) {
    columns.number("building", b.id());
    columns.number("height", b.height());
    columns.number("ground", b.base());
    columns.number("year", b.year());
    columns.text("material", b.roof().label());
    columns.text("use", label(b.use()));
    columns.text("shape", label(b.shape()));
    columns.text("parish", parishes.at(b.east(), b.north()));
  }

  private static void ofVessel(Vessel v, Columns columns) {
    columns.number("vessel", v.id());
    columns.number("heading", v.heading());
    columns.number("length", v.length());
    columns.number("beam", v.beam());
    columns.number("abreast", v.abreast());
    columns.text("class", label(v.kind()));
    columns.text("state", label(v.state()));
    columns.text("place", v.place());
  }

  private static void ofVehicle(Vehicle v, Columns columns) {
    columns.number("vehicle", v.id());
    columns.number("heading", v.heading());
    columns.text("class", label(v.kind()));
    columns.text("place", label(v.place()));
  }

  private <T> void layers(String name, List<Seen<T>> seen, List<Column> columns, Path folder) {
    layer(
        name,
        seen.stream().map(Seen::raw).toList(),
        columns,
        CrsName.NONE,
        pixelArea,
        folder.resolve(name + "-raw.gpkg"));
    layer(
        name,
        seen.stream().map(Seen::ortho).toList(),
        columns,
        crs,
        1,
        folder.resolve(name + "-terrain-ortho.gpkg"));
    layer(
        name,
        seen.stream().map(Seen::ground).toList(),
        columns,
        crs,
        1,
        folder.resolve(name + "-true-ortho.gpkg"));
  }

  private static void layer(
      String name,
      List<Geometry> shapes,
      List<Column> columns,
      CrsName crs,
      double unitArea,
      Path path) {
    List<Column> all = new ArrayList<>();
    all.add(new Column(
        "area",
        "Area",
        "m²",
        shapes.stream().mapToDouble(g -> g.getArea() * unitArea).toArray()));
    all.addAll(columns);
    GeoPackage.write(new Layer(name, crs, shapes, new Table(shapes.size(), all), Map.of()), path);
  }

  private void checkPoints(Path path) {
    ObjectNode root = Json.object().put("crs", crs.text());
    ArrayNode marks = root.putArray("marks");
    for (double[] mark : things.marks()) {
      Coordinate at = raw.of(mark[0], mark[1], mark[2]);
      if (at.x > 8
          && at.y > 8
          && at.x < scene.sensor().width() - 8
          && at.y < scene.sensor().height() - 8) {
        marks
            .addObject()
            .put("east", mark[0])
            .put("north", mark[1])
            .put("height", mark[2])
            .put("ellipsoidal_height", mark[2] + undulation)
            .put("column", at.x)
            .put("row", at.y);
      }
    }
    Json.write(root, path);
  }

  private void made(Path path, RpcFit fit, double[] bias) {
    var c = scene.conditions();
    ObjectNode root = Json.object();
    root.put("scene", scene.name())
        .put("time", c.time().toString())
        .put("sun_elevation", c.sun().elevation())
        .put("sun_azimuth", c.sun().azimuth())
        .put("off_nadir", c.offNadir())
        .put("view_azimuth", c.viewAzimuth())
        .put("wind", c.wind())
        .put("rpc_rms_pixels", fit.rms())
        .put("rpc_worst_pixels", fit.worst());
    root.putArray("rpc_bias_pixels").add(bias[0]).add(bias[1]);
    ObjectNode shifts = root.putObject("misalignment_multispectral_pixels");
    for (int b = 0; b < scene.shifts().length; b++) {
      shifts
          .putArray(scene.instrument().bands().get(b).name())
          .add(scene.shifts()[b][0])
          .add(scene.shifts()[b][1]);
    }
    Json.write(root, path);
  }

  /** The council's questions, answered for what lies whole in the scene. */
  private void answers(
      List<Seen<Building>> buildings,
      List<Seen<Vessel>> vessels,
      List<Seen<Vehicle>> vehicles,
      Path path) {
    ObjectNode root = Json.object();
    ObjectNode roofs = root.putObject("roofs_by_material");
    ObjectNode tallest = root.putObject("tallest_building_by_parish");
    for (Seen<Building> one : buildings) {
      if (!one.whole) {
        continue;
      }
      ObjectNode entry = roofs.withObjectProperty(one.thing.roof().label());
      entry.put("count", entry.path("count").asInt() + 1);
      entry.put("area_m2", entry.path("area_m2").asDouble() + one.ground.getArea());
      ObjectNode parish =
          tallest.withObjectProperty(parishes.at(one.thing.east(), one.thing.north()));
      if (one.thing.height() > parish.path("height_m").asDouble()) {
        parish.put("building", one.thing.id()).put("height_m", one.thing.height());
      }
    }
    ObjectNode harbours = root.putObject("vessels_by_place");
    for (Seen<Vessel> one : vessels) {
      if (one.whole) {
        ObjectNode place = harbours.withObjectProperty(one.thing.place());
        String kind = label(one.thing.kind());
        place.put(kind, place.path(kind).asInt() + 1);
      }
    }
    root.put(
        "vehicles_at_the_ferry",
        vehicles.stream()
            .filter(one -> one.whole && one.thing.place() == Vehicle.Place.FERRY)
            .count());
    Json.write(root, path);
  }
}
