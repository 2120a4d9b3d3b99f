package sharpkestrel.demo.survey;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.simplify.DouglasPeuckerSimplifier;
import sharpkestrel.demo.ground.Parishes;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.demo.things.Building;
import sharpkestrel.demo.truth.Outlines;
import sharpkestrel.expr.Table;
import sharpkestrel.expr.Table.Column;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.Layer;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Extent;

/** The council's own files: its parishes, and a register of buildings that is partly out of date and a few metres off. */
public final class RegisterFiles {

  private static final double OFF = 1.3;
  private static final double NEWEST = 2024;
  private static final double GONE = 0.05;
  private static final double WRONG = 0.08;
  private static final Material[] COVERS = {
    Material.TURF_ROOF, Material.SLATE_ROOF, Material.METAL_ROOF, Material.FELT_ROOF
  };

  private RegisterFiles() {}

  public static void parishes(Parishes parishes, CrsName crs, Path path) {
    List<Geometry> shapes = parishes.all().stream().map(Parishes.Parish::area).toList();
    List<String> names = parishes.all().stream().map(Parishes.Parish::name).toList();
    double[] area = shapes.stream().mapToDouble(Geometry::getArea).toArray();
    Table table = new Table(
        shapes.size(),
        List.of(new Column("area", "Area", "m²", area), Column.ofTexts("parish", "Parish", names)));
    GeoPackage.write(new Layer("parishes", crs, shapes, table, Map.of()), path);
  }

  /**
   * Plans shifted as a whole and each by itself, without those built since it was drawn, with some that are gone and some
   * whose roofs have been covered anew.
   */
  public static void buildings(
      List<Building> buildings, Extent extent, long seed, CrsName crs, Path path) {
    Chance chance = Chance.of(seed, 93);
    double east = chance.between(-2.2, 2.2);
    double north = chance.between(-2.2, 2.2);
    List<Geometry> shapes = new ArrayList<>();
    List<Double> numbers = new ArrayList<>();
    List<String> covers = new ArrayList<>();
    List<String> uses = new ArrayList<>();
    for (Building building : buildings) {
      if (!extent.holds(building.east(), building.north())) {
        continue;
      }
      double e = east + OFF * chance.gaussian();
      double n = north + OFF * chance.gaussian();
      double turn = 0.015 * chance.gaussian();
      boolean gone = chance.happens(GONE);
      boolean wrong = chance.happens(WRONG);
      Material other = COVERS[chance.whole(0, COVERS.length - 1)];
      double side = chance.between(0, 2 * Math.PI);
      if (building.year() > NEWEST) {
        continue;
      }
      Geometry plan = Outlines.footprint(building);
      Coordinate middle = plan.getCentroid().getCoordinate();
      if (gone) {
        // a plan that stands where nothing stands any more
        e += 28 * Math.cos(side);
        n += 28 * Math.sin(side);
      }
      Geometry drawn = AffineTransformation.rotationInstance(turn, middle.x, middle.y)
          .translate(e, n)
          .transform(plan);
      shapes.add(DouglasPeuckerSimplifier.simplify(drawn, 0.25));
      numbers.add((double) (10_000 + building.id()));
      covers.add((wrong ? other : building.roof()).label());
      uses.add(building.use().name().toLowerCase(Locale.ROOT));
    }
    Table table = new Table(
        shapes.size(),
        List.of(
            new Column(
                "register",
                "Register number",
                "",
                numbers.stream().mapToDouble(v -> v).toArray()),
            Column.ofTexts("roof", "Roof", covers),
            Column.ofTexts("use", "Use", uses)));
    GeoPackage.write(new Layer("buildings", crs, shapes, table, Map.of()), path);
  }
}
