package sharpkestrel.demo.truth;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.scene.Scene;
import sharpkestrel.demo.things.Building;
import sharpkestrel.demo.things.Change;
import sharpkestrel.expr.Table;
import sharpkestrel.expr.Table.Column;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.Layer;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Extent;

/**
 * What truly changed between two scenes: what was built, pulled down, extended, roofed anew or felled, as it lies on the ground and in
 * an ortho of each scene.
 */
public final class ChangeTruth {

  private static final GeometryFactory GEOMETRY = new GeometryFactory();

  private final List<Change> changes;
  private final CrsName crs;

  /**
   * @param extent the ground of which changes are told
   */
  public ChangeTruth(List<Change> changes, CrsName crs, Extent extent) {
    this.changes = changes.stream()
        .filter(change -> {
          Coordinate middle = ring(change).getCentroid().getCoordinate();
          return extent.holds(middle.x, middle.y);
        })
        .toList();
    this.crs = crs;
  }

  private static Geometry ring(Change change) {
    if (change.ring() == null) {
      Building known = change.after() == null ? change.before() : change.after();
      return Outlines.footprint(known);
    }
    double[] ring = change.ring();
    Coordinate[] corners = new Coordinate[ring.length / 2 + 1];
    for (int k = 0; k < corners.length; k++) {
      int i = 2 * k % ring.length;
      corners[k] = new Coordinate(ring[i], ring[i + 1]);
    }
    return GEOMETRY.createPolygon(corners);
  }

  /**
   * Writes {@code changes.gpkg}, {@code changes-before.gpkg} and {@code changes-after.gpkg}: on the ground, in a terrain ortho of the
   * first scene, in one of the second. Where there was or is nothing the shape is empty.
   */
  public void write(Path folder, Scene before, Scene after, Ground ground, double undulation) {
    write(
        folder.resolve("changes.gpkg"), changes.stream().map(ChangeTruth::ring).toList());
    Outlines.Product first = Outlines.terrainOrtho(before.sensor(), undulation, ground);
    Outlines.Product second = Outlines.terrainOrtho(after.sensor(), undulation, ground);
    write(
        folder.resolve("changes-before.gpkg"),
        changes.stream().map(change -> seen(change, change.before(), first)).toList());
    write(
        folder.resolve("changes-after.gpkg"),
        changes.stream().map(change -> seen(change, change.after(), second)).toList());
  }

  private static Geometry seen(Change change, Building building, Outlines.Product product) {
    if (change.ring() != null) {
      return ring(change);
    }
    return building == null ? GEOMETRY.createPolygon() : Outlines.roof(building, product);
  }

  private void write(Path path, List<Geometry> shapes) {
    List<String> kinds = new ArrayList<>();
    List<String> was = new ArrayList<>();
    List<String> is = new ArrayList<>();
    for (Change change : changes) {
      kinds.add(change.kind().label());
      was.add(change.before() == null ? "" : change.before().roof().label());
      is.add(change.after() == null ? "" : change.after().roof().label());
    }
    double[] areas = shapes.stream().mapToDouble(Geometry::getArea).toArray();
    Table table = new Table(
        shapes.size(),
        List.of(
            new Column("area", "Area", "m²", areas),
            Column.ofTexts("change", "Change", kinds),
            Column.ofTexts("material_before", "Material before", was),
            Column.ofTexts("material_after", "Material after", is)));
    GeoPackage.write(new Layer("changes", crs, shapes, table, Map.of()), path);
  }
}
