package sharpkestrel.extract.learner;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.RasterException;

/**
 * Places that were given a class: outlines, or points.
 *
 * @param shapes in the coordinates of a scene
 * @param classes names, in alphabetical order
 * @param classOf for each shape the place of its class
 */
public record Samples(List<Geometry> shapes, List<String> classes, int[] classOf) {

  private static final String USUAL = "class";

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
}
