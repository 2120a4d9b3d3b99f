package sharpkestrel.check;

import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.PolygonFill;
import sharpkestrel.raster.Window;
import sharpkestrel.segment.Branch;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.MergeTree;

/**
 * How well the objects of a merge tree follow true outlines, whatever is made of them afterwards. Each outline is compared
 * with the one object that overlaps it best, pixel by pixel; what they have in common over what either has is the
 * intersection over union. Over-segmentation is the share of the outline that its object leaves out, under-segmentation
 * the share of the object that lies outside (Clinton, Holt, Scarborough, Yan and Gong 2010, Photogrammetric Engineering &
 * Remote Sensing 76(3), 289-299, with the best object in place of all that overlap).
 */
public final class SegmentFit {

  private static final double LEAST_OVERLAP = 0.7;

  private final MergeTree tree;
  private final int[] truthPixels;
  private final int[][] leavesIn;
  private final int[][] pixelsIn;
  private final int[] nodePixels;

  /**
   * @param outlines that have pixels in the scene
   * @param recall share of the outlines whose best object has an intersection over union of 0.7 and more
   * @param meanIou of the best objects
   * @param over mean over-segmentation, 0 to 1
   * @param under mean under-segmentation, 0 to 1
   */
  public record Fit(int outlines, double recall, double meanIou, double over, double under) {}

  private SegmentFit(MergeTree tree, int[] truthPixels, int[][] leavesIn, int[][] pixelsIn) {
    this.tree = tree;
    this.truthPixels = truthPixels;
    this.leavesIn = leavesIn;
    this.pixelsIn = pixelsIn;
    nodePixels = Branch.pixelsOf(tree);
  }

  /**
   * @param outlines the true ones, in the system of the cut's grid; may overlap
   */
  public static SegmentFit of(Cut cut, List<Geometry> outlines, Job job) {
    Grid grid = cut.superpixels().grid();
    int n = outlines.size();
    int[] truthPixels = new int[n];
    int[][] leavesIn = new int[n][];
    int[][] pixelsIn = new int[n][];
    IntStream.range(0, n).parallel().forEach(t -> {
      job.cancellation().check();
      PolygonFill fill = new PolygonFill(outlines.get(t), grid);
      Window window = fill.bounds(0).intersect(grid.window());
      boolean[] inside = fill.fill(0, window);
      int[] labels = new int[window.area()];
      cut.superpixels().read(window, labels);
      int[] found = new int[labels.length];
      int count = 0;
      for (int i = 0; i < labels.length; i++) {
        if (inside[i]) {
          truthPixels[t]++;
          if (labels[i] > 0) {
            found[count++] = labels[i] - 1;
          }
        }
      }
      Arrays.sort(found, 0, count);
      leavesIn[t] = Arrays.stream(found, 0, count).distinct().toArray();
      pixelsIn[t] = new int[leavesIn[t].length];
      for (int i = 0, k = -1; i < count; i++) {
        k += i == 0 || found[i] != found[i - 1] ? 1 : 0;
        pixelsIn[t][k]++;
      }
    });
    return new SegmentFit(cut.tree(), truthPixels, leavesIn, pixelsIn);
  }

  /** How the objects at a height of the tree fit. */
  public Fit atHeight(double height) {
    return ofNodes(tree.nodesAfter(tree.mergesUpTo(height)));
  }

  /**
   * How objects fit that are nodes of the tree.
   *
   * @param nodeOf for each superpixel the node that it stands in
   */
  public Fit ofNodes(int[] nodeOf) {
    return fit((t, k) -> new int[] {nodeOf[leavesIn[t][k]]});
  }

  /** How the best of all nodes of the tree fit, each outline choosing its own: what no single grain can reach. */
  public Fit ofAnyNode() {
    return fit((t, k) -> {
      int[] climbed = new int[64];
      int count = 0;
      for (int node = leavesIn[t][k]; node >= 0; node = tree.parent(node)) {
        // larger ones have less than half in common with the outline
        if (count > 0 && nodePixels[node] > 2 * truthPixels[t]) {
          break;
        }
        climbed = count == climbed.length ? Arrays.copyOf(climbed, 2 * count) : climbed;
        climbed[count++] = node;
      }
      return Arrays.copyOf(climbed, count);
    });
  }

  /**
   * How one node for each outline fits, such as what a click into it picks.
   *
   * @param picked by outline; below 0 for none
   */
  public Fit ofPicked(int[] picked) {
    return fit((t, k) -> {
      int node = leavesIn[t][k];
      // nodes are numbered upwards
      while (node >= 0 && node < picked[t]) {
        node = tree.parent(node);
      }
      return node >= 0 && node == picked[t] ? new int[] {node} : new int[0];
    });
  }

  /** The nodes that the k-th superpixel of an outline may stand in. */
  private interface Nodes {
    int[] of(int outline, int k);
  }

  private Fit fit(Nodes nodes) {
    int outlines = 0;
    int recalled = 0;
    double iou = 0;
    double over = 0;
    double under = 0;
    for (int t = 0; t < truthPixels.length; t++) {
      if (truthPixels[t] == 0) {
        continue;
      }
      outlines++;
      java.util.Map<Integer, Integer> common = new java.util.HashMap<>();
      for (int k = 0; k < leavesIn[t].length; k++) {
        for (int node : nodes.of(t, k)) {
          common.merge(node, pixelsIn[t][k], Integer::sum);
        }
      }
      double best = 0;
      double out = 1;
      double beyond = 1;
      for (var entry : common.entrySet()) {
        int shared = entry.getValue();
        int size = nodePixels[entry.getKey()];
        double here = (double) shared / (truthPixels[t] + size - shared);
        if (here > best) {
          best = here;
          out = 1 - (double) shared / truthPixels[t];
          beyond = 1 - (double) shared / size;
        }
      }
      recalled += best >= LEAST_OVERLAP ? 1 : 0;
      iou += best;
      over += out;
      under += beyond;
    }
    return new Fit(
        outlines, (double) recalled / outlines, iou / outlines, over / outlines, under / outlines);
  }
}
