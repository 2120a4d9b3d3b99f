package sharpkestrel.objects;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.TreeMap;
import sharpkestrel.raster.Statistics;

/** Mean, spread, ends and percentiles of some planes in every object; pixels without data do not count. */
final class PlaneFeatures implements ObjectStrips.Collector<PlaneFeatures.Part> {

  static final double[] SHARES = {0.1, 0.5, 0.9};

  private final int firstPlane;
  private final Statistics[] statistics;
  private final boolean percentilesWanted;

  /** Plane by plane, object by object. */
  final int[][] counts;

  final double[][] means;
  final double[][] spreads;
  final double[][] mins;
  final double[][] maxs;

  /** Plane by plane, share by share, object by object. */
  final double[][][] percentiles;

  private final Map<Integer, Open> open = new HashMap<>();

  /** What is known of an object that strips cut. */
  private static final class Open {
    final double[] sums;
    final double[] squares;
    final ValuePool[] pools;

    Open(int planes) {
      sums = new double[planes];
      squares = new double[planes];
      pools = new ValuePool[planes];
    }
  }

  /**
   * @param values of the object's pixels in the strip, plane by plane
   */
  record Piece(int object, float[][] values) {}

  /** Objects of a strip that others have a part of. */
  record Part(Map<Integer, Piece> pieces) {}

  /**
   * @param firstPlane the first of the planes to measure
   * @param statistics of those planes
   */
  PlaneFeatures(int objects, int firstPlane, Statistics[] statistics, boolean percentilesWanted) {
    this.firstPlane = firstPlane;
    this.statistics = statistics;
    this.percentilesWanted = percentilesWanted;
    int planes = statistics.length;
    counts = new int[planes][objects];
    means = filled(planes, objects);
    spreads = filled(planes, objects);
    mins = filled(planes, objects);
    maxs = filled(planes, objects);
    percentiles = new double[planes][][];
    for (int p = 0; p < planes && percentilesWanted; p++) {
      percentiles[p] = filled(SHARES.length, objects);
    }
  }

  private static double[][] filled(int rows, int columns) {
    double[][] array = new double[rows][columns];
    for (double[] row : array) {
      Arrays.fill(row, Double.NaN);
    }
    return array;
  }

  @Override
  public Part strip(ObjectStrips.Strip strip) {
    Map<Integer, Piece> pieces = new TreeMap<>();
    float[] values = new float[0];
    double[] into = new double[SHARES.length];
    for (int k = 0; k < strip.count(); k++) {
      int from = strip.starts()[k];
      int n = strip.starts()[k + 1] - from;
      if (n == 0) {
        continue;
      }
      int object = strip.low() + k;
      float[][] kept = strip.whole()[k] ? null : new float[statistics.length][];
      values = values.length < n ? new float[2 * n] : values;
      for (int p = 0; p < statistics.length; p++) {
        float[] plane = strip.planes()[firstPlane + p];
        int count = 0;
        double sum = 0;
        for (int i = from; i < from + n; i++) {
          float v = plane[strip.order()[i]];
          if (!Float.isNaN(v)) {
            values[count++] = v;
            sum += v;
          }
        }
        if (kept != null) {
          kept[p] = Arrays.copyOf(values, count);
        } else if (count > 0) {
          finish(object, p, values, count, sum, into);
        }
      }
      if (kept != null) {
        pieces.put(object, new Piece(object, kept));
      }
    }
    return new Part(pieces);
  }

  private void finish(int object, int p, float[] values, int count, double sum, double[] into) {
    double mean = sum / count;
    double square = 0;
    float least = values[0];
    float most = values[0];
    for (int i = 0; i < count; i++) {
      double d = values[i] - mean;
      square += d * d;
      least = Math.min(least, values[i]);
      most = Math.max(most, values[i]);
    }
    counts[p][object] = count;
    means[p][object] = mean;
    spreads[p][object] = Math.sqrt(square / count);
    mins[p][object] = least;
    maxs[p][object] = most;
    if (percentilesWanted) {
      Arrays.sort(values, 0, count);
      ValuePool.ofSorted(values, 0, count, SHARES, into);
      put(object, p, into);
    }
  }

  private void put(int object, int p, double[] from) {
    for (int s = 0; s < SHARES.length; s++) {
      percentiles[p][s][object] = from[s];
    }
  }

  @Override
  public void join(Part part) {
    for (Piece piece : part.pieces.values()) {
      int object = piece.object;
      Open state = open.computeIfAbsent(object, any -> new Open(statistics.length));
      for (int p = 0; p < statistics.length; p++) {
        float[] values = piece.values[p];
        double sum = 0;
        double square = 0;
        // about the plane's mean, so that squares of large numbers do not drown a small spread
        double about = statistics[p].mean();
        for (float v : values) {
          sum += v - about;
          square += (v - about) * (v - about);
          mins[p][object] = Double.isNaN(mins[p][object]) ? v : Math.min(mins[p][object], v);
          maxs[p][object] = Double.isNaN(maxs[p][object]) ? v : Math.max(maxs[p][object], v);
        }
        state.sums[p] += sum;
        state.squares[p] += square;
        counts[p][object] += values.length;
        if (percentilesWanted) {
          if (state.pools[p] == null) {
            state.pools[p] =
                new ValuePool((float) statistics[p].min(), (float) statistics[p].max());
          }
          state.pools[p].add(values, 0, values.length);
        }
      }
    }
  }

  /** Ends what strips had cut; to be called once, after the pass. */
  void end() {
    double[] into = new double[SHARES.length];
    open.forEach((object, state) -> {
      for (int p = 0; p < statistics.length; p++) {
        int n = counts[p][object];
        if (n == 0) {
          continue;
        }
        double mean = state.sums[p] / n;
        means[p][object] = statistics[p].mean() + mean;
        spreads[p][object] = Math.sqrt(Math.max(0, state.squares[p] / n - mean * mean));
        if (percentilesWanted) {
          state.pools[p].percentiles(SHARES, into);
          put(object, p, into);
        }
      }
    });
    open.clear();
  }
}
