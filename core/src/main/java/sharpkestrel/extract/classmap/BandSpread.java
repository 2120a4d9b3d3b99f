package sharpkestrel.extract.classmap;

import java.util.function.IntUnaryOperator;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Window;

/**
 * Where the pixels of a class lie in two bands: their middle and how they vary about it together.
 *
 * @param pixels that were looked at
 * @param covariance between the two bands
 */
public record BandSpread(
    long pixels,
    double meanX,
    double meanY,
    double varianceX,
    double covariance,
    double varianceY) {

  private static final int SIDE = 64;
  private static final int BLOCKS = 100;

  /**
   * An ellipse about the middle.
   *
   * @param large half the longer axis, and {@code small} the shorter, in the bands' unit
   * @param angle of the longer axis from the first band towards the second
   */
  public record Ellipse(double large, double small, double angle) {}

  /**
   * Looks at blocks of pixels that lie evenly over a scene.
   *
   * @param labels of the same size as the scene
   * @param classOf the place of the class of a label; below 0 for none
   * @return one a class; with no pixels and NaN for what was not met
   */
  public static BandSpread[] of(
      Raster scene,
      int bandX,
      int bandY,
      LabelRaster labels,
      IntUnaryOperator classOf,
      int classes,
      Job job) {
    Window all = scene.grid().window().intersect(labels.grid().window());
    Window[] blocks = blocks(all);
    double[][][] sums = new double[blocks.length][classes][6];
    Parallel.run(blocks.length, job, b -> {
      float[][] planes = scene.read(0, blocks[b], job.request());
      int[] under = new int[blocks[b].width() * blocks[b].height()];
      labels.read(blocks[b], under);
      for (int i = 0; i < under.length; i++) {
        double x = planes[bandX][i];
        double y = planes[bandY][i];
        int k = classOf.applyAsInt(under[i]);
        if (k >= 0 && !Double.isNaN(x) && !Double.isNaN(y)) {
          double[] sum = sums[b][k];
          sum[0]++;
          sum[1] += x;
          sum[2] += y;
          sum[3] += x * x;
          sum[4] += x * y;
          sum[5] += y * y;
        }
      }
    });
    BandSpread[] spreads = new BandSpread[classes];
    for (int k = 0; k < classes; k++) {
      double[] total = new double[6];
      for (double[][] block : sums) {
        for (int s = 0; s < total.length; s++) {
          total[s] += block[k][s];
        }
      }
      double n = total[0];
      double x = total[1] / n;
      double y = total[2] / n;
      spreads[k] = new BandSpread(
          (long) n,
          x,
          y,
          Math.max(0, total[3] / n - x * x),
          total[4] / n - x * y,
          Math.max(0, total[5] / n - y * y));
    }
    return spreads;
  }

  /** All of it where it is small. */
  private static Window[] blocks(Window all) {
    int across = Math.ceilDiv(all.width(), SIDE);
    int down = Math.ceilDiv(all.height(), SIDE);
    double step = Math.max(1, Math.sqrt((double) across * down / BLOCKS));
    int columns = Math.max(1, (int) (across / step));
    int rows = Math.max(1, (int) (down / step));
    Window[] blocks = new Window[columns * rows];
    for (int r = 0; r < rows; r++) {
      for (int c = 0; c < columns; c++) {
        int x = (int) ((c + 0.5) * across / columns) * SIDE;
        int y = (int) ((r + 0.5) * down / rows) * SIDE;
        blocks[r * columns + c] = new Window(all.x() + x, all.y() + y, SIDE, SIDE).intersect(all);
      }
    }
    return blocks;
  }

  /** The ellipse of so many deviations. */
  public Ellipse ellipse(double deviations) {
    double middle = (varianceX + varianceY) / 2;
    double apart = Math.hypot((varianceX - varianceY) / 2, covariance);
    return new Ellipse(
        deviations * Math.sqrt(middle + apart),
        deviations * Math.sqrt(Math.max(0, middle - apart)),
        Math.atan2(2 * covariance, varianceX - varianceY) / 2);
  }
}
