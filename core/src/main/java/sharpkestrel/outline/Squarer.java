package sharpkestrel.outline;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.algorithm.MinimumAreaRectangle;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.simplify.TopologyPreservingSimplifier;

/**
 * Outlines with right angles. The main direction of the border is the length-weighted mean of its sides' directions,
 * taken four times over so that right angles agree; each side is turned to it or across it about its middle, and
 * neighbouring sides that run alike become one at their weighted mean. What the result must keep is tested: where it
 * overlaps the exact border too little, the smallest rectangle is tried, and where that fails too the simplified
 * border stands.
 */
public final class Squarer {

  private static final GeometryFactory GEOMETRY = new GeometryFactory();
  private static final double LEAST_OVERLAP = 0.80;
  private static final double LEAST_RECTANGLE = 0.84;

  /** What became of an outline. */
  public enum Shape {
    SQUARED,
    RECTANGLE,
    SIMPLIFIED
  }

  public record Result(Polygon outline, Shape shape) {}

  private Squarer() {}

  /**
   * @param exact the border along pixel sides
   * @param tolerance how far the simplified border may leave the exact one, in its units
   */
  public static Result square(Polygon exact, double tolerance) {
    Polygon simple = simplify(exact, tolerance);
    Polygon rectangle = rectangle(exact);
    double fit = overlap(rectangle, exact);
    Polygon squared = squared(simple, 2 * tolerance);
    double squaredFit = squared.isEmpty() ? 0 : overlap(squared, exact);
    if (fit >= LEAST_RECTANGLE && squaredFit < fit + 0.05) {
      return new Result(rectangle, Shape.RECTANGLE);
    }
    if (squaredFit >= LEAST_OVERLAP) {
      return new Result(squared, Shape.SQUARED);
    }
    return fit >= LEAST_RECTANGLE
        ? new Result(rectangle, Shape.RECTANGLE)
        : new Result(simple, Shape.SIMPLIFIED);
  }

  /** Corners of the outer ring squared, or of the simplified one where it cannot be squared. */
  public static int corners(Polygon exact, double tolerance) {
    Coordinate[] simple = simplify(exact, tolerance).getExteriorRing().getCoordinates();
    LinearRing squared = squaredRing(simple, mainDirection(simple), 2 * tolerance);
    return (squared == null ? simple.length : squared.getNumPoints()) - 1;
  }

  /** Simplified without holes closing or rings crossing (Douglas and Peucker 1973, as JTS keeps topology). */
  public static Polygon simplify(Polygon exact, double tolerance) {
    Geometry simple = TopologyPreservingSimplifier.simplify(exact, tolerance);
    return simple instanceof Polygon polygon && !polygon.isEmpty() ? polygon : exact;
  }

  /** The smallest rectangle, shrunk about its middle to the border's area. */
  private static Polygon rectangle(Polygon exact) {
    Geometry around = MinimumAreaRectangle.getMinimumRectangle(exact);
    if (!(around instanceof Polygon box) || !(box.getArea() > 0)) {
      return exact;
    }
    double area =
        GEOMETRY.createPolygon(exact.getExteriorRing().getCoordinateSequence()).getArea();
    double shrink = Math.sqrt(area / box.getArea());
    Coordinate middle = box.getCentroid().getCoordinate();
    Coordinate[] corners = box.getExteriorRing().getCoordinates();
    for (Coordinate corner : corners) {
      corner.x = middle.x + (corner.x - middle.x) * shrink;
      corner.y = middle.y + (corner.y - middle.y) * shrink;
    }
    return GEOMETRY.createPolygon(corners);
  }

  private static double overlap(Geometry a, Geometry b) {
    return a.isValid() && b.isValid() ? Overlap.iou(a, b) : 0;
  }

  private static Polygon squared(Polygon simple, double least) {
    double direction = mainDirection(simple.getExteriorRing().getCoordinates());
    LinearRing shell = squaredRing(simple.getExteriorRing().getCoordinates(), direction, least);
    if (shell == null) {
      return GEOMETRY.createPolygon();
    }
    List<LinearRing> holes = new ArrayList<>();
    for (int h = 0; h < simple.getNumInteriorRing(); h++) {
      LinearRing hole = squaredRing(simple.getInteriorRingN(h).getCoordinates(), direction, least);
      if (hole != null && GEOMETRY.createPolygon(hole).getArea() > 4 * least * least) {
        holes.add(hole);
      }
    }
    Polygon polygon = GEOMETRY.createPolygon(shell, holes.toArray(LinearRing[]::new));
    return polygon.isValid() ? polygon : GEOMETRY.createPolygon(shell);
  }

