package sharpkestrel.segment.regions;

import java.util.Arrays;
import sharpkestrel.raster.Window;

/**
 * Superpixels of one block by non-iterative clustering (SNIC; Achanta and Süsstrunk 2017, CVPR, 4651-4660): seeds on
 * a grid grow pixel by pixel, the most alike pixel first, each seed's centre following its members. Regions are
 * connected by construction.
 *
 * <p>The queue is a row of buckets of equal distance, first in first out within a bucket: unlike a heap it costs the
 * same at any size, and its order is fixed by the pixels alone. Only a seed that is nearer than all that have offered
 * themselves to a pixel is queued for it: the others would come out of the queue too late.
 */
final class SuperpixelBlock {

  private static final int BUCKETS = 2048;
  private static final float BUCKETS_PER_DISTANCE = 64;

  /** Label of a pixel that has gone to no seed. */
  private static final int UNTOUCHED = -1;

  private final Window window;
  private final int spacing;
  private final int dimensions;
  private final float[] features;
  private final float spatialWeight;

  private int[] seedIds;
  private int[] seedPixels;

  /** Seed by seed: how many pixels it has, and the sums of their columns, rows and features. */
  private float[] sums;

  private final int stride;
  /** For each pixel the squared distance of the nearest seed that has offered itself. */
  private final float[] nearest;

  private final BucketQueue queue = new BucketQueue(BUCKETS);

  /**
   * @param window the block with its halo, in scene pixels; may reach beyond the scene
   * @param features (input) interleaved, NaN in the first number of a pixel for no-data
   * @param compactness how much a spacing of distance on the ground counts against one unit of unlikeness
   */
  SuperpixelBlock(
      Window window, int spacing, int dimensions, float[] features, double compactness) {
    this.window = window;
    this.spacing = spacing;
    this.dimensions = dimensions;
    this.features = features;
    this.spatialWeight = (float) (compactness / ((double) spacing * spacing));
    stride = dimensions + 3;
    nearest = new float[window.area()];
    Arrays.fill(nearest, Float.POSITIVE_INFINITY);
  }

  /**
   * @param seedsAcross seeds in a row of the whole scene; seed ids count along rows from 1
   * @param labels (output) id of the seed each pixel went to; 0 for no-data, -1 for data that no seed reached
   */
  void run(int seedsAcross, int seedsDown, int[] labels) {
    placeSeeds(seedsAcross, seedsDown);
    for (int i = 0; i < labels.length; i++) {
      labels[i] = Float.isNaN(features[i * dimensions]) ? 0 : UNTOUCHED;
    }
    for (int s = 0; s < seedIds.length; s++) {
      queue.push(0, seedPixels[s], s);
    }
    int width = window.width();
    int height = window.height();
    while (queue.pop()) {
      int pixel = queue.pixel();
      int seed = queue.seed();
      if (labels[pixel] != UNTOUCHED) {
        continue;
      }
      labels[pixel] = seedIds[seed];
      int y = pixel / width;
      int x = pixel - y * width;
      join(seed, pixel, x, y);
      if (x > 0 && labels[pixel - 1] == UNTOUCHED) {
        offer(pixel - 1, x - 1, y, seed);
      }
      if (x + 1 < width && labels[pixel + 1] == UNTOUCHED) {
        offer(pixel + 1, x + 1, y, seed);
      }
      if (y > 0 && labels[pixel - width] == UNTOUCHED) {
        offer(pixel - width, x, y - 1, seed);
      }
      if (y + 1 < height && labels[pixel + width] == UNTOUCHED) {
        offer(pixel + width, x, y + 1, seed);
      }
    }
  }

  private void placeSeeds(int seedsAcross, int seedsDown) {
    int half = spacing / 2;
    int fromX = Math.max(0, Math.ceilDiv(window.x() + 2 - half, spacing));
    int fromY = Math.max(0, Math.ceilDiv(window.y() + 2 - half, spacing));
    int toX = Math.min(seedsAcross - 1, Math.floorDiv(window.right() - 3 - half, spacing));
    int toY = Math.min(seedsDown - 1, Math.floorDiv(window.bottom() - 3 - half, spacing));
    int most = Math.max(0, toX - fromX + 1) * Math.max(0, toY - fromY + 1);
    seedIds = new int[most];
    seedPixels = new int[most];
    int n = 0;
    for (int sy = fromY; sy <= toY; sy++) {
      for (int sx = fromX; sx <= toX; sx++) {
        int pixel = calmest(sx * spacing + half - window.x(), sy * spacing + half - window.y());
        if (pixel >= 0) {
          seedIds[n] = sy * seedsAcross + sx + 1;
          seedPixels[n++] = pixel;
        }
      }
    }
    seedIds = Arrays.copyOf(seedIds, n);
    seedPixels = Arrays.copyOf(seedPixels, n);
    sums = new float[n * stride];
  }

  /** Of the 3 x 3 pixels around a place, the one with the least gradient; -1 where all are no-data. */
  private int calmest(int x, int y) {
    int best = -1;
    double least = Double.POSITIVE_INFINITY;
    int width = window.width();
    for (int dy = -1; dy <= 1; dy++) {
      for (int dx = -1; dx <= 1; dx++) {
        int pixel = (y + dy) * width + x + dx;
        if (Float.isNaN(features[pixel * dimensions])) {
          continue;
        }
        double g = squaredDifference(pixel - 1, pixel + 1)
            + squaredDifference(pixel - width, pixel + width);
        g = Double.isNaN(g) ? Float.MAX_VALUE : g;
        if (g < least) {
          least = g;
          best = pixel;
        }
      }
    }
    return best;
  }

  private double squaredDifference(int a, int b) {
    double sum = 0;
    for (int k = 0; k < dimensions; k++) {
      double d = features[a * dimensions + k] - features[b * dimensions + k];
      sum += d * d;
    }
    return sum;
  }

  private void join(int seed, int pixel, int x, int y) {
    int from = pixel * dimensions;
    int to = seed * stride;
    sums[to]++;
    sums[to + 1] += x;
    sums[to + 2] += y;
    for (int k = 0; k < dimensions; k++) {
      sums[to + 3 + k] += features[from + k];
    }
  }

  private void offer(int pixel, int x, int y, int seed) {
    int from = pixel * dimensions;
    int to = seed * stride;
    float share = 1 / sums[to];
    float dx = sums[to + 1] * share - x;
    float dy = sums[to + 2] * share - y;
    float unlike = spatialWeight * (dx * dx + dy * dy);
    for (int k = 0; k < dimensions; k++) {
      float d = sums[to + 3 + k] * share - features[from + k];
      unlike += d * d;
    }
    if (unlike < nearest[pixel]) {
      nearest[pixel] = unlike;
      float distance = (float) Math.sqrt(unlike) * BUCKETS_PER_DISTANCE;
      queue.push((int) Math.min(BUCKETS - 1, distance), pixel, seed);
    }
  }
}
