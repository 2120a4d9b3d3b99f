package sharpkestrel.raster;

import java.util.stream.IntStream;

/**
 * Count, range, mean and spread of a band with its histogram. Sums are in long on samples in fixed point (1/1024 of
 * whole numbers, else of the range), so that they do not depend on the order of tiles.
 *
 * @param valid pixels that are not no-data
 * @param min NaN where nothing is valid, as are max, mean and standardDeviation
 */
public record Statistics(
    long valid,
    double min,
    double max,
    double mean,
    double standardDeviation,
    Histogram histogram) {

  private static final int BINS = 4096;

  /** Statistics of all bands at a level; level 0 is exact, a reduced level an estimate. */
  public static Statistics[] of(Raster raster, int level, Job job) {
    int bands = raster.bands().size();
    double[][] ranges = new double[bands][];
    for (int b = 0; b < bands; b++) {
      ranges[b] = new double[] {Double.POSITIVE_INFINITY, Double.NEGATIVE_INFINITY};
    }
    Parallel.overTiles(raster, level, "range", job, (tile, planes) -> {
      for (int b = 0; b < bands; b++) {
        float low = Float.POSITIVE_INFINITY;
        float high = Float.NEGATIVE_INFINITY;
        for (float v : planes[b]) {
          low = v < low ? v : low;
          high = v > high ? v : high;
        }
        synchronized (ranges) {
          ranges[b][0] = Math.min(ranges[b][0], low);
          ranges[b][1] = Math.max(ranges[b][1], high);
        }
      }
    });
    Accumulator[] sums = IntStream.range(0, bands)
        .mapToObj(b -> new Accumulator(ranges[b][0], ranges[b][1]))
        .toArray(Accumulator[]::new);
    Parallel.overTiles(raster, level, "histogram", job, (tile, planes) -> {
      for (int b = 0; b < bands; b++) {
        Accumulator local = new Accumulator(ranges[b][0], ranges[b][1]);
        local.add(planes[b]);
        synchronized (sums) {
          sums[b].add(local);
        }
      }
    });
    Statistics[] result = new Statistics[bands];
    for (int b = 0; b < bands; b++) {
      result[b] = sums[b].toStatistics();
    }
    return result;
  }

  /** Statistics of values at hand. */
  public static Statistics of(float[] values) {
    float low = Float.POSITIVE_INFINITY;
    float high = Float.NEGATIVE_INFINITY;
    for (float v : values) {
      low = v < low ? v : low;
      high = v > high ? v : high;
    }
    Accumulator sums = new Accumulator(low, high);
    sums.add(values);
    return sums.toStatistics();
  }

  private static final class Accumulator {
    private final double low;
    private final double high;
    private final double step;
    private final long[] counts = new long[BINS];
    private long valid;
    private long sum;
    private java.math.BigInteger squares = java.math.BigInteger.ZERO;

    Accumulator(double low, double high) {
      this.low = low;
      this.high = high;
      this.step = high > low ? (high - low) / (1 << 20) : 1;
    }

    void add(float[] values) {
      double toBin = high > low ? BINS / (high - low) : 0;
      long squareSum = 0;
      for (float v : values) {
        if (Float.isNaN(v)) {
          continue;
        }
        int bin = (int) ((v - low) * toBin);
        counts[Math.max(0, Math.min(BINS - 1, bin))]++;
        long fixed = Math.round((v - low) / step);
        valid++;
        sum += fixed;
        squareSum += fixed * fixed;
        if (squareSum > 1L << 61) {
          squares = squares.add(java.math.BigInteger.valueOf(squareSum));
          squareSum = 0;
        }
      }
      squares = squares.add(java.math.BigInteger.valueOf(squareSum));
    }

    void add(Accumulator other) {
      for (int i = 0; i < BINS; i++) {
        counts[i] += other.counts[i];
      }
      valid += other.valid;
      sum += other.sum;
      squares = squares.add(other.squares);
    }

    Statistics toStatistics() {
      if (valid == 0) {
        return new Statistics(
            0, Double.NaN, Double.NaN, Double.NaN, Double.NaN, new Histogram(0, 1, new long[1]));
      }
      double mean = (double) sum / valid;
      double variance = Math.max(0, squares.doubleValue() / valid - mean * mean);
      double top = high > low ? high : low + 1;
      return new Statistics(
          valid,
          low,
          high,
          low + mean * step,
          Math.sqrt(variance) * step,
          new Histogram(low, top, counts));
    }
  }
}
