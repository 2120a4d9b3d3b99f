package sharpkestrel.app.tools.tie;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.ToDoubleFunction;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.project.HandLog;
import sharpkestrel.expr.Table;
import sharpkestrel.io.Layer;
import sharpkestrel.place.fit.TiePoint;
import sharpkestrel.place.fit.TiePointFile;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.RasterException;

/**
 * The tie points of each scene in the project's folder {@code hand}: as they are now in {@code tie-points-SCENE.geojson}, which steps
 * read, and every change in {@code tie-points-SCENE.jsonl}, to which lines are only ever added.
 */
final class KeptTies {

  private static final String NAME = "tie-points-";
  private static final String USE = "use";

  private final Workspace workspace;
  private final Map<String, HandLog> logs = new HashMap<>();

  KeptTies(Workspace workspace) {
    this.workspace = workspace;
  }

  Path file(String ofScene) {
    return workspace.folder().resolve("hand").resolve(NAME + ofScene + ".geojson");
  }

  private synchronized HandLog log(String ofScene) {
    return logs.computeIfAbsent(ofScene, scene -> new HandLog(workspace, NAME + scene));
  }

  /**
   * The points of a scene; from what was logged where their file cannot be read.
   *
   * @throws RasterException where neither can be read
   */
  Optional<TiePoints> read(String ofScene) {
    Path file = file(ofScene);
    if (!Files.isRegularFile(file)) {
      return log(ofScene).read().map(KeptTies::points);
    }
    try {
      return Optional.of(TiePointFile.read(file));
    } catch (RasterException damaged) {
      Optional<TiePoints> logged = log(ofScene).read().map(KeptTies::points);
      if (logged.isEmpty()) {
        throw damaged;
      }
      workspace
          .messages()
          .warn(damaged.getMessage() + " The points are taken from what was logged of them.");
      return logged;
    }
  }

  void write(String ofScene, TiePoints now) {
    log(ofScene).write(layer(now));
    Path file = file(ofScene);
    if (!workspace.isLookingOn()) {
      workspace.lanes().save().write(file, () -> {
        Files.createDirectories(file.getParent());
        TiePointFile.write(now, file);
      });
    }
  }

  static Layer layer(TiePoints points) {
    GeometryFactory shapes = new GeometryFactory();
    List<TiePoint> all = points.points();
    List<Geometry> places = all.stream()
        .<Geometry>map(p -> shapes.createPoint(new Coordinate(p.x(), p.y())))
        .toList();
    return new Layer(
        "tie_points",
        points.crs(),
        places,
        new Table(
            all.size(),
            List.of(
                numbers("point", "", all, TiePoint::id),
                numbers("column", "px", all, TiePoint::col),
                numbers("row", "px", all, TiePoint::row),
                numbers("ellipsoidal_height", "m", all, TiePoint::height),
                numbers("score", "", all, TiePoint::score),
                numbers("scene_width", "px", all, p -> points.width()),
                numbers("scene_height", "px", all, p -> points.height()),
                Table.Column.ofTexts(
                    USE,
                    "Use",
                    all.stream()
                        .map(p -> p.use().name().toLowerCase(Locale.ROOT))
                        .toList()))),
        Map.of());
  }

  private static Table.Column numbers(
      String name, String unit, List<TiePoint> points, ToDoubleFunction<TiePoint> value) {
    return new Table.Column(name, name, unit, points.stream().mapToDouble(value).toArray());
  }

  static TiePoints points(Layer layer) {
    Table table = layer.table();
    List<TiePoint> points = new ArrayList<>();
    for (int i = 0; i < layer.size(); i++) {
      Coordinate at = layer.geometries().get(i).getCoordinate();
      points.add(new TiePoint(
          (int) table.values("point")[i],
          table.values("column")[i],
          table.values("row")[i],
          at.x,
          at.y,
          table.values("ellipsoidal_height")[i],
          TiePoint.Use.valueOf(table.column(USE).text(i).toUpperCase(Locale.ROOT)),
          table.values("score")[i]));
    }
    return new TiePoints(
        layer.crs(),
        (int) table.values("scene_width")[0],
        (int) table.values("scene_height")[0],
        points);
  }
}
