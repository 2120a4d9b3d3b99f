package sharpkestrel.app.tools.pick;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.project.HandLog;
import sharpkestrel.expr.Table;
import sharpkestrel.io.Layer;
import sharpkestrel.objects.PickObjects;
import sharpkestrel.raster.CrsName;

/** What was picked out of each tree and accepted. Kept with the project. */
public final class KeptPicks {

  private static final String PLACES = "places";
  private static final String AREA = "area";

  private final Workspace workspace;
  private final Map<String, List<PickModel.Picked>> of = new HashMap<>();
  private final Map<String, HandLog> logs = new HashMap<>();

  KeptPicks(Workspace workspace) {
    this.workspace = workspace;
  }

  private HandLog log(String tree) {
    return logs.computeIfAbsent(tree, name -> new HandLog(workspace, "picked-" + name));
  }

  /** Hands on those of a tree, in the order in which they were accepted: at once, or when they have been read. */
  void ask(String tree, Consumer<List<PickModel.Picked>> ready) {
    if (of.containsKey(tree)) {
      ready.accept(of.get(tree));
      return;
    }
    HandLog log = log(tree);
    workspace.ask(this, job -> log.read().map(KeptPicks::picks).orElse(List.of()), read -> {
      of.putIfAbsent(tree, read);
      ready.accept(of.get(tree));
    });
  }

  void put(String tree, List<PickModel.Picked> picks, CrsName crs) {
    of.put(tree, picks);
    log(tree).write(layer(picks, crs));
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
