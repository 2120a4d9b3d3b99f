package sharpkestrel.segment.regions;

import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.raster.Window;

/**
 * Simple linear iterative clustering (Achanta, Shaji, Smith, Lucchi, Fua and Süsstrunk 2012, IEEE Trans. PAMI 34(11),
 * 2274-2282): k-means in space and colour, each pixel going to the nearest of the nine centres whose cells are around it.
 * Centres lie on one grid for the scene and are moved by sums over fixed strips, joined in order, so that tiles and
 * threads do not show. Pieces of a quarter of a cell and less go to the neighbour with the longest common border.
 */
final class Slic {

  private static final int STRIP = 128;

  private final FeatureSpace space;
  private final Grid grid;
  private final int spacing;
  private final float spatialWeight;
  private final int dimensions;
  private final int across;
  private final int down;
  /** Centre by centre: the coordinates, then column and row. */
  private float[] centres;

  private Slic(FeatureSpace space, Grid grid, int spacing, double compactness) {
    this.space = space;
    this.grid = grid;
    this.spacing = spacing;
    spatialWeight = (float) (compactness / ((double) spacing * spacing));
    dimensions = space.spectralDimensions();
    across = Math.ceilDiv(grid.width(), spacing);
    down = Math.ceilDiv(grid.height(), spacing);
  }

  /**
   * @param labels (output) 1 to the returned count; 0 for no-data
   * @param compactness how much a spacing of distance counts against one unit of unlikeness
   */
  static int make(
      FeatureSpace space,
      int spacing,
      double compactness,
      int iterations,
      ScratchLabels labels,
      Job job) {
    Slic slic = new Slic(space, labels.grid(), spacing, compactness);
    slic.start(job);
    for (int i = 0; i < iterations; i++) {
      slic.pass(i + 1 == iterations ? labels : null, job);
      job.progress("Clustering", i + 1, iterations);
    }
    int pieces = Pieces.ofEqual(labels, job);
    return SmallRegions.join(labels, pieces, spacing * spacing / 4, job);
  }

  /** Each centre begins as the pixel in the middle of its cell. */
  private void start(Job job) {
    int stride = dimensions + 2;
    centres = new float[across * down * stride];
    Parallel.run(down, job, sy -> {
      int y = Math.min(grid.height() - 1, sy * spacing + spacing / 2);
      float[] row = space.readSpectral(new Window(0, y, grid.width(), 1), job.request());
      for (int sx = 0; sx < across; sx++) {
        int x = Math.min(grid.width() - 1, sx * spacing + spacing / 2);
        int at = (sy * across + sx) * stride;
        System.arraycopy(row, x * dimensions, centres, at, dimensions);
        centres[at + dimensions] = x;
        centres[at + dimensions + 1] = y;
      }
    });
  }

  private record Part(int first, double[] sums, int[] counts) {}

  private void pass(ScratchLabels labels, Job job) {
    int stride = dimensions + 2;
    int strips = Math.ceilDiv(grid.height(), STRIP);
    double[] sums = new double[centres.length];
    int[] counts = new int[across * down];
    int batch = Math.max(1, 2 * job.threads());
    for (int start = 0; start < strips; start += batch) {
      int base = start;
      Part[] parts = new Part[Math.min(batch, strips - start)];
      Parallel.run(parts.length, job, i -> parts[i] = strip(base + i, labels, job));
      for (Part part : parts) {
        for (int k = 0; k < part.counts.length; k++) {
          counts[part.first + k] += part.counts[k];
        }
        for (int k = 0; k < part.sums.length; k++) {
          sums[part.first * stride + k] += part.sums[k];
        }
      }
    }
    for (int c = 0; c < counts.length; c++) {
      for (int k = 0; k < stride && counts[c] > 0; k++) {
        centres[c * stride + k] = (float) (sums[c * stride + k] / counts[c]);
      }
    }
  }

  private Part strip(int index, ScratchLabels labels, Job job) {
    int width = grid.width();
    Window rows = new Window(0, index * STRIP, width, STRIP).intersect(grid.window());
    float[] features = space.readSpectral(rows, job.request());
    int stride = dimensions + 2;
    int firstRow = Math.max(0, rows.y() / spacing - 1);
    int lastRow = Math.min(down - 1, (rows.bottom() - 1) / spacing + 1);
    int first = firstRow * across;
    double[] sums = new double[(lastRow - firstRow + 1) * across * stride];
    int[] counts = new int[(lastRow - firstRow + 1) * across];
    int[] label = labels == null ? null : new int[rows.area()];
    for (int i = 0; i < rows.area(); i++) {
      int from = i * dimensions;
      if (Float.isNaN(features[from])) {
        continue;
      }
      int x = i % width;
      int y = rows.y() + i / width;
      int centre = nearest(features, from, x, y);
      if (centre < 0) {
        continue;
      }
      if (label != null) {
        label[i] = centre + 1;
      }
      counts[centre - first]++;
      int to = (centre - first) * stride;
      for (int k = 0; k < dimensions; k++) {
        sums[to + k] += features[from + k];
      }
      sums[to + dimensions] += x;
      sums[to + dimensions + 1] += y;
    }
    if (labels != null) {
      labels.write(rows, label);
    }
    return new Part(first, sums, counts);
  }

  private int nearest(float[] features, int from, int x, int y) {
    int stride = dimensions + 2;
    int cx = x / spacing;
    int cy = y / spacing;
    int best = -1;
    float least = Float.POSITIVE_INFINITY;
    for (int sy = Math.max(0, cy - 1); sy <= Math.min(down - 1, cy + 1); sy++) {
      for (int sx = Math.max(0, cx - 1); sx <= Math.min(across - 1, cx + 1); sx++) {
        int at = (sy * across + sx) * stride;
        float dx = centres[at + dimensions] - x;
        float dy = centres[at + dimensions + 1] - y;
        float distance = spatialWeight * (dx * dx + dy * dy);
        for (int k = 0; k < dimensions && distance < least; k++) {
          float d = centres[at + k] - features[from + k];
          distance += d * d;
        }
        // a centre on no-data is NaN and never less
        if (distance < least) {
          least = distance;
          best = sy * across + sx;
        }
      }
    }
    return best;
  }
}
