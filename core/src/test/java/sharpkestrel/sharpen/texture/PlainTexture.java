package sharpkestrel.sharpen.texture;

/** Measures of texture from their definitions, each window's matrix made afresh. Slow and plain; the reference for tests. */
public final class PlainTexture {

  private PlainTexture() {}

  /** The symmetric co-occurrence matrix of the window about a pixel, its entries adding up to 1; null without a pair. */
  static double[][] matrix(
      int[][] levels, int count, int col, int row, int radius, Displacement d) {
    double[][] p = new double[count][count];
    double total = 0;
    for (int y = row - radius; y <= row + radius; y++) {
      for (int x = col - radius; x <= col + radius; x++) {
        int xx = x + d.right();
        int yy = y + d.down();
        boolean inWindow = Math.abs(xx - col) <= radius && Math.abs(yy - row) <= radius;
        int i = at(levels, x, y);
        int j = at(levels, xx, yy);
        if (inWindow && i >= 0 && j >= 0) {
          p[i][j]++;
          p[j][i]++;
          total += 2;
        }
      }
    }
    for (double[] line : p) {
      for (int j = 0; j < count; j++) {
        line[j] /= total;
      }
    }
    return total == 0 ? null : p;
  }

  private static int at(int[][] levels, int x, int y) {
    boolean inside = y >= 0 && y < levels.length && x >= 0 && x < levels[0].length;
    return inside ? levels[y][x] : Levels.NONE;
  }

  /** A measure of pairs from the matrix; NaN where there is none. */
  public static double of(Measure measure, double[][] p) {
    if (p == null) {
      return Double.NaN;
    }
    int n = p.length;
    double mean = 0;
    double[] single = new double[n];
    double[] differences = new double[n];
    double[] sums = new double[2 * n];
    for (int i = 0; i < n; i++) {
      for (int j = 0; j < n; j++) {
        mean += i * p[i][j];
        single[i] += p[i][j];
        differences[Math.abs(i - j)] += p[i][j];
        sums[i + j] += p[i][j];
      }
    }
    double value = 0;
    double variance = 0;
    double covariance = 0;
    double differenceMean = 0;
    for (int k = 0; k < n; k++) {
      differenceMean += k * differences[k];
    }
    for (int i = 0; i < n; i++) {
      for (int j = 0; j < n; j++) {
        double d = i - j;
        variance += (i - mean) * (i - mean) * p[i][j];
        covariance += (i - mean) * (j - mean) * p[i][j];
        value += switch (measure) {
          case CONTRAST -> d * d * p[i][j];
          case DISSIMILARITY -> Math.abs(d) * p[i][j];
          case HOMOGENEITY -> p[i][j] / (1 + d * d);
          case SECOND_MOMENT -> p[i][j] * p[i][j];
          case DIFFERENCE_VARIANCE ->
            (Math.abs(d) - differenceMean) * (Math.abs(d) - differenceMean) * p[i][j];
          default -> 0;
        };
      }
    }
    return switch (measure) {
      case PAIR_MEAN -> mean;
      case PAIR_VARIANCE -> variance;
      case CORRELATION -> variance < 1e-9 ? 1 : covariance / variance;
      case PAIR_ENTROPY -> entropy(p);
      case DIFFERENCE_ENTROPY -> entropy(new double[][] {differences});
      case SUM_ENTROPY -> entropy(new double[][] {sums});
      case INFORMATION -> {
        double own = entropy(new double[][] {single});
        yield own < 1e-9 ? 0 : (entropy(p) - 2 * own) / own;
      }
      default -> value;
    };
  }

  private static double entropy(double[][] p) {
    double sum = 0;
    for (double[] line : p) {
      for (double each : line) {
        sum -= each > 0 ? each * Math.log(each) : 0;
      }
    }
    return sum;
  }

  /** A measure of the values in the window about a pixel. */
  static double of(Measure measure, float[][] values, int col, int row, int radius) {
    double n = 0;
    double sum = 0;
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    for (int y = Math.max(0, row - radius); y <= Math.min(values.length - 1, row + radius); y++) {
      for (int x = Math.max(0, col - radius);
          x <= Math.min(values[0].length - 1, col + radius);
          x++) {
        double v = values[y][x];
        if (!Double.isNaN(v)) {
          n++;
          sum += v;
          low = Math.min(low, v);
          high = Math.max(high, v);
        }
      }
    }
    double squares = 0;
    for (int y = Math.max(0, row - radius); y <= Math.min(values.length - 1, row + radius); y++) {
      for (int x = Math.max(0, col - radius);
          x <= Math.min(values[0].length - 1, col + radius);
          x++) {
        double d = values[y][x] - sum / n;
        squares += Double.isNaN(d) ? 0 : d * d;
      }
    }
    return switch (measure) {
      case RANGE -> high - low;
      case MEAN -> sum / n;
      case VARIANCE -> squares / n;
      default -> Math.sqrt(squares / n);
    };
  }

  /** Entropy of the levels in the window about a pixel. */
  static double entropy(int[][] levels, int count, int col, int row, int radius) {
    double[] share = new double[count];
    double n = 0;
    for (int y = row - radius; y <= row + radius; y++) {
      for (int x = col - radius; x <= col + radius; x++) {
        if (at(levels, x, y) >= 0) {
          share[at(levels, x, y)]++;
          n++;
        }
      }
    }
    for (int k = 0; k < count; k++) {
      share[k] /= n;
    }
    return entropy(new double[][] {share});
  }
}
