package sharpkestrel.app.model;

import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.expr.Table;
import sharpkestrel.io.Layer;
import sharpkestrel.objects.PickObjects;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.RasterException;

/** What was picked out of each tree and accepted. Kept with the project. */
final class KeptPicks {

  private static final String PLACES = "places";
  private static final String AREA = "area";

  private final Workspace workspace;
  private final Map<String, List<PickModel.Picked>> of = new HashMap<>();

  KeptPicks(Workspace workspace) {
    this.workspace = workspace;
  }

  /** Takes away what was picked in a project that another is begun in place of: its trees are gone. */
  static void clear(Path project) {
    Path hand = project.resolve("hand");
    if (!Files.isDirectory(hand)) {
      return;
    }
    try (DirectoryStream<Path> picked = Files.newDirectoryStream(hand, "picked-*.gpkg")) {
      for (Path file : picked) {
        Files.delete(file);
      }
    } catch (IOException failed) {
      throw new RasterException(hand + " could not be cleared: " + failed.getMessage(), failed);
    }
  }

  private HandFile file(String tree) {
    return new HandFile(workspace, "picked-" + tree);
  }

  /** Those of a tree, in the order in which they were accepted. */
  List<PickModel.Picked> of(String tree) {
    return of.computeIfAbsent(
        tree, name -> file(name).read().map(KeptPicks::picks).orElse(List.of()));
  }

  void put(String tree, List<PickModel.Picked> picks, CrsName crs) {
    of.put(tree, picks);
    if (picks.isEmpty()) {
      file(tree).delete();
    } else {
      file(tree).write(layer(picks, crs));
    }
  }

  private static Layer layer(List<PickModel.Picked> picks, CrsName crs) {
    GeometryFactory factory = new GeometryFactory();
    List<Geometry> outlines = picks.stream()
        .map(p -> factory.buildGeometry(p.outlines().stream()
            .flatMap(outline ->
                IntStream.range(0, outline.getNumGeometries()).mapToObj(outline::getGeometryN))
            .toList()))
        .toList();
    List<String> places =
        picks.stream().map(p -> PickObjects.toText(List.of(p.parts()))).toList();
    double[] areas = picks.stream().mapToDouble(PickModel.Picked::area).toArray();
    Table table = new Table(
        picks.size(),
        List.of(
            Table.Column.ofTexts(PLACES, "Places", places),
            new Table.Column(AREA, "Area", crs.isKnown() ? "m²" : "px", areas)));
    return new Layer("picked", crs, outlines, table, Map.of());
  }

  private static List<PickModel.Picked> picks(Layer layer) {
    return IntStream.range(0, layer.size())
        .mapToObj(i -> new PickModel.Picked(
            PickObjects.fromText(layer.table().column(PLACES).text(i)).getFirst(),
            List.of(layer.geometries().get(i)),
            layer.table().values(AREA)[i]))
        .toList();
  }
}
