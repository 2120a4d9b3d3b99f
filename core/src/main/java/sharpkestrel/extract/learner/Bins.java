package sharpkestrel.extract.learner;

import java.util.Arrays;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;

/**
 * Values of features as one of at most 255 bins, so that the best place to split a node is found by counting, not by sorting. Bins hold
 * about as many values each; what is not known has a bin of its own, the last.
 */
final class Bins {

  static final int MOST = 255;

  /** Values from which the bins are found; more say nothing new. */
  private static final int SAMPLE = 20_000;

  /** For each feature the values between its bins, ascending: bin b holds v with cuts[b-1] <= v < cuts[b]. */
  final float[][] cuts;

  /** Feature by feature the bin of each row. */
  final byte[][] codes;

  private Bins(float[][] cuts, byte[][] codes) {
    this.cuts = cuts;
    this.codes = codes;
  }

  static Bins of(Examples examples, Job job) {
    int features = examples.columns().length;
    float[][] cuts = new float[features][];
    byte[][] codes = new byte[features][];
    Parallel.run(features, job, f -> {
      float[] column = examples.columns()[f];
      cuts[f] = cuts(column);
      byte[] code = new byte[column.length];
      for (int i = 0; i < code.length; i++) {
        code[i] = (byte) bin(cuts[f], column[i]);
      }
      codes[f] = code;
    });
    return new Bins(cuts, codes);
  }

  int rows() {
    return codes.length == 0 ? 0 : codes[0].length;
  }

  /** The bin for what is not known: one past those of values. */
  int unknown(int feature) {
    return cuts[feature].length + 1;
  }

  int bins(int feature) {
    return cuts[feature].length + 2;
  }

  int code(int feature, int row) {
    return codes[feature][row] & 0xff;
  }

  static int bin(float[] cuts, float value) {
    if (Float.isNaN(value)) {
      return cuts.length + 1;
    }
    int low = 0;
    int high = cuts.length;
    while (low < high) {
      int middle = (low + high) >>> 1;
      if (value < cuts[middle]) {
        high = middle;
      } else {
        low = middle + 1;
      }
    }
    return low;
  }

  /** Middles between neighbouring values, all of them where there are few, else at even ranks. */
  private static float[] cuts(float[] column) {
    int step = Math.max(1, column.length / SAMPLE);
    float[] some = new float[Math.ceilDiv(column.length, step)];
    int n = 0;
    for (int i = 0; i < column.length; i += step) {
      if (!Float.isNaN(column[i])) {
        some[n++] = column[i];
      }
    }
    float[] sorted = Arrays.copyOf(some, n);
    Arrays.sort(sorted);
    int distinct = 0;
    for (int i = 0; i < n; i++) {
      distinct += i == 0 || sorted[i] != sorted[i - 1] ? 1 : 0;
    }
    float[] cuts = new float[MOST - 1];
    int count = 0;
    double perBin = (double) n / (MOST - 1);
    double next = distinct <= MOST - 1 ? 0 : perBin;
    for (int i = 1; i < n && count < MOST - 2; i++) {
      if (sorted[i] != sorted[i - 1] && i >= next) {
        cuts[count++] = between(sorted[i - 1], sorted[i]);
        next = distinct <= MOST - 1 ? 0 : i + perBin;
      }
    }
    return Arrays.copyOf(cuts, count);
  }

  private static float between(float low, float high) {
    float middle = (float) (((double) low + high) / 2);
    return middle > low ? middle : high;
  }
}
