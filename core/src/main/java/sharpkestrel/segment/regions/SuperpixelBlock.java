package sharpkestrel.segment.regions;

import java.util.Arrays;
import sharpkestrel.raster.Window;

/**
 * Superpixels of one block by non-iterative clustering (SNIC; Achanta and Süsstrunk 2017, CVPR, 4651-4660): seeds on
 * a grid grow pixel by pixel, the most alike pixel first, each seed's centre following its members. Regions are
 * connected by construction.
 *
 * <p>The queue is a row of buckets of equal distance, first in first out within a bucket: unlike a heap it costs the
 * same at any size, and its order is fixed by the pixels alone.
 */
final class SuperpixelBlock {

  private static final int BUCKETS = 2048;
  private static final float BUCKETS_PER_DISTANCE = 64;

  private final Window window;
  private final int spacing;
  private final int dimensions;
  private final float[] features;
  private final float spatialWeight;

  private int[] seedIds;
  private int[] seedPixels;
  private double[] sums;
  private double[] sumX;
  private double[] sumY;
  private int[] counts;

  private final int[] head = new int[BUCKETS];
  private final int[] tail = new int[BUCKETS];
  private int[] queuedPixel = new int[1 << 16];
  private int[] queuedSeed = new int[1 << 16];
  private int[] queuedNext = new int[1 << 16];
  private int free = -1;
  private int used;

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
  }

  /**
   * @param seedsAcross seeds in a row of the whole scene; seed ids count along rows from 1
   * @param labels (output) id of the seed each pixel went to; 0 for no-data, -1 for data that no seed reached
   */
  void run(int seedsAcross, int seedsDown, int[] labels) {
    placeSeeds(seedsAcross, seedsDown);
    Arrays.fill(head, -1);
    Arrays.fill(labels, 0);
    for (int i = 0; i < labels.length; i++) {
      labels[i] = Float.isNaN(features[i * dimensions]) ? 0 : -1;
    }
    for (int s = 0; s < seedIds.length; s++) {
      push(0, seedPixels[s], s);
    }
    int width = window.width();
    int height = window.height();
    int bucket = 0;
    while (bucket < BUCKETS) {
      int entry = head[bucket];
      if (entry < 0) {
        bucket++;
        continue;
      }
      head[bucket] = queuedNext[entry];
      int pixel = queuedPixel[entry];
      int seed = queuedSeed[entry];
      queuedNext[entry] = free;
      free = entry;
      if (labels[pixel] != -1) {
        continue;
      }
      labels[pixel] = seedIds[seed];
      int x = pixel % width;
      int y = pixel / width;
      join(seed, pixel, x, y);
      int lowest = bucket;
      if (x > 0 && labels[pixel - 1] == -1) {
        lowest = Math.min(lowest, offer(pixel - 1, x - 1, y, seed));
      }
      if (x + 1 < width && labels[pixel + 1] == -1) {
        lowest = Math.min(lowest, offer(pixel + 1, x + 1, y, seed));
      }
      if (y > 0 && labels[pixel - width] == -1) {
        lowest = Math.min(lowest, offer(pixel - width, x, y - 1, seed));
      }
      if (y + 1 < height && labels[pixel + width] == -1) {
        lowest = Math.min(lowest, offer(pixel + width, x, y + 1, seed));
      }
      bucket = lowest;
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
    sums = new double[n * dimensions];
    sumX = new double[n];
    sumY = new double[n];
    counts = new int[n];
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
    int to = seed * dimensions;
    for (int k = 0; k < dimensions; k++) {
      sums[to + k] += features[from + k];
    }
    sumX[seed] += x;
    sumY[seed] += y;
    counts[seed]++;
  }

  private int offer(int pixel, int x, int y, int seed) {
    double share = 1.0 / counts[seed];
    int from = pixel * dimensions;
    int to = seed * dimensions;
    double unlike = 0;
    for (int k = 0; k < dimensions; k++) {
      double d = sums[to + k] * share - features[from + k];
      unlike += d * d;
    }
    double dx = sumX[seed] * share - x;
    double dy = sumY[seed] * share - y;
    double distance = Math.sqrt(unlike + spatialWeight * (dx * dx + dy * dy));
    int bucket = (int) Math.min(BUCKETS - 1, distance * BUCKETS_PER_DISTANCE);
    push(bucket, pixel, seed);
    return bucket;
  }

  private void push(int bucket, int pixel, int seed) {
    int entry = free;
    if (entry >= 0) {
      free = queuedNext[entry];
    } else {
      if (used == queuedPixel.length) {
        queuedPixel = Arrays.copyOf(queuedPixel, 2 * used);
        queuedSeed = Arrays.copyOf(queuedSeed, 2 * used);
        queuedNext = Arrays.copyOf(queuedNext, 2 * used);
      }
      entry = used++;
    }
    queuedPixel[entry] = pixel;
    queuedSeed[entry] = seed;
    queuedNext[entry] = -1;
    if (head[bucket] < 0) {
      head[bucket] = entry;
    } else {
      queuedNext[tail[bucket]] = entry;
    }
    tail[bucket] = entry;
  }
}
