package sharpkestrel.extract.learner;

import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import sharpkestrel.raster.RasterException;

/**
 * What is learned from: rows of features, each with its class.
 *
 * @param features names of the columns
 * @param columns for each feature its values row by row; NaN where one is not known
 * @param classes names
 * @param classOf for each row the place of its class
 * @param weights for each row how much it counts, above 0
 * @param blocks for each row the block of ground it lies in; rows of one block are kept back together
 */
public record Examples(
    List<String> features,
    float[][] columns,
    List<String> classes,
    int[] classOf,
    float[] weights,
    int[] blocks) {

  public Examples {
    features = List.copyOf(features);
    classes = List.copyOf(classes);
    if (features.size() != columns.length
        || classOf.length != weights.length
        || classOf.length != blocks.length
        || Arrays.stream(columns).anyMatch(column -> column.length != classOf.length)) {
      throw new IllegalArgumentException("Columns of examples differ in length.");
    }
  }

  /** All count the same, and each is a block of its own. */
  public static Examples of(
      List<String> features, float[][] columns, List<String> classes, int[] classOf) {
    float[] weights = new float[classOf.length];
    Arrays.fill(weights, 1);
    return new Examples(
        features,
        columns,
        classes,
        classOf,
        weights,
        IntStream.range(0, classOf.length).toArray());
  }

  public int count() {
    return classOf.length;
  }

  /** How many rows each class has. */
  public int[] perClass() {
    int[] counts = new int[classes.size()];
    for (int c : classOf) {
      counts[c]++;
    }
    return counts;
  }

  public void row(int i, float[] out) {
    for (int f = 0; f < columns.length; f++) {
      out[f] = columns[f][i];
    }
  }

  public Examples select(int[] rows) {
    float[][] some = new float[columns.length][rows.length];
    for (int f = 0; f < some.length; f++) {
      for (int i = 0; i < rows.length; i++) {
        some[f][i] = columns[f][rows[i]];
      }
    }
    float[] newWeights = new float[rows.length];
    for (int i = 0; i < rows.length; i++) {
      newWeights[i] = weights[rows[i]];
    }
    return new Examples(
        features,
        some,
        classes,
        Arrays.stream(rows).map(i -> classOf[i]).toArray(),
        newWeights,
        Arrays.stream(rows).map(i -> blocks[i]).toArray());
  }

  /** With weights that let every class count the same in all. */
  public Examples balanced() {
    double[] even = new double[classes.size()];
    Arrays.fill(even, 1);
    return weighted(even);
  }

  /**
   * With weights that let every class count for a share in all; the sum of the weights stays.
   *
   * @param shares of the classes, in any unit; those of classes without an example do not count
   */
  public Examples weighted(double[] shares) {
    double[] sums = new double[classes.size()];
    double all = 0;
    for (int i = 0; i < count(); i++) {
      sums[classOf[i]] += weights[i];
      all += weights[i];
    }
    double present = 0;
    for (int k = 0; k < sums.length; k++) {
      present += sums[k] > 0 ? shares[k] : 0;
    }
    float[] newWeights = new float[count()];
    for (int i = 0; i < newWeights.length; i++) {
      newWeights[i] =
          (float) (weights[i] * all * shares[classOf[i]] / (present * sums[classOf[i]]));
    }
    return new Examples(features, columns, classes, classOf, newWeights, blocks);
  }

  /** Some of the features. */
  Examples told(int[] by) {
    return new Examples(
        Arrays.stream(by).mapToObj(features::get).toList(),
        Arrays.stream(by).mapToObj(f -> columns[f]).toArray(float[][]::new),
        classes,
        classOf,
        weights,
        blocks);
  }

  /**
   * Leaves out features that say what others say.
   *
   * @param most how strongly ranks of two features may go together, 0 to 1; at 1 all stay
   */
  public Examples thinned(double most) {
    return most >= 1 ? this : told(Thinning.kept(this, most));
  }

  /**
   * Leaves out features that say nothing, as all rows have one value or none.
   *
   * @return the places of the others
   */
  public int[] varying() {
    return IntStream.range(0, columns.length).filter(f -> varies(columns[f])).toArray();
  }

  private static boolean varies(float[] column) {
    float first = Float.NaN;
    for (float v : column) {
      if (Float.isNaN(first)) {
        first = v;
      } else if (!Float.isNaN(v) && v != first) {
        return true;
      }
    }
    return false;
  }

  /**
   * Checks that there is something to learn.
   *
   * @throws RasterException where there are fewer than two classes with two examples, or no feature differs
   */
  public void check() {
    int[] counts = perClass();
    List<String> thin = IntStream.range(0, counts.length)
        .filter(c -> counts[c] == 1)
        .mapToObj(classes::get)
        .toList();
    long enough = Arrays.stream(counts).filter(n -> n > 1).count();
    if (enough < 2) {
      throw new RasterException(
          "To tell classes apart, two or more of them need two or more samples each; there "
              + (count() == 0
                  ? "are none"
                  : "are "
                      + IntStream.range(0, counts.length)
                          .filter(c -> counts[c] > 0)
                          .mapToObj(c -> counts[c] + " of '" + classes.get(c) + "'")
                          .collect(Collectors.joining(", ")))
              + ". Label more of other things, such as ground and shadow.");
    }
    if (!thin.isEmpty()) {
      throw new RasterException(
          "The class '" + thin.getFirst()
              + "' has one sample only, which says nothing of how it varies. Label another, or take it away.");
    }
    if (varying().length == 0) {
      throw new RasterException(
          "No feature differs among the " + count() + " samples: " + features.size()
              + " were measured, and all are constant or unknown. Measure other features.");
    }
  }
}
