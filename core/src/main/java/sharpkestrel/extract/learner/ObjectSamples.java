package sharpkestrel.extract.learner;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.IntStream;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelOverlap;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.PairTable;
import sharpkestrel.raster.RasterException;
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

  /** A block of ground has a twelfth of the scene's longer side, and so many pixels at least. */
  private static final int BLOCKS = 12;

  private static final int LEAST_BLOCK = 48;

  /**
   * @throws RasterException where samples are in another system, or none lies on an object
   */
  public static ObjectSamples of(ObjectSet objects, OutlineSet outlines, String column, Job job) {
    Grid grid = objects.labels().grid();
    DrawnRegions.requireSystemOf(grid, outlines);
    Samples samples = Samples.of(outlines, column);
    LabelRaster drawn = samples.drawOn(grid, job);
    // labels of one object together
    Map<Long, Integer> common = new TreeMap<>();
    PairTable.Pairs pairs = LabelOverlap.of(objects.labels(), drawn, job);
    for (int i = 0; i < pairs.keys().length; i++) {
      int row = objects.rowOf()[(int) (pairs.keys()[i] >>> 32)];
      if (row >= 0) {
        common.merge((long) row << 32 | (int) pairs.keys()[i], pairs.sides()[i], Integer::sum);
      }
    }
    ObjectSamples found = count(
        samples, common, pixels(objects, job), LabelOverlap.pixels(drawn, samples.count(), job));
    if (Arrays.stream(found.classOf).allMatch(c -> c < 0)) {
      throw new RasterException(
          "None of the " + samples.count()
              + " samples lies on an object: they are elsewhere, or where there is no data. Open them over the scene to see where they are.");
    }
    return found;
  }

  private static int[] pixels(ObjectSet objects, Job job) {
    int[] ofLabels = LabelOverlap.pixels(objects.labels(), objects.rowOf().length - 1, job);
    int[] pixels = new int[objects.count()];
    for (int label = 0; label < ofLabels.length; label++) {
      if (objects.rowOf()[label] >= 0) {
        pixels[objects.rowOf()[label]] += ofLabels[label];
      }
    }
    return pixels;
  }

  /**
   * @param common pixels of each object, in the upper half, and each sample, from 1 on, in the lower
   * @param ofSample pixels of each sample, from 1 on
   */
  private static ObjectSamples count(
      Samples samples, Map<Long, Integer> common, int[] pixels, int[] ofSample) {
    int classes = samples.classes().size();
    int[] classOf = new int[pixels.length];
    Arrays.fill(classOf, -1);
    int[] counts = new int[classes];
    boolean[] holds = new boolean[classes];
    int claimed = 0;
    int last = -1;
    for (Map.Entry<Long, Integer> each : common.entrySet()) {
      int row = (int) (each.getKey() >>> 32);
      if (row != last && last >= 0) {
        claimed += settle(last, counts, holds, pixels, classOf);
      }
      last = row;
      int sample = each.getKey().intValue();
      int ofClass = samples.classOf()[sample - 1];
      counts[ofClass] += each.getValue();
      holds[ofClass] |= 2 * each.getValue() > ofSample[sample];
    }
    if (last >= 0) {
      claimed += settle(last, counts, holds, pixels, classOf);
    }
    return new ObjectSamples(samples.classes(), classOf, claimed);
  }

  /**
   * Gives an object its class.
   *
   * @param counts (modified) its pixels of each class, 0 afterwards, and {@code holds} whether it holds a sample of it
   * @return 1 where two classes claimed it
   */
  private static int settle(int row, int[] counts, boolean[] holds, int[] pixels, int[] classOf) {
    int claims = 0;
    for (int k = 0; k < counts.length; k++) {
      boolean claimsIt = holds[k] || 2 * counts[k] > pixels[row];
      claims += claimsIt ? 1 : 0;
      if (claimsIt && (classOf[row] < 0 || counts[k] > counts[classOf[row]])) {
        classOf[row] = k;
      }
    }
    Arrays.fill(counts, 0);
    Arrays.fill(holds, false);
    return claims > 1 ? 1 : 0;
  }

  /**
   * The objects that are samples, with their features.
   *
   * @param features columns of the table
   * @param blocks for each object the block of ground it lies in
   */
  public Examples examples(Table table, List<String> features, int[] blocks) {
    int[] rows = IntStream.range(0, classOf.length).filter(i -> classOf[i] >= 0).toArray();
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
