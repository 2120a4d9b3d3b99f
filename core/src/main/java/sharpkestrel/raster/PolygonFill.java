package sharpkestrel.raster;

import java.util.Arrays;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygon;

/** Which pixels have their centres inside of polygons, row by row between the crossings of their sides. */
public final class PolygonFill {

  private final double[] x0;
  private final double[] y0;
  private final double[] slope;
  private final double[] y1;
  private final int count;
  private final Extent bounds;

  /**
   * @param polygons in ground coordinates; parts must not overlap
   * @param grid whose pixels are asked for
   */
  public PolygonFill(Geometry polygons, Grid grid) {
    Affine toPixel = grid.affine().inverse();
    int sides = polygons.getNumPoints();
    x0 = new double[sides];
    y0 = new double[sides];
    slope = new double[sides];
    y1 = new double[sides];
    int at = 0;
    Extent all = null;
    for (int part = 0; part < polygons.getNumGeometries(); part++) {
      if (!(polygons.getGeometryN(part) instanceof Polygon polygon)) {
        continue;
      }
      for (int ring = 0; ring <= polygon.getNumInteriorRing(); ring++) {
        Coordinate[] corners = (ring == 0
                ? polygon.getExteriorRing()
                : polygon.getInteriorRingN(ring - 1))
            .getCoordinates();
        for (int i = 0; i + 1 < corners.length; i++) {
          double ax = toPixel.x(corners[i].x, corners[i].y);
          double ay = toPixel.y(corners[i].x, corners[i].y);
          double bx = toPixel.x(corners[i + 1].x, corners[i + 1].y);
          double by = toPixel.y(corners[i + 1].x, corners[i + 1].y);
          side(at++, ax, ay, bx, by);
          Extent here =
              new Extent(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by));
          all = all == null ? here : all.union(here);
        }
      }
    }
    count = at;
    bounds = all == null ? new Extent(0, 0, 0, 0) : all;
  }

  private void side(int at, double ax, double ay, double bx, double by) {
    boolean down = ay <= by;
    x0[at] = down ? ax : bx;
    y0[at] = down ? ay : by;
    y1[at] = down ? by : ay;
    slope[at] = by == ay ? 0 : (bx - ax) / (by - ay);
  }

  /** The pixels that may be inside, at a level; empty where there are no polygons. */
  public Window bounds(int level) {
    double size = 1L << level;
    int left = (int) Math.floor(bounds.west() / size);
    int top = (int) Math.floor(bounds.south() / size);
    return new Window(
        left,
        top,
        Math.max(0, (int) Math.ceil(bounds.east() / size) - left),
        Math.max(0, (int) Math.ceil(bounds.north() / size) - top));
  }

  /**
   * @param window in pixels of the level
   * @return height * width, row by row
   */
  public boolean[] fill(int level, Window window) {
    boolean[] inside = new boolean[window.area()];
    if (bounds(level).intersect(window).isEmpty()) {
      return inside;
    }
    double size = 1L << level;
    double[][] crossings = new double[window.height()][4];
    int[] counts = new int[window.height()];
    for (int i = 0; i < count; i++) {
      int from = Math.max(0, (int) Math.ceil(y0[i] / size - 0.5) - window.y());
      int to = Math.min(window.height(), (int) Math.ceil(y1[i] / size - 0.5) - window.y());
      for (int row = from; row < to; row++) {
        double y = (window.y() + row + 0.5) * size;
        if (counts[row] == crossings[row].length) {
          crossings[row] = Arrays.copyOf(crossings[row], 2 * counts[row]);
        }
        crossings[row][counts[row]++] = (x0[i] + (y - y0[i]) * slope[i]) / size - window.x();
      }
    }
    for (int row = 0; row < window.height(); row++) {
      Arrays.sort(crossings[row], 0, counts[row]);
      for (int k = 0; k + 1 < counts[row]; k += 2) {
        int from = Math.max(0, (int) Math.ceil(crossings[row][k] - 0.5));
        int to = Math.min(window.width(), (int) Math.ceil(crossings[row][k + 1] - 0.5));
        if (from < to) {
          Arrays.fill(inside, row * window.width() + from, row * window.width() + to, true);
        }
      }
    }
    return inside;
  }
}