  static double mainDirection(Coordinate[] ring) {
    double cos = 0;
    double sin = 0;
    for (int i = 0; i + 1 < ring.length; i++) {
      double dx = ring[i + 1].x - ring[i].x;
      double dy = ring[i + 1].y - ring[i].y;
      double length = Math.hypot(dx, dy);
      double angle = Math.atan2(dy, dx);
      cos += length * length * Math.cos(4 * angle);
      sin += length * length * Math.sin(4 * angle);
    }
    return Math.atan2(sin, cos) / 4;
  }

  /** A side of the squared ring: along or across, at an offset, with its length as weight. */
  private record Side(boolean along, double offset, double weight) {}

  private static LinearRing squaredRing(Coordinate[] ring, double direction, double least) {
    double c = Math.cos(direction);
    double s = Math.sin(direction);
    List<Side> sides = new ArrayList<>();
    for (int i = 0; i + 1 < ring.length; i++) {
      double u0 = ring[i].x * c + ring[i].y * s;
      double v0 = -ring[i].x * s + ring[i].y * c;
      double u1 = ring[i + 1].x * c + ring[i + 1].y * s;
      double v1 = -ring[i + 1].x * s + ring[i + 1].y * c;
      boolean along = Math.abs(u1 - u0) >= Math.abs(v1 - v0);
      double length = Math.hypot(u1 - u0, v1 - v0);
      add(sides, new Side(along, along ? (v0 + v1) / 2 : (u0 + u1) / 2, length));
    }
    while (sides.size() > 1
        && sides.get(0).along() == sides.get(sides.size() - 1).along()) {
      Side last = sides.remove(sides.size() - 1);
      sides.set(0, joined(sides.get(0), last));
    }
    dropShort(sides, least);
    if (sides.size() < 4 || sides.size() % 2 != 0) {
      return null;
    }
    Coordinate[] corners = new Coordinate[sides.size() + 1];
    for (int i = 0; i < sides.size(); i++) {
      Side a = sides.get(i);
      Side b = sides.get((i + 1) % sides.size());
      double u = a.along() ? b.offset() : a.offset();
      double v = a.along() ? a.offset() : b.offset();
      corners[i] = new Coordinate(u * c - v * s, u * s + v * c);
    }
    corners[sides.size()] = corners[0].copy();
    return GEOMETRY.createLinearRing(corners);
  }

  private static void add(List<Side> sides, Side side) {
    int last = sides.size() - 1;
    if (last >= 0 && sides.get(last).along() == side.along()) {
      sides.set(last, joined(sides.get(last), side));
    } else {
      sides.add(side);
    }
  }

  private static Side joined(Side a, Side b) {
    double weight = a.weight() + b.weight();
    return new Side(
        a.along(), (a.offset() * a.weight() + b.offset() * b.weight()) / weight, weight);
  }

  /** Takes out steps shorter than the least length, the shortest first, joining the sides on both sides of them. */
  private static void dropShort(List<Side> sides, double least) {
    while (sides.size() > 4) {
      int shortest = -1;
      double length = least;
      for (int i = 0; i < sides.size(); i++) {
        Side before = sides.get((i + sides.size() - 1) % sides.size());
        Side after = sides.get((i + 1) % sides.size());
        double step = Math.abs(after.offset() - before.offset());
        if (step < length) {
          length = step;
          shortest = i;
        }
      }
      if (shortest < 0) {
        return;
      }
      int n = sides.size();
      Side before = sides.get((shortest + n - 1) % n);
      Side after = sides.get((shortest + 1) % n);
      Side one = joined(before, after);
      sides.set((shortest + n - 1) % n, one);
      if (shortest == n - 1) {
        sides.remove(n - 1);
        sides.remove(0);
      } else {
        sides.remove(shortest + 1);
        sides.remove(shortest);
      }
      if (shortest == 0) {
        // the side before was the last; it has moved two places down
        sides.set(sides.size() - 1, one);
      }
    }
  }
}
