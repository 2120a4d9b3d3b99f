package sharpkestrel.raster;

import java.math.BigInteger;
import java.util.Arrays;
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

  /**
   * Exact statistics that are worked out once for as long as a raster is in use.
   *
   * @param owner the raster with which they are forgotten
   * @param what tells them from others of the same owner
   */
  public static Statistics[] kept(Raster raster, Raster owner, String what, Job job) {
    return Kept.of(owner, what, () -> of(raster, 0, job));
  }

  /** Statistics of all bands at a level; level 0 is exact, a reduced level an estimate. */
  public static Statistics[] of(Raster raster, int level, Job job) {
    int bands = raster.bands().size();
    if (raster.bands().stream().allMatch(b -> b.type().isWhole() && b.type().bytes() <= 2)) {
      return ofSmallNumbers(raster, level, job);
    }
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

  /** In one pass, as every number can be counted. */
  private static Statistics[] ofSmallNumbers(Raster raster, int level, Job job) {
    int bands = raster.bands().size();
    int[] lowest = raster.bands().stream().mapToInt(b -> (int) b.type().min()).toArray();
    long[][] counts = new long[bands][];
    for (int b = 0; b < bands; b++) {
      counts[b] = new long[(int) raster.bands().get(b).type().max() - lowest[b] + 1];
    }
    ThreadLocal<int[]> scratch = ThreadLocal.withInitial(() -> new int[1 << 16]);
    Parallel.overTiles(raster, level, "histogram", job, (tile, planes) -> {
      int[] some = scratch.get();
      for (int b = 0; b < bands; b++) {
        Arrays.fill(some, 0);
        int valid = count(planes[b], lowest[b], some);
        synchronized (counts[b]) {
          for (int k = 0; valid > 0 && k < counts[b].length; k++) {
            counts[b][k] += some[k];
          }
        }
      }
    });
    return IntStream.range(0, bands)
        .mapToObj(b -> ofCounts(counts[b], lowest[b]))
        .toArray(Statistics[]::new);
  }

  private static int count(float[] plane, int lowest, int[] counts) {
    int valid = 0;
    for (float v : plane) {
      if (!Float.isNaN(v)) {
        counts[(int) v - lowest]++;
        valid++;
      }
    }
    return valid;
  }

  private static Statistics ofCounts(long[] counts, int lowest) {
    int first = 0;
    int last = counts.length - 1;
    while (first <= last && counts[first] == 0) {
      first++;
    }
    while (last > first && counts[last] == 0) {
      last--;
    }
    Accumulator sums = new Accumulator(lowest + first, lowest + last);
    for (int k = first; k <= last; k++) {
      sums.add(lowest + k, counts[k]);
    }
    return sums.toStatistics();
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
    private BigInteger squares = BigInteger.ZERO;

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
          squares = squares.add(BigInteger.valueOf(squareSum));
          squareSum = 0;
        }
      }
      squares = squares.add(BigInteger.valueOf(squareSum));
    }

    void add(float value, long times) {
      if (times == 0) {
        return;
      }
      double toBin = high > low ? BINS / (high - low) : 0;
      counts[Math.max(0, Math.min(BINS - 1, (int) ((value - low) * toBin)))] += times;
      long fixed = Math.round((value - low) / step);
      valid += times;
      sum += fixed * times;
      squares = squares.add(BigInteger.valueOf(fixed * fixed).multiply(BigInteger.valueOf(times)));
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
