package sharpkestrel.raster;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.algorithm.Area;
import org.locationtech.jts.algorithm.PointLocation;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Location;
import org.locationtech.jts.geom.Polygon;

/**
 * The exact border of a mask along pixel sides, by following cracks with the mask on the right. Pixels that touch by a
 * corner only are not joined (4-connectivity), so rings may meet at a corner but never cross.
 */
public final class Tracer {

  private static final GeometryFactory GEOMETRY = new GeometryFactory();

  private Tracer() {}

  /**
   * @param mask (input) height * width, row by row
   * @return a polygon, or a multipolygon where the mask falls apart, in pixel coordinates with (originX, originY) at
   *     the mask's first corner; empty for an empty mask
   */
  public static Geometry trace(
      boolean[] mask, int width, int height, double originX, double originY) {
    boolean[] done = new boolean[mask.length];
    List<Coordinate[]> outer = new ArrayList<>();
    List<Coordinate[]> holes = new ArrayList<>();
    for (int y = 0; y < height; y++) {
      for (int x = 0; x < width; x++) {
        int i = y * width + x;
        boolean top = mask[i] && (y == 0 || !mask[i - width]);
        if (top && !done[i]) {
          Coordinate[] ring = follow(mask, done, width, height, x, y, originX, originY);
          // Rows count downwards: with the mask on the right an outer ring has positive shoelace
          // area.
          (Area.ofRingSigned(ring) < 0 ? outer : holes).add(ring);
        }
      }
    }
    return assemble(outer, holes);
  }

  private static Coordinate[] follow(
      boolean[] mask,
      boolean[] done,
      int width,
      int height,
      int startX,
      int startY,
      double ox,
      double oy) {
    List<Coordinate> points = new ArrayList<>();
    int x = startX;
    int y = startY;
    int direction = 0;
    int[] dx = {1, 0, -1, 0};
    int[] dy = {0, 1, 0, -1};
    do {
      points.add(new Coordinate(ox + x, oy + y));
      // Go straight on while nothing turns, so that only corners are kept.
      while (true) {
        if (direction == 0) {
          done[y * width + x] = true;
        }
        x += dx[direction];
        y += dy[direction];
        boolean right = inside(mask, width, height, x, y, direction, 1);
        boolean left = inside(mask, width, height, x, y, direction, -1);
        if (!right) {
          direction = direction + 1 & 3;
          break;
        }
        if (left) {
          direction = direction + 3 & 3;
          break;
        }
        if (x == startX && y == startY && direction == 0) {
          break;
        }
      }
    } while (x != startX || y != startY || direction != 0);
    points.add(points.get(0).copy());
    return points.toArray(Coordinate[]::new);
  }

  /** The pixel ahead of a corner, on the right (1) or left (-1) of the direction of travel. */
  private static boolean inside(
      boolean[] mask, int width, int height, int x, int y, int direction, int side) {
    int px;
    int py;
    switch (direction) {
      case 0 -> {
        px = x;
        py = side > 0 ? y : y - 1;
      }
      case 1 -> {
        px = side > 0 ? x - 1 : x;
        py = y;
      }
      case 2 -> {
        px = x - 1;
        py = side > 0 ? y - 1 : y;
      }
      default -> {
        px = side > 0 ? x : x - 1;
        py = y - 1;
      }
    }
    return px >= 0 && py >= 0 && px < width && py < height && mask[py * width + px];
  }

  private static Geometry assemble(List<Coordinate[]> outer, List<Coordinate[]> holes) {
    List<List<LinearRing>> inner = new ArrayList<>();
    for (int k = 0; k < outer.size(); k++) {
      inner.add(new ArrayList<>());
    }
    for (Coordinate[] hole : holes) {
      inner.get(owner(outer, hole)).add(GEOMETRY.createLinearRing(hole));
    }
    Polygon[] polygons = new Polygon[outer.size()];
    for (int k = 0; k < polygons.length; k++) {
      polygons[k] = GEOMETRY.createPolygon(
          GEOMETRY.createLinearRing(outer.get(k)), inner.get(k).toArray(LinearRing[]::new));
    }
    return polygons.length == 1 ? polygons[0] : GEOMETRY.createMultiPolygon(polygons);
  }

  /** The smallest outer ring around a hole. */
  private static int owner(List<Coordinate[]> outer, Coordinate[] hole) {
    if (outer.size() == 1) {
      return 0;
    }
    Coordinate probe = new Coordinate((hole[0].x + hole[1].x) / 2, (hole[0].y + hole[1].y) / 2);
    int best = 0;
    double least = Double.POSITIVE_INFINITY;
    for (int k = 0; k < outer.size(); k++) {
      double area = Math.abs(Area.ofRing(outer.get(k)));
      if (area < least && PointLocation.locateInRing(probe, outer.get(k)) != Location.EXTERIOR) {
        least = area;
        best = k;
      }
    }
    return best;
  }
}
