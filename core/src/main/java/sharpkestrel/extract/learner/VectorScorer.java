package sharpkestrel.extract.learner;

/**
 * Support vectors with a radial kernel, one class against all others each (Vapnik 1995); what they say is turned into probabilities by
 * a logistic curve for each class (Platt 1999).
 *
 * @param vectors standardised, those of all classes together
 * @param factors for each class that of each vector
 * @param offsets of each class
 * @param width of the kernel: exp(-width * squared distance)
 * @param slopes and {@code shifts} of the logistic curve of each class
 */
public record VectorScorer(
    Standard standard,
    float[][] vectors,
    float[][] factors,
    float[] offsets,
    double width,
    float[] slopes,
    float[] shifts)
    implements Scorer {

  @Override
  public int classes() {
    return offsets.length;
  }

  @Override
  public int features() {
    return standard.means().length;
  }

  @Override
  public void score(float[] row, float[] out) {
    double all = 0;
    double[] decisions = decisions(row);
    for (int k = 0; k < decisions.length; k++) {
      out[k] = BoostingGrower.logistic(slopes[k] * decisions[k] + shifts[k]);
      all += out[k];
    }
    for (int k = 0; k < decisions.length; k++) {
      out[k] /= (float) all;
    }
  }

  double[] decisions(float[] row) {
    float[] at = new float[features()];
    standard.of(row, at);
    double[] sums = new double[offsets.length];
    for (int v = 0; v < vectors.length; v++) {
      float[] vector = vectors[v];
      float distance = 0;
      for (int f = 0; f < at.length; f++) {
        float off = vector[f] - at[f];
        distance += off * off;
      }
      double near = Math.exp(-width * distance);
      for (int k = 0; k < sums.length; k++) {
        sums[k] += factors[k][v] * near;
      }
    }
    for (int k = 0; k < sums.length; k++) {
      sums[k] += offsets[k];
    }
    return sums;
  }
}
