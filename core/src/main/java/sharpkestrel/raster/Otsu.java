package sharpkestrel.raster;

import java.util.Arrays;

/** The threshold that parts values into the two groups that are most apart (Otsu 1979, IEEE Trans. SMC 9(1), 62-66). */
public final class Otsu {

  private Otsu() {}

  /**
   * @param values (input) NaN is left out
   * @return NaN where there are fewer than two different values
   */
  public static double threshold(float[] values) {
    float[] sorted = values.clone();
    Arrays.sort(sorted);
    int n = sorted.length;
    while (n > 0 && Float.isNaN(sorted[n - 1])) {
      n--;
    }
    double total = 0;
    for (int i = 0; i < n; i++) {
      total += sorted[i];
    }
    double below = 0;
    double best = 0;
    double threshold = Double.NaN;
    for (int i = 0; i + 1 < n; i++) {
      below += sorted[i];
      if (sorted[i] == sorted[i + 1]) {
        continue;
      }
      double share = (i + 1.0) / n;
      double difference = below / (i + 1) - (total - below) / (n - i - 1);
      double between = share * (1 - share) * difference * difference;
      if (between > best) {
        best = between;
        threshold = (sorted[i] + sorted[i + 1]) / 2.0;
      }
    }
    return threshold;
  }
}
