package sharpkestrel.demo.truth;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.util.GeometryFixer;
import org.locationtech.jts.operation.union.UnaryUnionOp;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.sensor.Sensor;
import sharpkestrel.demo.things.Building;
import sharpkestrel.demo.things.Solid;
import sharpkestrel.demo.things.Vehicle;
import sharpkestrel.demo.things.Vessel;

/** Outlines of things as they lie on the ground, in the raw image of a sensor, and in an ortho over the terrain. */
public final class Outlines {

  private static final GeometryFactory GEOMETRY = new GeometryFactory();

  /** Where a product shows a point: east, north, height above the geoid. */
  public interface Product {
    Coordinate of(double east, double north, double height);
  }

  private Outlines() {}

  /** Seen straight from above: a true ortho, and the ground itself. */
  public static Product above() {
    return (e, n, h) -> new Coordinate(e, n);
  }

  /**
   * Columns and rows of the raw image.
   *
   * @param undulation metres from the ellipsoid up to the geoid
   */
  public static Product raw(Sensor sensor, double undulation) {
    return (e, n, h) -> {
      double[] image = new double[2];
      sensor.toImage(e, n, h + undulation, image);
      return new Coordinate(image[0], image[1]);
    };
  }

  /** Where an orthorectification over the terrain puts a point that stands above it: down its ray to the ground. */
  public static Product terrainOrtho(Sensor sensor, double undulation, Ground ground) {
    return (e, n, h) -> {
      double[] image = new double[2];
      double[] ray = new double[4];
      sensor.toImage(e, n, h + undulation, image);
      sensor.ray(image[0], image[1], ray);
      ray[0] += undulation * ray[2];
      ray[1] += undulation * ray[3];
      double z = ground.tiles().meet(ray, h);
      return new Coordinate(ray[0] + z * ray[2], ray[1] + z * ray[3]);
    };
  }

  /** The roof of a building: its facets as the product shows them, joined; walls are no part of it. */
  public static Geometry roof(Building building, Product product) {
    List<Geometry> facets = new ArrayList<>();
    for (Solid part : building.parts()) {
      for (int k = 0; k < part.facets(); k++) {
        double[][] corners = part.facet(k);
        if (corners.length > 2) {
          facets.add(polygon(corners, product));
        }
      }
    }
    return joined(facets);
  }

  /** The plan of a building on the ground. */
  public static Geometry footprint(Building building) {
    List<Geometry> plans = new ArrayList<>();
    for (Solid part : building.parts()) {
      plans.add(polygon(levelled(part.plan(), part.base), above()));
    }
    return joined(plans);
  }

  /** A hull from the water to its rail. */
  public static Geometry vessel(Vessel vessel, double foot, Product product) {
    return upright(vessel.deck(), foot, vessel.level(), product);
  }

  /** A body from the ground to its top. */
  public static Geometry vehicle(Vehicle vehicle, double foot, Product product) {
    return upright(vehicle.plan(), foot, vehicle.level(), product);
  }

  /** What is seen of an upright prism is the hull of its two ends. */
  private static Geometry upright(double[] ring, double foot, double top, Product product) {
    Coordinate[] seen = new Coordinate[ring.length];
    for (int i = 0; i < ring.length / 2; i++) {
      seen[i] = product.of(ring[2 * i], ring[2 * i + 1], foot);
      seen[ring.length / 2 + i] = product.of(ring[2 * i], ring[2 * i + 1], top);
    }
    return GEOMETRY.createMultiPointFromCoords(seen).convexHull();
  }

  private static double[][] levelled(double[] ring, double height) {
    double[][] corners = new double[ring.length / 2][];
    for (int i = 0; i < corners.length; i++) {
      corners[i] = new double[] {ring[2 * i], ring[2 * i + 1], height};
    }
    return corners;
  }

  private static Geometry polygon(double[][] corners, Product product) {
    Coordinate[] ring = new Coordinate[corners.length + 1];
    for (int i = 0; i < corners.length; i++) {
      ring[i] = product.of(corners[i][0], corners[i][1], corners[i][2]);
    }
    ring[corners.length] = ring[0].copy();
    Geometry made = GEOMETRY.createPolygon(ring);
    return made.isValid() ? made : GeometryFixer.fix(made);
  }

  /** Facets meet along edges that rounding has parted by less than a micrometre: such cracks are closed. */
  private static Geometry joined(List<Geometry> pieces) {
    Geometry whole = UnaryUnionOp.union(pieces);
    return whole.buffer(1e-4, 1).buffer(-1e-4, 1);
  }
}
