package sharpkestrel.extract.learner;

import java.util.Arrays;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.PairTable;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.raster.Window;
import sharpkestrel.segment.regions.DrawnRegions;

/**
 * Samples cut anew from the objects there are. An object is a sample of the class that has more than half of it, or of that of a sample
 * that lies for more than half in it; where two classes claim one object, the one with more of its pixels has it.
 *
 * @param classes names
 * @param classOf for each object the place of its class, -1 for none
 * @param claimed objects that two classes claimed
 */
public record ObjectSamples(List<String> classes, int[] classOf, int claimed) {

  private static final int STRIP = 256;

  /** A block of ground has a twelfth of the scene's longer side, and so many pixels at least. */
  private static final int BLOCKS = 12;

  private static final int LEAST_BLOCK = 48;

  /** What a sample that is a point has: its pixel. */
  private static final double POINT = 0.4;

  /**
   * @throws RasterException where samples are in another system, or none lies on an object
   */
  public static ObjectSamples of(ObjectSet objects, OutlineSet outlines, String column, Job job) {
    Grid grid = objects.labels().grid();
    DrawnRegions.requireSystemOf(grid, outlines);
    Samples samples = Samples.of(outlines, column);
    ScratchLabels drawn = new ScratchLabels(grid);
    DrawnRegions.draw(
        samples.shapes().stream().map(shape -> withArea(shape, grid)).toList(), drawn, job);
    PairTable table = new PairTable(0);
    float[] nothing = new float[0];
    int[] pixels = new int[objects.count()];
    int[] ofSample = new int[samples.count()];
    for (int top = 0; top < grid.height(); top += STRIP) {
      job.cancellation().check();
      Window rows = new Window(0, top, grid.width(), STRIP).intersect(grid.window());
      int[] label = new int[rows.area()];
      int[] sample = new int[rows.area()];
      objects.labels().read(rows, label);
      drawn.read(rows, sample);
      for (int i = 0; i < label.length; i++) {
        int row = objects.rowOf()[label[i]];
        if (row >= 0) {
          pixels[row]++;
        }
        if (sample[i] > 0) {
          ofSample[sample[i] - 1]++;
          if (row >= 0) {
            table.add((long) row << 32 | sample[i], nothing);
          }
        }
      }
    }
    ObjectSamples found = count(samples, table.sorted(), pixels, ofSample);
    if (Arrays.stream(found.classOf).allMatch(c -> c < 0)) {
      throw new RasterException(
          "None of the " + samples.count()
              + " samples lies on an object: they are elsewhere, or where there is no data. Open them over the scene to see where they are.");
    }
    return found;
  }

  /** A line counts along its length, a point as the pixel that it lies in. */
  private static Geometry withArea(Geometry shape, Grid grid) {
    if (shape.getArea() > 0) {
      return shape;
    }
    Affine toGround = grid.affine();
    double side = Math.sqrt(Math.abs(toGround.a() * toGround.e() - toGround.b() * toGround.d()));
    if (shape.getDimension() == 1) {
      return shape.buffer(0.5 * side);
    }
    Coordinate at = shape.getCentroid().getCoordinate();
    Affine toPixels = toGround.inverse();
    double col = Math.floor(toPixels.x(at.x, at.y)) + 0.5;
    double row = Math.floor(toPixels.y(at.x, at.y)) + 0.5;
    Envelope box = new Envelope(new Coordinate(toGround.x(col, row), toGround.y(col, row)));
    box.expandBy(POINT * side);
    return new GeometryFactory().toGeometry(box);
  }

  private static ObjectSamples count(
      Samples samples, PairTable.Pairs pairs, int[] pixels, int[] ofSample) {
    int classes = samples.classes().size();
    int[] classOf = new int[pixels.length];
    Arrays.fill(classOf, -1);
    int claimed = 0;
    for (int from = 0; from < pairs.keys().length; ) {
      int row = (int) (pairs.keys()[from] >>> 32);
      int[] counts = new int[classes];
      boolean[] holds = new boolean[classes];
      int to = from;
      for (; to < pairs.keys().length && (int) (pairs.keys()[to] >>> 32) == row; to++) {
        int sample = (int) pairs.keys()[to] - 1;
        int ofClass = samples.classOf()[sample];
        counts[ofClass] += pairs.sides()[to];
        holds[ofClass] |= 2 * pairs.sides()[to] > ofSample[sample];
      }
      int claims = 0;
      for (int k = 0; k < classes; k++) {
        boolean claims1 = counts[k] > 0 && (holds[k] || 2 * counts[k] > pixels[row]);
        claims += claims1 ? 1 : 0;
        if (claims1 && (classOf[row] < 0 || counts[k] > counts[classOf[row]])) {
          classOf[row] = k;
        }
      }
      claimed += claims > 1 ? 1 : 0;
      from = to;
    }
    return new ObjectSamples(samples.classes(), classOf, claimed);
  }

  /**
   * The objects that are samples, with their features.
   *
   * @param features columns of the table
   * @param blocks for each object the block of ground it lies in
   */
  public Examples examples(Table table, List<String> features, int[] blocks) {
    int[] rows = java.util.stream.IntStream.range(0, classOf.length)
        .filter(i -> classOf[i] >= 0)
        .toArray();
    float[][] columns = new float[features.size()][rows.length];
    for (int f = 0; f < columns.length; f++) {
      double[] values = table.values(features.get(f));
      for (int i = 0; i < rows.length; i++) {
        columns[f][i] = (float) values[rows[i]];
      }
    }
    float[] weights = new float[rows.length];
    Arrays.fill(weights, 1);
    return new Examples(
        features,
        columns,
        classes,
        Arrays.stream(rows).map(i -> classOf[i]).toArray(),
        weights,
        Arrays.stream(rows).map(i -> blocks[i]).toArray());
  }

  /** For each object the block of ground in which its first pixel lies. */
  public static int[] blocks(ObjectSet objects) {
    Grid grid = objects.labels().grid();
    int side = Math.max(LEAST_BLOCK, Math.max(grid.width(), grid.height()) / BLOCKS);
    int[] blocks = new int[objects.count()];
    Arrays.fill(blocks, -1);
    int[] line = new int[grid.width()];
    for (int y = 0; y < grid.height(); y++) {
      objects.labels().read(new Window(0, y, grid.width(), 1), line);
      for (int x = 0; x < line.length; x++) {
        int row = objects.rowOf()[line[x]];
        if (row >= 0 && blocks[row] < 0) {
          blocks[row] = y / side << 12 | x / side;
        }
      }
    }
    return blocks;
  }
}
