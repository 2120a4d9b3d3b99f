package sharpkestrel.objects;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.algorithm.Orientation;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.geom.util.GeometryFixer;
import org.locationtech.jts.geom.util.PolygonExtracter;
import org.locationtech.jts.simplify.TopologyPreservingSimplifier;
import org.locationtech.jts.triangulate.polygon.PolygonTriangulator;

/**
 * An area drawn in the plot of two features as CQL2 text: cut into triangles, each of which is what lies on the right side of
 * three lines. So what was drawn can be kept, run on other objects, and read. The drawn line is simplified to
 * {@value #TOLERANCE} of its extent before; where it crosses itself, what it winds around counts.
 */
public final class FeatureArea {

  private static final double TOLERANCE = 0.004;

  private FeatureArea() {}

  /**
   * @param x feature to the right
   * @param xs values at the corners, in the order in which they were drawn
   * @return a test that what lies within passes; one that nothing passes where the corners enclose nothing
   */
  public static String test(String x, String y, double[] xs, double[] ys) {
    Coordinate[] ring = new Coordinate[xs.length + 1];
    for (int i = 0; i < ring.length; i++) {
      ring[i] = new Coordinate(xs[i % xs.length], ys[i % xs.length]);
    }
    Geometry drawn = xs.length < 3
        ? new GeometryFactory().createPolygon()
        : new GeometryFactory().createPolygon(ring);
    Envelope box = drawn.getEnvelopeInternal();
    if (!(box.getArea() > 0)) {
      return x + " < " + x;
    }
    // both features on the same scale, so that what is near on the plot is near here
    AffineTransformation toUnit = AffineTransformation.translationInstance(
            -box.getMinX(), -box.getMinY())
        .scale(1 / box.getWidth(), 1 / box.getHeight());
    Geometry unit = TopologyPreservingSimplifier.simplify(
        GeometryFixer.fix(toUnit.transform(drawn)), TOLERANCE);
    List<String> parts = new ArrayList<>();
    for (Object each : PolygonExtracter.getPolygons(unit)) {
      Geometry triangles = PolygonTriangulator.triangulate((Polygon) each);
      for (int i = 0; i < triangles.getNumGeometries(); i++) {
        parts.add(triangle(x, y, triangles.getGeometryN(i).getCoordinates(), box));
      }
    }
    return parts.isEmpty() ? x + " < " + x : "(" + String.join(" OR ", parts) + ")";
  }

  private static String triangle(String x, String y, Coordinate[] corners, Envelope box) {
    boolean counterClockwise = Orientation.isCCW(corners);
    List<String> sides = new ArrayList<>();
    for (int i = 0; i < 3; i++) {
      Coordinate from = corners[counterClockwise ? i : i + 1];
      Coordinate to = corners[counterClockwise ? i + 1 : i];
      sides.add(leftOf(x, y, from, to, box));
    }
    return "(" + String.join(" AND ", sides) + ")";
  }

  /** The side to the left of a line. Lines that two triangles share read alike in both, so nothing falls between. */
  private static String leftOf(String x, String y, Coordinate from, Coordinate to, Envelope box) {
    boolean rightwards = from.x < to.x;
    Coordinate a = rightwards ? from : to;
    Coordinate b = rightwards ? to : from;
    if (Math.abs(b.x - a.x) < 1e-9) {
      return x + (to.y > from.y ? " <= " : " >= ") + number(box.getMinX() + a.x * box.getWidth());
    }
    double slope = (b.y - a.y) * box.getHeight() / ((b.x - a.x) * box.getWidth());
    double at =
        box.getMinY() + a.y * box.getHeight() - slope * (box.getMinX() + a.x * box.getWidth());
    return y + (rightwards ? " >= " : " <= ") + number(slope) + " * " + x + (at < 0 ? " - " : " + ")
        + number(Math.abs(at));
  }

  private static String number(double value) {
    return new java.math.BigDecimal(value)
        .round(new java.math.MathContext(9))
        .stripTrailingZeros()
        .toPlainString();
  }
}
