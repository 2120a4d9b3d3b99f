package sharpkestrel.extract.everysize;

import java.util.Arrays;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Window;
import sharpkestrel.segment.regions.FeatureSpace;

/** Classes of light between which as many pixels of a scene lie. */
final class LightBins {

  private static final int ROWS = 64;

  private LightBins() {}

  /** The values between the classes, ascending, from rows at even distances. */
  static float[] of(LabelRaster labels, FeatureSpace space, int bins, Job job) {
    int width = labels.grid().width();
    int height = labels.grid().height();
    int count = Math.min(ROWS, height);
    float[] found = new float[count * width];
    int n = 0;
    int d = space.spectralDimensions();
    for (int k = 0; k < count; k++) {
      int row = (int) ((k + 0.5) * height / count);
      float[] values = space.readSpectral(new Window(0, row, width, 1), job.request());
      for (int x = 0; x < width; x++) {
        if (!Float.isNaN(values[x * d])) {
          found[n++] = values[x * d];
        }
      }
    }
    float[] sorted = Arrays.copyOf(found, n);
    Arrays.sort(sorted);
    float[] edges = new float[bins - 1];
    for (int b = 1; b < bins; b++) {
      edges[b - 1] = n == 0 ? 0 : sorted[(int) ((long) b * (n - 1) / bins)];
    }
    return edges;
  }

  static int bin(float[] edges, float value) {
    int bin = 0;
    while (bin < edges.length && value >= edges[bin]) {
      bin++;
    }
    return bin;
  }
}
