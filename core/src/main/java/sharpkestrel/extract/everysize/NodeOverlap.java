package sharpkestrel.extract.everysize;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelOverlap;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.PairTable;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.segment.MergeTree;
import sharpkestrel.segment.regions.DrawnRegions;

/**
 * How well each node of a tree fits the outline that it fits best: intersection over union, in pixels.
 *
 * @param best for each node the largest, 0 for none
 * @param outline for each node the outline of that, -1 for none
 */
public record NodeOverlap(float[] best, int[] outline) {

  /** Nodes that are larger than an outline by more are not followed: they fit less than this. */
  private static final double LEAST = 0.02;

  /**
   * @param outlines in the labels' system; where they overlap the later one counts
   */
  public static NodeOverlap of(
      MergeTree tree, LabelRaster labels, List<Geometry> outlines, Job job) {
    ScratchLabels drawn = new ScratchLabels(labels.grid());
    DrawnRegions.draw(outlines, drawn, job);
    return of(tree, labels, drawn, job);
  }

  /**
   * @param drawn each outline's pixels, from 1 on
   */
  public static NodeOverlap of(MergeTree tree, LabelRaster labels, LabelRaster drawn, Job job) {
    PairTable.Pairs pairs = LabelOverlap.of(drawn, labels, job);
    long[] pixels = new long[tree.nodes()];
    for (int node = 0; node < tree.nodes(); node++) {
      pixels[node] += node < tree.leaves() ? tree.pixels(node) : 0;
      if (tree.parent(node) >= 0) {
        pixels[tree.parent(node)] += pixels[node];
      }
    }
    NodeOverlap found = new NodeOverlap(new float[tree.nodes()], new int[tree.nodes()]);
    Arrays.fill(found.outline, -1);
    for (int from = 0; from < pairs.keys().length; ) {
      int outline = (int) (pairs.keys()[from] >>> 32);
      int to = from;
      long area = 0;
      while (to < pairs.keys().length && (int) (pairs.keys()[to] >>> 32) == outline) {
        area += pairs.sides()[to++];
      }
      found.follow(tree, pixels, pairs, from, to, outline - 1, area);
      from = to;
    }
    return found;
  }

  /** Adds what an outline has of each leaf to all nodes above it that are not far too large. */
  private void follow(
      MergeTree tree,
      long[] pixels,
      PairTable.Pairs pairs,
      int from,
      int to,
      int ofOutline,
      long area) {
    Map<Integer, Integer> common = new HashMap<>();
    for (int i = from; i < to; i++) {
      int count = pairs.sides()[i];
      for (int node = (int) pairs.keys()[i] - 1;
          node >= 0 && pixels[node] * LEAST <= area;
          node = tree.parent(node)) {
        common.merge(node, count, Integer::sum);
      }
    }
    common.forEach((node, count) -> {
      float overlap = (float) ((double) count / (pixels[node] + area - count));
      if (overlap > best[node]) {
        best[node] = overlap;
        outline[node] = ofOutline;
      }
    });
  }
}
