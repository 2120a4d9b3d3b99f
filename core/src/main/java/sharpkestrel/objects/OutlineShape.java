package sharpkestrel.objects;

import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygon;
import sharpkestrel.expr.Table;
import sharpkestrel.outline.Squarer;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Tracer;
import sharpkestrel.raster.Window;

/** Features of the traced border of every object, of its largest piece where it has several, and its symmetry. */
final class OutlineShape {

  private static final int BATCH = 256;
  private static final double LONG_SIDE = 0.1;

  private OutlineShape() {}

  static List<Table.Column> of(ObjectSet set, ObjectGeometry geometry, Job job) {
    int n = set.count();
    double[] symmetry = new double[n];
    double[] corners = new double[n];
    double[] straight = new double[n];
    AtomicInteger done = new AtomicInteger();
    int batches = Math.ceilDiv(n, BATCH);
    Parallel.run(batches, job, batch -> {
      for (int i = batch * BATCH; i < Math.min(n, (batch + 1) * BATCH); i++) {
        Window window = geometry.bounds(i);
        boolean[] mask = geometry.mask(i);
        symmetry[i] = symmetry(mask, window.width());
        Polygon outline =
            largest(Tracer.trace(mask, window.width(), window.height(), window.x(), window.y()));
        corners[i] = Squarer.corners(outline, 1);
        straight[i] = straightShare(Squarer.simplify(outline, 1));
      }
      job.progress("Tracing", done.incrementAndGet(), batches);
    });
    return List.of(
        FeatureCatalogue.column("symmetry", symmetry),
        FeatureCatalogue.column("corners", corners),
        FeatureCatalogue.column("straight_share", straight));
  }

  private static Polygon largest(Geometry traced) {
    Polygon largest = (Polygon) traced.getGeometryN(0);
    for (int k = 1; k < traced.getNumGeometries(); k++) {
      Polygon piece = (Polygon) traced.getGeometryN(k);
      largest = piece.getArea() > largest.getArea() ? piece : largest;
    }
    return largest;
  }

  private static double straightShare(Polygon simple) {
    Coordinate[] ring = simple.getExteriorRing().getCoordinates();
    double total = simple.getExteriorRing().getLength();
    double straight = 0;
    for (int i = 0; i + 1 < ring.length; i++) {
      double side = ring[i].distance(ring[i + 1]);
      straight += side >= LONG_SIDE * total ? side : 0;
    }
    return straight / total;
  }

  /** A pixel is turned to the pixel in which its centre comes to lie. */
  private static double symmetry(boolean[] mask, int width) {
    long count = 0;
    long sumX = 0;
    long sumY = 0;
    for (int i = 0; i < mask.length; i++) {
      if (mask[i]) {
        count++;
        sumX += i % width;
        sumY += i / width;
      }
    }
    int twiceX = (int) Math.round(2.0 * sumX / count);
    int twiceY = (int) Math.round(2.0 * sumY / count);
    int height = mask.length / width;
    long same = 0;
    for (int i = 0; i < mask.length; i++) {
      if (mask[i]) {
        int x = twiceX - i % width;
        int y = twiceY - i / width;
        same += x >= 0 && x < width && y >= 0 && y < height && mask[y * width + x] ? 1 : 0;
      }
    }
    return (double) same / count;
  }
}
