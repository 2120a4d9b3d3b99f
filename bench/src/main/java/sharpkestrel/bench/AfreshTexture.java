package sharpkestrel.bench;

import java.util.Arrays;

/** Measures of one window from its co-occurrence matrix, made for it alone: what sliding windows are compared with. */
final class AfreshTexture {

  private AfreshTexture() {}

  /** The sum of twelve measures, so that none of them can be left out. */
  static double all(int[][] levels, double[][] p, int col, int row, int radius) {
    int n = p.length;
    for (double[] line : p) {
      Arrays.fill(line, 0);
    }
    double pairs = 0;
    for (int y = row - radius; y <= row + radius; y++) {
      for (int x = col - radius; x < col + radius; x++) {
        p[levels[y][x]][levels[y][x + 1]]++;
        p[levels[y][x + 1]][levels[y][x]]++;
        pairs += 2;
      }
    }
    double mean = 0;
    double[] single = new double[n];
    double[] differences = new double[n];
    double[] sums = new double[2 * n];
    for (int i = 0; i < n; i++) {
      for (int j = 0; j < n; j++) {
        p[i][j] /= pairs;
        mean += i * p[i][j];
        single[i] += p[i][j];
        differences[Math.abs(i - j)] += p[i][j];
        sums[i + j] += p[i][j];
      }
    }
    double contrast = 0;
    double dissimilarity = 0;
    double homogeneity = 0;
    double second = 0;
    double entropy = 0;
    double variance = 0;
    double covariance = 0;
    for (int i = 0; i < n; i++) {
      for (int j = 0; j < n; j++) {
        double v = p[i][j];
        double d = i - j;
        contrast += d * d * v;
        dissimilarity += Math.abs(d) * v;
        homogeneity += v / (1 + d * d);
        second += v * v;
        entropy -= v > 0 ? v * Math.log(v) : 0;
        variance += (i - mean) * (i - mean) * v;
        covariance += (i - mean) * (j - mean) * v;
      }
    }
    double own = entropy(single);
    return contrast
        + dissimilarity
        + homogeneity
        + second
        + entropy
        + mean
        + variance
        + (variance > 0 ? covariance / variance : 1)
        + contrast
        - dissimilarity * dissimilarity
        + entropy(differences)
        + entropy(sums)
        + (own > 0 ? (entropy - 2 * own) / own : 0);
  }

  private static double entropy(double[] p) {
    double sum = 0;
    for (double each : p) {
      sum -= each > 0 ? each * Math.log(each) : 0;
    }
    return sum;
  }
}
