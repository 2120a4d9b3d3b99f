package sharpkestrel.segment;

import java.util.Arrays;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.raster.LabelRaster;

/**
 * The objects of a merge tree at one grain. The pixels are those of the superpixels' labels; {@code objectOf} says
 * which object each label belongs to, so that another grain is another small array and no pixel is touched.
 *
 * @param superpixels labels 1 to n
 * @param grain wanted area of an object in m²
 * @param height of the cut in the tree
 * @param objectOf for each label 0 to n, the object's place 0 to count-1; -1 for label 0
 * @param ids for each object the number of its tree node, counted from 1: the same object has the same id in every cut
 */
public record Cut(
    LabelRaster superpixels,
    MergeTree tree,
    GroundSize ground,
    double grain,
    double height,
    int[] objectOf,
    int[] ids) {

  /** A height under every merge, even those that cost nothing. */
  private static final double BELOW_ALL = -1;

  /** The lowest cut with at most valid area / grain objects. */
  public static Cut at(LabelRaster superpixels, MergeTree tree, GroundSize ground, double grain) {
    double area = tree.validPixels() * ground.area();
    double height = tree.heightFor((long) Math.floor(area / grain));
    return atHeight(superpixels, tree, ground, grain, height);
  }

  /** The regions that the tree was built on; their mean area stands for the grain. */
  public static Cut asMade(LabelRaster superpixels, MergeTree tree, GroundSize ground) {
    double area = tree.validPixels() * ground.area();
    return atHeight(superpixels, tree, ground, area / Math.max(1, tree.leaves()), BELOW_ALL);
  }

  public static Cut atHeight(
      LabelRaster superpixels, MergeTree tree, GroundSize ground, double grain, double height) {
    int k = tree.mergesUpTo(height);
    int[] nodes = tree.nodesAfter(k);
    int[] number = new int[tree.leaves() + k];
    Arrays.fill(number, -1);
    int[] objectOf = new int[tree.leaves() + 1];
    int[] ids = new int[tree.leaves()];
    objectOf[0] = -1;
    int count = 0;
    for (int leaf = 0; leaf < nodes.length; leaf++) {
      int node = nodes[leaf];
      if (number[node] < 0) {
        ids[count] = node + 1;
        number[node] = count++;
      }
      objectOf[leaf + 1] = number[node];
    }
    return new Cut(superpixels, tree, ground, grain, height, objectOf, Arrays.copyOf(ids, count));
  }

  public Cut withGrain(double newGrain) {
    return at(superpixels, tree, ground, newGrain);
  }

  public int objects() {
    return ids.length;
  }
}
