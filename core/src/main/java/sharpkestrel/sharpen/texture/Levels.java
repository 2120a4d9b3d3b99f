package sharpkestrel.sharpen.texture;

import java.util.Arrays;
import sharpkestrel.raster.Histogram;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Statistics;

/**
 * Values sorted into grey levels by the edges between them.
 *
 * @param edges ascending; values below the first are level 0, from the last on the highest
 */
public record Levels(double[] edges) {

  /** What stands for no-data among levels. */
  static final int NONE = -1;

  public static final int LEAST = 2;
  public static final int MOST = 256;

  public Levels {
    for (int k = 1; k < edges.length; k++) {
      if (!(edges[k] > edges[k - 1])) {
        throw new RasterException("The cuts between grey levels must ascend; " + edges[k]
            + " follows " + edges[k - 1] + ".");
      }
    }
    if (edges.length + 1 > MOST || edges.length + 1 < LEAST) {
      throw new RasterException("From " + LEAST + " to " + MOST + " grey levels can be had, not "
          + (edges.length + 1) + ".");
    }
  }

  public int count() {
    return edges.length + 1;
  }

  /** Of one width between two values. */
  public static Levels ofWidth(double low, double high, int count) {
    double[] edges = new double[count - 1];
    Arrays.setAll(edges, k -> low + (high - low) * (k + 1) / count);
    return new Levels(edges);
  }

  /** That hold about as many pixels each; values too common for that make fewer levels. */
  public static Levels ofPopulation(Statistics statistics, int count) {
    Histogram histogram = statistics.histogram();
    double[] quantiles = new double[count - 1];
    Arrays.setAll(quantiles, k -> histogram.quantile((k + 1.0) / count));
    double[] distinct = Arrays.stream(quantiles)
        .distinct()
        .filter(v -> v > statistics.min() && v <= statistics.max())
        .toArray();
    return new Levels(distinct.length > 0 ? distinct : new double[] {statistics.max()});
  }

  /** Whether the edges are one width apart, so that a level can be worked out rather than sought. */
  private boolean isEven() {
    double width = edges.length < 2 ? 1 : (edges[edges.length - 1] - edges[0]) / (edges.length - 1);
    for (int k = 1; k < edges.length; k++) {
      if (Math.abs(edges[k] - edges[k - 1] - width) > 1e-9 * width) {
        return false;
      }
    }
    return edges.length > 1;
  }

  /**
   * @param values (input) NaN is no-data
   * @param out (output) levels, {@link #NONE} for no-data
   */
  void of(float[] values, int[] out) {
    if (isEven()) {
      even(values, out);
      return;
    }
    for (int i = 0; i < values.length; i++) {
      out[i] = Float.isNaN(values[i]) ? NONE : sought(values[i]);
    }
  }

  private int sought(double value) {
    int found = Arrays.binarySearch(edges, value);
    return found >= 0 ? found + 1 : -found - 1;
  }

  private void even(float[] values, int[] out) {
    double first = edges[0];
    double scale = (edges.length - 1) / (edges[edges.length - 1] - first);
    int highest = edges.length;
    for (int i = 0; i < values.length; i++) {
      double at = (values[i] - first) * scale + 1;
      out[i] = (int) Math.max(0, Math.min(highest, at));
    }
    for (int i = 0; i < values.length; i++) {
      if (Float.isNaN(values[i])) {
        out[i] = NONE;
      }
    }
  }
}
