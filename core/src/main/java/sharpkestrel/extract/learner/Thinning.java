package sharpkestrel.extract.learner;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;

/**
 * Features thinned by what they say alike: of two whose ranks go together more than is allowed (Spearman 1904), only the one that
 * tells the classes apart better by its ranks stays (the H of Kruskal and Wallis 1952).
 */
final class Thinning {

  private final Examples examples;
  private final float[][] ranks;

  private Thinning(Examples examples) {
    this.examples = examples;
    ranks = new float[examples.columns().length][];
    for (int f = 0; f < ranks.length; f++) {
      ranks[f] = ranks(examples.columns()[f]);
    }
  }

  /**
   * @param most allowed size of a correlation, 0 to 1
   * @return places of the features that stay, in their order
   */
  static int[] kept(Examples examples, double most) {
    Thinning thinning = new Thinning(examples);
    double[] told = new double[thinning.ranks.length];
    for (int f = 0; f < told.length; f++) {
      told[f] = thinning.told(f);
    }
    List<Integer> kept = new ArrayList<>();
    IntStream.range(0, told.length)
        .boxed()
        .sorted(Comparator.comparingDouble(f -> -told[f]))
        .forEach(f -> {
          if (kept.stream().noneMatch(other -> Math.abs(thinning.together(f, other)) > most)) {
            kept.add(f);
          }
        });
    return kept.stream().mapToInt(Integer::intValue).sorted().toArray();
  }

  /** Ranks about their middle and of length 1, equal values sharing one; 0 where a value is not known. */
  private static float[] ranks(float[] column) {
    Integer[] order = IntStream.range(0, column.length)
        .filter(i -> !Float.isNaN(column[i]))
        .boxed()
        .sorted(Comparator.comparingDouble(i -> column[i]))
        .toArray(Integer[]::new);
    float[] ranks = new float[column.length];
    double middle = (order.length - 1) / 2.0;
    double square = 0;
    for (int from = 0; from < order.length; ) {
      int to = from;
      while (to < order.length && column[order[to]] == column[order[from]]) {
        to++;
      }
      double shared = (from + to - 1) / 2.0 - middle;
      for (int i = from; i < to; i++) {
        ranks[order[i]] = (float) shared;
      }
      square += (to - from) * shared * shared;
      from = to;
    }
    double length = Math.sqrt(square);
    for (int i = 0; i < ranks.length; i++) {
      ranks[i] /= (float) Math.max(length, 1e-12);
    }
    return ranks;
  }

  /** How much of the spread of a feature's ranks lies between the classes. */
  private double told(int feature) {
    double[] sums = new double[examples.classes().size()];
    int[] counts = new int[sums.length];
    for (int i = 0; i < examples.count(); i++) {
      sums[examples.classOf()[i]] += ranks[feature][i];
      counts[examples.classOf()[i]]++;
    }
    double between = 0;
    for (int k = 0; k < sums.length; k++) {
      between += counts[k] == 0 ? 0 : sums[k] * sums[k] / counts[k];
    }
    return between;
  }

  private double together(int one, int other) {
    double product = 0;
    for (int i = 0; i < ranks[one].length; i++) {
      product += ranks[one][i] * ranks[other][i];
    }
    return product;
  }
}
