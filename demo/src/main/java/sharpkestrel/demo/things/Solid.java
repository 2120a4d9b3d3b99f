package sharpkestrel.demo.things;

import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.light.Surface;

/**
 * A convex solid: upright walls over a convex plan, cut off above by the lowest of a few planes. A house under a gable
 * has two such planes, under hips four, under a flat roof one; hulls, containers and cars are made likewise. Compound
 * buildings are several solids that run into each other.
 *
 * <p>Every face is a half-space {@code a*x + b*y + c*z <= d} about the middle of the plan, so a ray meets the solid
 * where the highest of the lower bounds on its height is below the lowest of the upper ones (Kay and Kajiya 1986).
 */
public final class Solid {

  private static final double BELOW = 3;
  private static final double LEVEL = 1e-12;

  public final double east;
  public final double north;
  public final double base;
  public final double top;
  public final double reach;
  private final double[] plan;
  private final double[] planes;
  private final Surface[] faces;
  private final int walls;

  /**
   * @param plan corners in turn, anticlockwise, east and north
   * @param base height of the foot above the geoid; the walls go on {@value #BELOW} m below it
   * @param roof planes {@code z <= r[0] + r[1] * (e - middle) + r[2] * (n - middle)}, heights above the geoid
   * @param wall surface of the walls
   * @param over surface of each roof plane
   * @throws IllegalArgumentException where the plan is not convex and anticlockwise
   */
  public Solid(double[] plan, double base, double[][] roof, Surface wall, Surface... over) {
    if (Polygons.area(plan) <= 0) {
      throw new IllegalArgumentException("The plan of a solid runs anticlockwise.");
    }
    double[] middle = Polygons.middle(plan);
    east = middle[0];
    north = middle[1];
    this.base = base;
    this.plan = plan.clone();
    walls = plan.length / 2;
    planes = new double[4 * (walls + roof.length)];
    faces = new Surface[walls + roof.length];
    double far = 0;
    for (int i = 0; i < walls; i++) {
      int j = (i + 1) % walls;
      double a = plan[2 * j + 1] - plan[2 * i + 1];
      double b = plan[2 * i] - plan[2 * j];
      double l = Math.hypot(a, b);
      set(i, a / l, b / l, 0, (a * (plan[2 * i] - east) + b * (plan[2 * i + 1] - north)) / l);
      faces[i] = wall;
      far = Math.max(far, Math.hypot(plan[2 * i] - east, plan[2 * i + 1] - north));
    }
    for (int k = 0; k < roof.length; k++) {
      double l = Math.sqrt(1 + roof[k][1] * roof[k][1] + roof[k][2] * roof[k][2]);
      set(walls + k, -roof[k][1] / l, -roof[k][2] / l, 1 / l, roof[k][0] / l);
      faces[walls + k] = over[Math.min(k, over.length - 1)];
    }
    reach = far;
    double highest = base;
    for (int k = 0; k < roof.length; k++) {
      for (double[] corner : facet(k)) {
        highest = Math.max(highest, corner[2]);
      }
    }
    top = highest;
  }

  private void set(int face, double a, double b, double c, double d) {
    planes[4 * face] = a;
    planes[4 * face + 1] = b;
    planes[4 * face + 2] = c;
    planes[4 * face + 3] = d;
  }

  private Solid(Solid of, Surface over) {
    east = of.east;
    north = of.north;
    base = of.base;
    top = of.top;
    reach = of.reach;
    plan = of.plan;
    planes = of.planes;
    walls = of.walls;
    faces = of.faces.clone();
    for (int k = walls; k < faces.length; k++) {
      faces[k] = over;
    }
  }

  /** The same under another roof. */
  Solid roofed(Surface over) {
    return new Solid(this, over);
  }

  /** A solid with a level top. */
  public static Solid box(double[] plan, double base, double top, Surface wall, Surface over) {
    return new Solid(plan, base, new double[][] {{top, 0, 0}}, wall, over);
  }

  /**
   * The highest point where a ray meets the solid; NaN where it misses.
   *
   * @param ray east and north at height 0 above the geoid, and their change for a metre of height
   * @param face (output) the face met, in {@code face[0]}
   */
  public double meet(double[] ray, int[] face) {
    double x = ray[0] - east;
    double y = ray[1] - north;
    double low = base - BELOW;
    double high = Double.POSITIVE_INFINITY;
    for (int i = 0, k = 0; i < planes.length; i += 4, k++) {
      double along = planes[i] * ray[2] + planes[i + 1] * ray[3] + planes[i + 2];
      double left = planes[i + 3] - planes[i] * x - planes[i + 1] * y;
      if (along > LEVEL) {
        double bound = left / along;
        if (bound < high) {
          high = bound;
          face[0] = k;
          if (high < low) {
            return Double.NaN;
          }
        }
      } else if (along < -LEVEL) {
        low = Math.max(low, left / along);
      } else if (left < 0) {
        return Double.NaN;
      }
    }
    return high < low ? Double.NaN : high;
  }

  public Surface surface(int face) {
    return faces[face];
  }

  public boolean isWall(int face) {
    return face < walls;
  }

  /** Unit normal of a face, outwards. */
  public void normal(int face, double[] normal) {
    normal[0] = planes[4 * face];
    normal[1] = planes[4 * face + 1];
    normal[2] = planes[4 * face + 2];
  }

  /** Metres from a point inside of the plan to the nearest wall; below 0 outside. */
  public double inside(double e, double n) {
    double least = Double.POSITIVE_INFINITY;
    for (int i = 0; i < walls; i++) {
      least = Math.min(
          least, planes[4 * i + 3] - planes[4 * i] * (e - east) - planes[4 * i + 1] * (n - north));
    }
    return least;
  }

  /** Corners of the plan in turn, east and north. */
  public double[] plan() {
    return plan.clone();
  }

  public int facets() {
    return faces.length - walls;
  }

  /** The surface of a roof plane. */
  public Surface over(int facet) {
    return faces[walls + facet];
  }

  /** Corners of a roof facet in turn: east, north, height; none where other planes lie below it everywhere. */
  public double[][] facet(int facet) {
    double[] ring = plan;
    for (int k = 0; k < facets(); k++) {
      if (k != facet && ring.length > 0) {
        // where this plane is not above the other
        ring = Polygons.clip(
            ring,
            slope(facet, 0) - slope(k, 0),
            slope(facet, 1) - slope(k, 1),
            height(k, 0, 0)
                - height(facet, 0, 0)
                + (slope(facet, 0) - slope(k, 0)) * east
                + (slope(facet, 1) - slope(k, 1)) * north);
      }
    }
    double[][] corners = new double[ring.length / 2][];
    for (int i = 0; i < corners.length; i++) {
      double e = ring[2 * i];
      double n = ring[2 * i + 1];
      corners[i] = new double[] {e, n, height(facet, e - east, n - north)};
    }
    return corners;
  }

  private double slope(int facet, int axis) {
    int at = 4 * (walls + facet);
    return -planes[at + axis] / planes[at + 2];
  }

  private double height(int facet, double x, double y) {
    int at = 4 * (walls + facet);
    return planes[at + 3] / planes[at + 2] + slope(facet, 0) * x + slope(facet, 1) * y;
  }
}
