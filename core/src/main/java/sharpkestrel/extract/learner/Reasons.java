package sharpkestrel.extract.learner;

import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import sharpkestrel.expr.Table;

/**
 * Why an object is said to be of a class: what each feature spoke for or against it, and which samples are most like it.
 *
 * @param shares probabilities of the classes
 * @param spoken features with what they speak for the class, or against it where it is below 0, the strongest first
 * @param alike rows of the samples that are most like it, the likest first
 */
public record Reasons(float[] shares, List<Spoken> spoken, List<Integer> alike) {

  /** How many samples are looked up. */
  private static final int ALIKE = 3;

  /**
   * @param value of the object; NaN where it is not known
   * @param weight in probability; in logarithms of odds where trees were boosted
   */
  public record Spoken(String feature, double value, double weight) {}

  /**
   * Of trees the sums along their paths; of others what the probability loses where a feature is set to the middle of what was seen.
   *
   * @param row of the object in the table
   * @param samples rows of those that the model was learned from
   */
  public static Reasons of(
      Classifier classifier, Table table, int row, int ofClass, int[] samples) {
    float[] values = values(classifier, table, row);
    float[] shares = new float[classifier.classes().size()];
    classifier.shares(values, shares);
    double[] weights = classifier.scorer() instanceof TreeScorer trees
        ? trees.contributions(values, ofClass)
        : withoutEach(classifier, values, ofClass);
    List<Spoken> spoken = IntStream.range(0, weights.length)
        .mapToObj(f -> new Spoken(classifier.features().get(f), values[f], weights[f]))
        .filter(each -> each.weight != 0)
        .sorted(Comparator.comparingDouble(each -> -Math.abs(each.weight)))
        .toList();
    return new Reasons(shares, spoken, alike(classifier, table, values, samples));
  }

  private static float[] values(Classifier classifier, Table table, int row) {
    float[] values = new float[classifier.features().size()];
    for (int f = 0; f < values.length; f++) {
      values[f] = (float) table.column(classifier.features().get(f)).values()[row];
    }
    return values;
  }

  private static double[] withoutEach(Classifier classifier, float[] values, int ofClass) {
    float[] shares = new float[classifier.classes().size()];
    classifier.scorer().score(values, shares);
    double whole = shares[ofClass];
    double[] weights = new double[values.length];
    for (int f = 0; f < values.length; f++) {
      float[] without = values.clone();
      without[f] = (classifier.lows()[f] + classifier.highs()[f]) / 2;
      classifier.scorer().score(without, shares);
      weights[f] = whole - shares[ofClass];
    }
    return weights;
  }

  /** By the mean difference of features, each over the range that was seen. */
  private static List<Integer> alike(
      Classifier classifier, Table table, float[] values, int[] samples) {
    return Arrays.stream(samples)
        .boxed()
        .sorted(Comparator.comparingDouble(
            sample -> distance(classifier, values, values(classifier, table, sample))))
        .limit(ALIKE)
        .toList();
  }

  private static double distance(Classifier classifier, float[] one, float[] other) {
    double sum = 0;
    for (int f = 0; f < one.length; f++) {
      double range = classifier.highs()[f] - classifier.lows()[f];
      double apart = Math.abs(one[f] - other[f]) / range;
      sum += range > 0 && !Double.isNaN(apart) ? Math.min(1, apart) : 0;
    }
    return sum;
  }
}
