package sharpkestrel.place.mosaic;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.locationtech.jts.coverage.CoverageSimplifier;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.geom.util.GeometryEditor;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.PolygonFill;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Tracer;
import sharpkestrel.raster.Window;

/** Which scene of a block shows which area; areas meet along the seams without gaps. */
final class SeamAreas {

  /** Cells by which simpler seams may be off. */
  private static final double SIMPLER = 0.8;

  private SeamAreas() {}

  /** Outlines of labels, one for each scene that shows anything, their common borders simplified alike. */
  static OutlineSet of(SeamFinder.Labels labels, int members) {
    List<Geometry> areas = new ArrayList<>();
    List<Double> numbers = new ArrayList<>();
    for (int number = 1; number <= members; number++) {
      Geometry area = traced(labels, number);
      if (!area.isEmpty()) {
        areas.add(area);
        numbers.add((double) number);
      }
    }
    Geometry[] simple = CoverageSimplifier.simplify(areas.toArray(Geometry[]::new), SIMPLER);
    Affine a = labels.grid().affine();
    AffineTransformation toGround =
        new AffineTransformation(a.a(), a.b(), a.c(), a.d(), a.e(), a.f());
    return set(
        labels.grid(),
        Arrays.stream(simple).map(toGround::transform).toList(),
        numbers.stream().mapToDouble(n -> n).toArray());
  }

  static OutlineSet set(Grid grid, List<Geometry> areas, double[] numbers) {
    double[] sizes = areas.stream().mapToDouble(Geometry::getArea).toArray();
    Table table = new Table(
        areas.size(),
        List.of(
            new Table.Column(Block.SCENE, "Scene", "", numbers),
            new Table.Column("area", "Area", "m²", sizes)));
    return new OutlineSet(grid.crs(), areas, table);
  }

  private static Geometry traced(SeamFinder.Labels labels, int number) {
    int width = labels.grid().width();
    int height = labels.grid().height();
    int left = width;
    int right = 0;
    int top = height;
    int bottom = 0;
    for (int i = 0; i < labels.of().length; i++) {
      if (labels.of()[i] == number) {
        left = Math.min(left, i % width);
        right = Math.max(right, i % width + 1);
        top = Math.min(top, i / width);
        bottom = Math.max(bottom, i / width + 1);
      }
    }
    Window box = new Window(left, top, Math.max(0, right - left), Math.max(0, bottom - top));
    boolean[] mask = new boolean[box.area()];
    for (int i = 0; i < mask.length; i++) {
      mask[i] = labels.of()[(top + i / box.width()) * width + left + i % box.width()] == number;
    }
    return noded(Tracer.trace(mask, box.width(), box.height(), left, top), labels);
  }

  /** With corners wherever neighbours have theirs, also along straight sides. */
  private static Geometry noded(Geometry area, SeamFinder.Labels labels) {
    return new GeometryEditor().edit(area, new GeometryEditor.CoordinateOperation() {
      @Override
      public Coordinate[] edit(Coordinate[] corners, Geometry ring) {
        List<Coordinate> more = new ArrayList<>();
        for (int i = 0; i + 1 < corners.length; i++) {
          more.add(corners[i]);
          int steps = (int) corners[i].distance(corners[i + 1]);
          double dx = (corners[i + 1].x - corners[i].x) / steps;
          double dy = (corners[i + 1].y - corners[i].y) / steps;
          for (int k = 1; k < steps; k++) {
            int x = (int) Math.round(corners[i].x + k * dx);
            int y = (int) Math.round(corners[i].y + k * dy);
            if (isCorner(labels, x, y, dx != 0)) {
              more.add(new Coordinate(x, y));
            }
          }
        }
        more.add(corners[corners.length - 1]);
        return more.toArray(Coordinate[]::new);
      }
    });
  }

  /** Whether what lies on either side of a straight side changes at a place on it. */
  private static boolean isCorner(SeamFinder.Labels labels, int x, int y, boolean along) {
    int nw = label(labels, x - 1, y - 1);
    int ne = label(labels, x, y - 1);
    int sw = label(labels, x - 1, y);
    int se = label(labels, x, y);
    return along ? nw != ne || sw != se : nw != sw || ne != se;
  }

  private static int label(SeamFinder.Labels labels, int x, int y) {
    boolean inside =
        x >= 0 && y >= 0 && x < labels.grid().width() && y < labels.grid().height();
    return inside ? labels.of()[y * labels.grid().width() + x] : 0;
  }

  /** The areas of each of the members, null where one shows none. */
  static PolygonFill[] fills(OutlineSet areas, List<Member> members) {
    Grid grid = members.getFirst().raster().grid();
    Block.requireSystem(areas, grid, "The areas of the seams are");
    if (!areas.table().has(Block.SCENE)) {
      throw new RasterException(
          "The areas of the seams need a column 'scene' with the number of the scene that shows each.");
    }
    PolygonFill[] fills = new PolygonFill[members.size()];
    double[] numbers = areas.table().values(Block.SCENE);
    for (int number = 1; number <= members.size(); number++) {
      List<Geometry> own = new ArrayList<>();
      for (int i = 0; i < numbers.length; i++) {
        if (numbers[i] == number) {
          own.add(areas.outlines().get(i));
        }
      }
      if (!own.isEmpty()) {
        Geometry all = own.size() == 1
            ? own.getFirst()
            : org.locationtech.jts.operation.union.UnaryUnionOp.union(own);
        fills[number - 1] = new PolygonFill(all, grid);
      }
    }
    for (double number : numbers) {
      if (!(number >= 1 && number <= members.size()) || number != Math.rint(number)) {
        throw new RasterException("An area of the seams belongs to scene " + number
            + ", but there are " + members.size()
            + " scenes. Give the scenes in the order in which the seams were found.");
      }
    }
    return fills;
  }
}
