package sharpkestrel.raster;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.locationtech.jts.algorithm.locate.IndexedPointInAreaLocator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Location;
import org.locationtech.jts.io.ParseException;
import org.locationtech.jts.io.WKTReader;

class PolygonFillTest {

  private static final Grid GRID =
      new Grid(96, 70, Affine.northUp(1000, 2000, 0.5), CrsName.epsg(32630));

  private static Geometry shape() throws ParseException {
    Geometry holed = new WKTReader()
        .read("POLYGON ((1003.1 1995.7, 1031.2 1999.3, 1040.9 1968.8, 1010 1970, 1003.1 1995.7),"
            + " (1012 1990, 1012.3 1980.2, 1025.3 1981.1, 1024 1991, 1012 1990))");
    Geometry far = new GeometryFactory().createPoint(new Coordinate(1043, 1992)).buffer(3.3);
    return holed.union(far);
  }

  @Test
  void isWhatEachPixelsCentreLiesIn() throws ParseException {
    Geometry shape = shape();
    IndexedPointInAreaLocator locator = new IndexedPointInAreaLocator(shape);
    PolygonFill fill = new PolygonFill(shape, GRID);
    for (int level = 0; level < 3; level++) {
      Grid grid = GRID.atLevel(level);
      Window window = new Window(-3, -2, grid.width() + 5, grid.height() + 6);
      boolean[] inside = fill.fill(level, window);
      for (int i = 0; i < inside.length; i++) {
        double col = window.x() + i % window.width() + 0.5;
        double row = window.y() + i / window.width() + 0.5;
        Coordinate centre =
            new Coordinate(grid.affine().x(col, row), grid.affine().y(col, row));
        assertThat(inside[i])
            .as("level " + level + ", " + centre)
            .isEqualTo(locator.locate(centre) == Location.INTERIOR);
      }
    }
  }

  @Test
  void isTheSameThroughAnyWindow() throws ParseException {
    PolygonFill fill = new PolygonFill(shape(), GRID);
    boolean[] whole = fill.fill(0, GRID.window());
    for (Window part : new Window[] {new Window(17, 9, 31, 40), new Window(80, 0, 16, 30)}) {
      boolean[] some = fill.fill(0, part);
      for (int i = 0; i < some.length; i++) {
        int at = (part.y() + i / part.width()) * GRID.width() + part.x() + i % part.width();
        assertThat(some[i]).isEqualTo(whole[at]);
      }
    }
  }

  @Test
  void nothingIsInsideOfNoPolygons() {
    PolygonFill fill = new PolygonFill(new GeometryFactory().createPolygon(), GRID);
    assertThat(fill.bounds(0).isEmpty()).isTrue();
    assertThat(fill.fill(0, GRID.window())).doesNotContain(true);
  }
}
