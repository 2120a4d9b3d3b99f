package sharpkestrel.extract;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.operation.buffer.BufferOp;
import org.locationtech.jts.operation.buffer.BufferParameters;
import sharpkestrel.expr.Cql2;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectGeometry;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.objects.Selection;
import sharpkestrel.outline.Squarer;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Tracer;
import sharpkestrel.raster.Window;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Turns objects into outlines: joined where they touch, traced, holes filled, simplified, squared. */
@StepInfo(
    id = "outline",
    stage = Stage.EXTRACT,
    family = "Outlines",
    title = "Outline",
    next = "Extracted, but not drawn as outlines yet.",
    makes = "Outlines",
    version = 2,
    does =
        "Turns objects into outlines: objects that touch are joined (the lit and the shaded side of one roof), borders"
            + " traced exactly, narrow parts cut off, small holes filled, then simplified or squared. Each outline has"
            + " its own form features and the mean of its objects' others, which tests may use.")
public record OutlineObjects(
    @In(does = "The objects to outline.") ObjectSet objects,

    @Setting(
        label = "Form",
        does =
            "exact: along pixel sides; simple: fewer corners; squared: right angles where they fit.",
        initial = "squared")
    Form form,

    @Setting(
        label = "Tolerance",
        does =
            "How far a simplified border may leave the exact one; auto is 0.6 m, never under 1.2 pixels.",
        unit = "m",
        min = 0,
        max = 10_000,
        initial = "auto")
    double tolerance,

    @Setting(
        label = "Join touching",
        does = "Whether objects that touch become one outline.",
        initial = "true")
    boolean joinTouching,

    @Setting(
        label = "Least width",
        does =
            "Parts narrower than this are cut off: tongues, and necks between two things that touch; 0 cuts nothing.",
        unit = "m",
        min = 0,
        max = 1000,
        initial = "0")
    double leastWidth,

    @Setting(
        label = "Largest hole",
        does = "Holes up to this area are filled.",
        unit = "m²",
        min = 0,
        max = 1e9,
        initial = "10")
    double largestHole,

    @Setting(
        label = "Tests",
        does =
            "CQL2 text; outlines that fail it are left out, e.g. area >= 20 AND rectangularity >= 0.6: roofs fill most"
                + " of their smallest rectangle, rocks and surf do not. Empty keeps all.",
        initial = "auto")
    Optional<String> tests)
    implements Step<OutlineSet> {

  /** How borders are drawn. */
  public enum Form {
    EXACT,
    SIMPLE,
    SQUARED
  }

  private static final GeometryFactory GEOMETRY = new GeometryFactory();
  private static final double SHARP_CORNERS = 2;

  public OutlineObjects {
    tests.ifPresent(Cql2::parseTest);
  }

  /** An outline in pixels, before and after it was drawn to form, and the group it is of. */
  private record Drawn(int group, Polygon exact, Squarer.Result result) {}

  @Override
  public OutlineSet run(Job job) {
    Grid grid = objects.labels().grid();
    double pixel = objects.ground().mean();
    TouchingGroups groups = TouchingGroups.of(objects, joinTouching, job.cancellation());
    List<List<Drawn>> perGroup =
        new ArrayList<>(Collections.nCopies(groups.count(), List.<Drawn>of()));
    AtomicInteger done = new AtomicInteger();
    Parallel.run(groups.count(), job, g -> {
      List<Drawn> drawn = new ArrayList<>();
      for (Polygon part : parts(trace(groups, g), pixel)) {
        Polygon exact = withoutSmallHoles(part, pixel);
        drawn.add(new Drawn(g, exact, shaped(exact, pixel)));
      }
      perGroup.set(g, drawn);
      job.progress("Outlining", done.incrementAndGet(), groups.count());
    });
    List<Drawn> all = perGroup.stream().flatMap(List::stream).toList();
    Table table = OutlineFeatures.of(
        objects.table(),
        groups.members(),
        all.stream().mapToInt(Drawn::group).toArray(),
        all.stream().map(Drawn::exact).toList(),
        all.stream().map(d -> d.result().outline()).toList(),
        pixel);
    table = table.with(List.of(Table.Column.ofTexts(
        "shape",
        "Shape",
        all.stream()
            .map(d ->
                form == Form.EXACT ? "exact" : d.result().shape().name().toLowerCase(Locale.ROOT))
            .toList())));
    boolean[] passing = Selection.of(table, tests.orElse(""));
    int[] kept = IntStream.range(0, all.size()).filter(i -> passing[i]).toArray();
    AffineTransformation toGround = ObjectGeometry.toGround(grid.affine());
    List<Geometry> outlines = Arrays.stream(kept)
        .mapToObj(i -> toGround.transform(all.get(i).result().outline()))
        .toList();
    return new OutlineSet(grid.crs(), outlines, table.select(kept));
  }

  /** What is left after narrow parts are cut off (a morphological opening), as polygons. */
  private List<Polygon> parts(Geometry traced, double pixel) {
    Geometry wide = traced;
    if (leastWidth > 0) {
      double half = leastWidth / pixel / 2;
      BufferParameters square = new BufferParameters(
          BufferParameters.DEFAULT_QUADRANT_SEGMENTS,
          BufferParameters.CAP_FLAT,
          BufferParameters.JOIN_MITRE,
          SHARP_CORNERS);
      wide = BufferOp.bufferOp(BufferOp.bufferOp(traced, -half, square), half, square);
    }
    List<Polygon> parts = new ArrayList<>();
    for (int k = 0; k < wide.getNumGeometries(); k++) {
      if (wide.getGeometryN(k) instanceof Polygon polygon && !polygon.isEmpty()) {
        parts.add(polygon);
      }
    }
    return parts;
  }

  private Squarer.Result shaped(Polygon exact, double pixel) {
    double allowed = Double.isNaN(tolerance) ? objects.ground().lengthOf(0.6, 1.2) : tolerance;
    double inPixels = allowed / pixel;
    return switch (form) {
      case EXACT -> new Squarer.Result(exact, Squarer.Shape.SIMPLIFIED);
      case SIMPLE ->
        new Squarer.Result(Squarer.simplify(exact, inPixels), Squarer.Shape.SIMPLIFIED);
      case SQUARED -> Squarer.square(exact, inPixels);
    };
  }

  private Polygon withoutSmallHoles(Polygon polygon, double pixel) {
    List<LinearRing> kept = new ArrayList<>();
    for (int h = 0; h < polygon.getNumInteriorRing(); h++) {
      var ring = polygon.getInteriorRingN(h);
      if (GEOMETRY.createPolygon(ring).getArea() * pixel * pixel > largestHole) {
        kept.add(ring);
      }
    }
    return GEOMETRY.createPolygon(polygon.getExteriorRing(), kept.toArray(LinearRing[]::new));
  }

  private Geometry trace(TouchingGroups groups, int wanted) {
    Window window = groups.bounds(wanted);
    int[] labels = new int[window.area()];
    objects.labels().read(window, labels);
    boolean[] mask = new boolean[labels.length];
    for (int i = 0; i < mask.length; i++) {
      int row = objects.rowOf()[labels[i]];
      mask[i] = row >= 0 && groups.of(row) == wanted;
    }
    return Tracer.trace(mask, window.width(), window.height(), window.x(), window.y());
  }
}
