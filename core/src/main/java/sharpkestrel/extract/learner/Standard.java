package sharpkestrel.extract.learner;

/**
 * Brings features to a mean of 0 and a spread of 1; one that is not known counts as the mean.
 *
 * @param scales one over the spread; 0 for what does not vary
 */
record Standard(float[] means, float[] scales) {

  static Standard of(Examples examples) {
    int features = examples.columns().length;
    float[] means = new float[features];
    float[] scales = new float[features];
    for (int f = 0; f < features; f++) {
      double sum = 0;
      double squares = 0;
      double all = 0;
      for (int i = 0; i < examples.count(); i++) {
        float v = examples.columns()[f][i];
        if (!Float.isNaN(v)) {
          sum += examples.weights()[i] * v;
          all += examples.weights()[i];
        }
      }
      double mean = all > 0 ? sum / all : 0;
      for (int i = 0; i < examples.count(); i++) {
        float v = examples.columns()[f][i];
        if (!Float.isNaN(v)) {
          squares += examples.weights()[i] * (v - mean) * (v - mean);
        }
      }
      double spread = all > 0 ? Math.sqrt(squares / all) : 0;
      means[f] = (float) mean;
      scales[f] = spread > 1e-12 * Math.max(1, Math.abs(mean)) ? (float) (1 / spread) : 0;
    }
    return new Standard(means, scales);
  }

  void of(float[] row, float[] out) {
    for (int f = 0; f < means.length; f++) {
      float v = (row[f] - means[f]) * scales[f];
      out[f] = Float.isFinite(v) ? v : 0;
    }
  }
}
