package sharpkestrel.demo;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.operation.union.UnaryUnionOp;

/** What is really there: roof outlines as they lie in each product, footprints, check points. */
final class Truth {

  private static final GeometryFactory GEOMETRY = new GeometryFactory();

  /** One building. */
  record Roof(
      int building,
      Material material,
      boolean whole,
      Geometry raw,
      Geometry ortho,
      Geometry footprint) {}

  private final World world;

  Truth(World world) {
    this.world = world;
  }

  /** The buildings whose roofs lie in the scene, at least in part. */
  List<Roof> roofs() {
    Map<Integer, List<Block>> parts = new TreeMap<>();
    for (Block block : world.blocks()) {
      if (block.building() >= 0) {
        parts.computeIfAbsent(block.building(), id -> new ArrayList<>()).add(block);
      }
    }
    List<Roof> roofs = new ArrayList<>();
    for (var entry : parts.entrySet()) {
      List<Geometry> raw = new ArrayList<>();
      List<Geometry> ortho = new ArrayList<>();
      List<Geometry> foot = new ArrayList<>();
      for (Block block : entry.getValue()) {
        double[][] points = block.roofPoints();
        raw.add(hull(points, this::inImage));
        ortho.add(hull(points, this::onTerrain));
        Coordinate[] plan = new Coordinate[4];
        for (int i = 0; i < 4; i++) {
          plan[i] = new Coordinate(points[i][0], points[i][1]);
        }
        foot.add(GEOMETRY.createMultiPointFromCoords(plan).convexHull());
      }
      Geometry inRaw = UnaryUnionOp.union(raw);
      var box = inRaw.getEnvelopeInternal();
      boolean whole = box.getMinX() >= 0
          && box.getMinY() >= 0
          && box.getMaxX() <= world.size()
          && box.getMaxY() <= world.size();
      if (box.getMaxX() > 0
          && box.getMaxY() > 0
          && box.getMinX() < world.size()
          && box.getMinY() < world.size()) {
        roofs.add(new Roof(
            entry.getKey(),
            entry.getValue().get(0).roof(),
            whole,
            inRaw,
            UnaryUnionOp.union(ortho),
            UnaryUnionOp.union(foot)));
      }
    }
    return roofs;
  }

  private interface Projection {
    Coordinate of(double[] point);
  }

  /** A gabled or flat roof over an oblong seen along parallel rays is the convex hull of its corners and ridge. */
  private static Geometry hull(double[][] points, Projection projection) {
    Coordinate[] seen = new Coordinate[points.length];
    for (int i = 0; i < points.length; i++) {
      seen[i] = projection.of(points[i]);
    }
    return GEOMETRY.createMultiPointFromCoords(seen).convexHull();
  }

  Coordinate inImage(double[] point) {
    double[] image = new double[2];
    world.camera().toImage(point[0], point[1], point[2] + World.UNDULATION, image);
    return new Coordinate(image[0], image[1]);
  }

  /** Where an orthorectification over the terrain puts a point that stands above it: down its ray to the ground. */
  Coordinate onTerrain(double[] point) {
    double[] image = new double[2];
    double[] ray = new double[4];
    world.camera().toImage(point[0], point[1], point[2] + World.UNDULATION, image);
    world.camera().ray(image[0], image[1], ray);
    ray[0] += World.UNDULATION * ray[2];
    ray[1] += World.UNDULATION * ray[3];
    double h = world.terrain().meet(ray, point[2]);
    return new Coordinate(ray[0] + h * ray[2], ray[1] + h * ray[3]);
  }
}
