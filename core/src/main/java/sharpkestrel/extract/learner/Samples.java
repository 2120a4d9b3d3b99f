package sharpkestrel.extract.learner;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.segment.regions.DrawnRegions;

/**
 * Places that were given a class: outlines, or points.
 *
 * @param shapes in the coordinates of a scene
 * @param classes names, in alphabetical order
 * @param classOf for each shape the place of its class
 */
public record Samples(List<Geometry> shapes, List<String> classes, int[] classOf) {

  private static final String USUAL = "class";

  /** What a sample that is a point has: its pixel. */
  private static final double POINT = 0.4;

  /**
   * @param column that holds the class; empty for {@code class}, or the only column of texts
   * @throws RasterException where there is no such column, or nothing in it
   */
  public static Samples of(OutlineSet outlines, String column) {
    List<String> texts = outlines.table().columns().stream()
        .filter(Table.Column::isText)
        .map(Table.Column::name)
        .toList();
    String name = !column.isEmpty()
        ? column
        : texts.contains(USUAL) || texts.size() != 1 ? USUAL : texts.getFirst();
    if (!texts.contains(name)) {
      throw new RasterException(
          "The samples have no class: there is no column of texts called '" + name + "'. "
              + (texts.isEmpty()
                  ? "There is none at all; add one with a class for each outline."
                  : "There are " + String.join(", ", texts)
                      + "; name the one that holds it (class-column)."));
    }
    Table.Column of = outlines.table().column(name);
    List<Geometry> shapes = new ArrayList<>();
    List<String> said = new ArrayList<>();
    for (int i = 0; i < outlines.count(); i++) {
      if (!of.text(i).isEmpty() && !outlines.outlines().get(i).isEmpty()) {
        shapes.add(outlines.outlines().get(i));
        said.add(of.text(i));
      }
    }
    if (shapes.isEmpty()) {
      throw new RasterException("None of the " + outlines.count() + " samples has a class in '"
          + name + "'. Give them one, or name another column (class-column).");
    }
    List<String> classes = said.stream().distinct().sorted().toList();
    return new Samples(shapes, classes, said.stream().mapToInt(classes::indexOf).toArray());
  }

  public int count() {
    return shapes.size();
  }

  /** Each sample's pixels, later ones over earlier ones: labels 1 to their count, 0 beside them. */
  public LabelRaster drawOn(Grid grid, Job job) {
    ScratchLabels drawn = new ScratchLabels(grid);
    DrawnRegions.draw(shapes.stream().map(shape -> withArea(shape, grid)).toList(), drawn, job);
    return drawn;
  }

  /** A line counts along its length, a point as the pixel that it lies in. */
  private static Geometry withArea(Geometry shape, Grid grid) {
    if (shape.getArea() > 0) {
      return shape;
    }
    Affine toGround = grid.affine();
    double side = Math.sqrt(Math.abs(toGround.a() * toGround.e() - toGround.b() * toGround.d()));
    if (shape.getDimension() == 1) {
      return shape.buffer(0.5 * side);
    }
    Coordinate at = shape.getCentroid().getCoordinate();
    Affine toPixels = toGround.inverse();
    double col = Math.floor(toPixels.x(at.x, at.y)) + 0.5;
    double row = Math.floor(toPixels.y(at.x, at.y)) + 0.5;
    Envelope box = new Envelope(new Coordinate(toGround.x(col, row), toGround.y(col, row)));
    box.expandBy(POINT * side);
    return new GeometryFactory().toGeometry(box);
  }
}
