package sharpkestrel.extract.cluster;

/**
 * How columns are put on one scale: each less its mean, over its spread or over the mean spread of all.
 *
 * @param means of the columns
 * @param perSpreads what a step in each column counts; 0 for one that does not vary
 */
record Scaling(float[] means, float[] perSpreads) {

  /**
   * @param standardised whether each column counts the same; else they keep their spreads against each other
   */
  static Scaling of(float[][] columns, boolean standardised) {
    int d = columns.length;
    float[] means = new float[d];
    double[] spreads = new double[d];
    double all = 0;
    for (int f = 0; f < d; f++) {
      double sum = 0;
      double square = 0;
      int n = 0;
      for (float v : columns[f]) {
        if (!Float.isNaN(v)) {
          sum += v;
          n++;
        }
      }
      double mean = n == 0 ? 0 : sum / n;
      for (float v : columns[f]) {
        square += Float.isNaN(v) ? 0 : (v - mean) * (v - mean);
      }
      means[f] = (float) mean;
      spreads[f] = n == 0 ? 0 : Math.sqrt(square / n);
      all += spreads[f] / d;
    }
    float[] per = new float[d];
    for (int f = 0; f < d; f++) {
      double unit = standardised ? spreads[f] : all;
      per[f] = spreads[f] > 0 && unit > 0 ? (float) (1 / unit) : 0;
    }
    return new Scaling(means, per);
  }

  /** Whether any column varies. */
  boolean varies() {
    for (float per : perSpreads) {
      if (per > 0) {
        return true;
      }
    }
    return false;
  }

  /**
   * @param row (modified) what is not known counts as the mean
   */
  void apply(float[] row) {
    for (int f = 0; f < row.length; f++) {
      row[f] = Float.isNaN(row[f]) ? 0 : (row[f] - means[f]) * perSpreads[f];
    }
  }

  /** Rows one after another, scaled. */
  float[] rows(float[][] columns) {
    int d = columns.length;
    int n = d == 0 ? 0 : columns[0].length;
    float[] rows = new float[n * d];
    for (int f = 0; f < d; f++) {
      for (int i = 0; i < n; i++) {
        float v = columns[f][i];
        rows[i * d + f] = Float.isNaN(v) ? 0 : (v - means[f]) * perSpreads[f];
      }
    }
    return rows;
  }
}
