package sharpkestrel.raster;

/** How many pixels the labels of two rasters on one grid have in common; 0 is none in either. */
public final class LabelOverlap {

  private static final int STRIP = 256;

  private LabelOverlap() {}

  /**
   * @return for each pair that meets its pixels; keys have the first label in the upper half, and come in their order
   */
  public static PairTable.Pairs of(LabelRaster first, LabelRaster second, Job job) {
    PairTable table = new PairTable(0);
    float[] nothing = new float[0];
    Grid grid = first.grid();
    for (int top = 0; top < grid.height(); top += STRIP) {
      job.cancellation().check();
      Window rows = new Window(0, top, grid.width(), STRIP).intersect(grid.window());
      int[] ofFirst = new int[rows.area()];
      int[] ofSecond = new int[rows.area()];
      first.read(rows, ofFirst);
      second.read(rows, ofSecond);
      for (int i = 0; i < ofFirst.length; i++) {
        if (ofFirst[i] > 0 && ofSecond[i] > 0) {
          table.add((long) ofFirst[i] << 32 | ofSecond[i], nothing);
        }
      }
    }
    return table.sorted();
  }

  /** The pixels of each label, from 0 to the largest there can be. */
  public static int[] pixels(LabelRaster labels, int most, Job job) {
    int[] counts = new int[most + 1];
    Grid grid = labels.grid();
    for (int top = 0; top < grid.height(); top += STRIP) {
      job.cancellation().check();
      Window rows = new Window(0, top, grid.width(), STRIP).intersect(grid.window());
      int[] label = new int[rows.area()];
      labels.read(rows, label);
      for (int each : label) {
        counts[each]++;
      }
    }
    return counts;
  }
}
