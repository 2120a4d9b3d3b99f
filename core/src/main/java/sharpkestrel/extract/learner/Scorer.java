package sharpkestrel.extract.learner;

/** What has been learned: a row of features in, the probabilities of classes out. May be asked by many threads at once. */
public sealed interface Scorer permits TreeScorer, LikelihoodScorer, NearestScorer, VectorScorer {

  /** Classes, in the order of their probabilities. */
  int classes();

  int features();

  /**
   * @param row (input) features, as they are; NaN where one is not known
   * @param out (output) probabilities of the classes; they add up to 1, or to 0 where nothing can be said
   */
  void score(float[] row, float[] out);

  /**
   * The same of many rows, which some do faster than one by one.
   *
   * @param count of the rows that are looked at
   * @param out (output) for each row its probabilities
   */
  default void score(float[][] rows, int count, float[][] out) {
    for (int i = 0; i < count; i++) {
      score(rows[i], out[i]);
    }
  }
}
