package sharpkestrel.extract;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Polygon;
import sharpkestrel.expr.Table;
import sharpkestrel.objects.ObjectGeometry;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.outline.MinimumRectangle;
import sharpkestrel.outline.Squarer;
import sharpkestrel.outline.Tracer;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
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
    title = "Outline",
    does =
        "Turns objects into outlines: objects that touch are joined (the lit and the shaded side of one roof), borders"
            + " traced exactly, small holes filled, then simplified or squared.")
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
        does = "How far a simplified border may leave the exact one.",
        unit = "m",
        min = 0,
        max = 100,
        initial = "0.6")
    double tolerance,

    @Setting(
        label = "Join touching",
        does = "Whether objects that touch become one outline.",
        initial = "true")
    boolean joinTouching,

    @Setting(
        label = "Least area",
        does = "Outlines smaller than this are left out.",
        unit = "m²",
        min = 0,
        max = 1e9,
        initial = "0")
    double leastArea,

    @Setting(
        label = "Least rectangularity",
        does =
            "Outlines whose exact border fills less of its smallest rectangle than this are left out: roofs fill"
                + " most of it, rocks and surf do not.",
        min = 0,
        max = 1,
        initial = "0")
    double leastRectangularity,

    @Setting(
        label = "Largest hole",
        does = "Holes up to this area are filled.",
        unit = "m²",
        min = 0,
        max = 1e9,
        initial = "10")
    double largestHole)
    implements Step<OutlineSet> {

  /** How borders are drawn. */
  public enum Form {
    EXACT,
    SIMPLE,
    SQUARED
  }

  private static final GeometryFactory GEOMETRY = new GeometryFactory();

  @Override
  public OutlineSet run(Job job) {
    Grid grid = objects.labels().grid();
    ObjectGeometry geometry = ObjectGeometry.of(objects);
    int[] group = groups(geometry);
    int groups = Arrays.stream(group).max().orElse(-1) + 1;
    Window[] bounds = new Window[groups];
    for (int i = 0; i < group.length; i++) {
      Window own = geometry.bounds(i);
      Window all = bounds[group[i]];
      bounds[group[i]] = all == null ? own : around(all, own);
    }
    double pixel = objects.ground().mean();
    double[] scores =
        objects.table().has("score") ? objects.table().values("score") : new double[group.length];
    List<Geometry> outlines = new ArrayList<>();
    List<double[]> rows = new ArrayList<>();
    List<String> shapes = new ArrayList<>();
    for (int g = 0; g < groups; g++) {
      job.cancellation().check();
      job.progress("Outlining", g, groups);
      Geometry traced = trace(bounds[g], group, g);
      double sumOfScores = 0;
      double area = 0;
      int members = 0;
      double[] areas = objects.table().values("area");
      for (int i = 0; i < group.length; i++) {
        if (group[i] == g) {
          sumOfScores += scores[i] * areas[i];
          area += areas[i];
          members++;
        }
      }
      for (int k = 0; k < traced.getNumGeometries(); k++) {
        Polygon exact = withoutSmallHoles((Polygon) traced.getGeometryN(k), pixel);
        double filled = exact.getArea() / (box(exact).length() * box(exact).width());
        if (exact.getArea() * pixel * pixel < leastArea || filled < leastRectangularity) {
          continue;
        }
        Squarer.Result result = shaped(exact, pixel);
        MinimumRectangle box = box(result.outline());
        outlines.add(ObjectGeometry.toGround(grid.affine()).transform(result.outline()));
        shapes.add(
            form == Form.EXACT
                ? "exact"
                : result.shape().name().toLowerCase(java.util.Locale.ROOT));
        rows.add(new double[] {
          result.outline().getArea() * pixel * pixel,
          box.length() * pixel,
          box.width() * pixel,
          filled,
          sumOfScores / area,
          members
        });
      }
    }
    return new OutlineSet(grid.crs(), outlines, table(rows, shapes));
  }

  private static MinimumRectangle box(Polygon polygon) {
    Coordinate[] hull = polygon.convexHull().getCoordinates();
    double[] xs = new double[hull.length];
    double[] ys = new double[hull.length];
    for (int i = 0; i < hull.length; i++) {
      xs[i] = hull[i].x;
      ys[i] = hull[i].y;
    }
    return MinimumRectangle.ofHull(xs, ys, hull.length - 1);
  }

  private static Table table(List<double[]> rows, List<String> shapes) {
    String[][] names = {
      {"area", "Area", "m²"},
      {"length", "Length", "m"},
      {"width", "Width", "m"},
      {"rectangularity", "Rectangularity", ""},
      {"score", "Score", ""},
      {"objects", "Objects", ""}
    };
    List<Table.Column> columns = new ArrayList<>();
    for (int c = 0; c < names.length; c++) {
      double[] values = new double[rows.size()];
      for (int i = 0; i < values.length; i++) {
        values[i] = rows.get(i)[c];
      }
      columns.add(new Table.Column(names[c][0], names[c][1], names[c][2], values));
    }
    columns.add(Table.Column.ofTexts("shape", "Shape", shapes));
    return new Table(rows.size(), columns);
  }

  private Squarer.Result shaped(Polygon exact, double pixel) {
    double inPixels = tolerance / pixel;
    return switch (form) {
      case EXACT -> new Squarer.Result(exact, Squarer.Shape.SIMPLIFIED);
      case SIMPLE ->
        new Squarer.Result(Squarer.simplify(exact, inPixels), Squarer.Shape.SIMPLIFIED);
      case SQUARED -> Squarer.square(exact, inPixels);
    };
  }

  private Polygon withoutSmallHoles(Polygon polygon, double pixel) {
    List<org.locationtech.jts.geom.LinearRing> kept = new ArrayList<>();
    for (int h = 0; h < polygon.getNumInteriorRing(); h++) {
      var ring = polygon.getInteriorRingN(h);
      if (GEOMETRY.createPolygon(ring).getArea() * pixel * pixel > largestHole) {
        kept.add(ring);
      }
    }
    return GEOMETRY.createPolygon(
        polygon.getExteriorRing(), kept.toArray(org.locationtech.jts.geom.LinearRing[]::new));
  }

  private Geometry trace(Window window, int[] group, int wanted) {
    int[] labels = new int[window.area()];
    objects.labels().read(window, labels);
    boolean[] mask = new boolean[labels.length];
    for (int i = 0; i < mask.length; i++) {
      int row = objects.rowOf()[labels[i]];
      mask[i] = row >= 0 && group[row] == wanted;
    }
    return Tracer.trace(mask, window.width(), window.height(), window.x(), window.y());
  }

  private static Window around(Window a, Window b) {
    int x = Math.min(a.x(), b.x());
    int y = Math.min(a.y(), b.y());
    return new Window(
        x, y, Math.max(a.right(), b.right()) - x, Math.max(a.bottom(), b.bottom()) - y);
  }

  /** For each object the number of its group: itself, or all that are joined by common pixel sides. */
  private int[] groups(ObjectGeometry geometry) {
    int n = objects.count();
    int[] group = new int[n];
    if (!joinTouching) {
      Arrays.setAll(group, i -> i);
      return group;
    }
    List<List<Integer>> touching = new ArrayList<>();
    for (int i = 0; i < n; i++) {
      touching.add(new ArrayList<>());
    }
    int[] rowOf = objects.rowOf();
    for (int i = 0; i < n; i++) {
      Window window = geometry.bounds(i).grown(1);
      int[] labels = new int[window.area()];
      objects.labels().read(window, labels);
      int w = window.width();
      for (int k = 0; k < labels.length; k++) {
        if (rowOf[labels[k]] != i) {
          continue;
        }
        int right = rowOf[labels[k + 1]];
        int below = rowOf[labels[k + w]];
        int left = rowOf[labels[k - 1]];
        int above = rowOf[labels[k - w]];
        for (int other : new int[] {right, below, left, above}) {
          if (other >= 0 && other != i && !touching.get(i).contains(other)) {
            touching.get(i).add(other);
          }
        }
      }
    }
    Arrays.fill(group, -1);
    int count = 0;
    ArrayDeque<Integer> queue = new ArrayDeque<>();
    for (int i = 0; i < n; i++) {
      if (group[i] >= 0) {
        continue;
      }
      group[i] = count;
      queue.add(i);
      while (!queue.isEmpty()) {
        for (int other : touching.get(queue.poll())) {
          if (group[other] < 0) {
            group[other] = count;
            queue.add(other);
          }
        }
      }
      count++;
    }
    return group;
  }
}
