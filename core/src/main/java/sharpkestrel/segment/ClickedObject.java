package sharpkestrel.segment;

import java.util.Optional;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/**
 * What a click into a picture picks out of a merge tree.
 *
 * @param branch of the superpixel that was clicked
 * @param edges rung by rung how sharp its border is
 * @param rung the one that is most a thing of its own
 */
public record ClickedObject(Branch branch, double[] edges, int rung) {

  /**
   * @param nodePixels pixels of every node, from {@link Branch#pixelsOf}
   * @param scene on the grid of the cut's superpixels
   * @return empty where there is no superpixel
   */
  public static Optional<ClickedObject> at(
      Cut cut, int[] nodePixels, Raster scene, int col, int row, Request request) {
    int[] label = new int[1];
    cut.superpixels().read(new Window(col, row, 1, 1), label);
    if (label[0] == 0) {
      return Optional.empty();
    }
    Branch branch = Branch.of(cut.tree(), nodePixels, label[0] - 1);
    double[] edges = RungEdges.of(branch, cut.tree(), cut.superpixels(), scene, col, row, request);
    return Optional.of(new ClickedObject(branch, edges, branch.best(cut.tree(), edges)));
  }

  /** The node of the tree that is picked. */
  public int node() {
    return branch.node(rung);
  }
}
