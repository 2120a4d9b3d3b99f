package sharpkestrel.extract.learner;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import sharpkestrel.sharpen.profile.Profile;
import sharpkestrel.sharpen.profile.Separability;

/**
 * How well the samples of two classes can be told apart by three features, those that do it best together: the Jeffries-Matusita distance,
 * from 0, the same, to 2, apart. Features are taken one after another, each the one that parts the two most beside those before it; all of
 * them at once would part any few samples.
 *
 * @param distance for each two classes; NaN where one has fewer than two samples
 * @param by for each two classes the features, the best first
 */
public record ClassesApart(double[][] distance, List<String>[][] by) {

  private static final int TOLD_BY = 3;

  /** Only so many of the features that part two classes best by themselves are tried together. */
  private static final int TRIED = 24;

  @SuppressWarnings("unchecked")
  static ClassesApart of(Examples examples) {
    int classes = examples.classes().size();
    double[][] distance = new double[classes][classes];
    List<String>[][] by = new List[classes][classes];
    Standard standard = Standard.of(examples);
    float[][] rows = new float[examples.count()][examples.columns().length];
    float[] row = new float[examples.columns().length];
    for (int i = 0; i < rows.length; i++) {
      examples.row(i, row);
      standard.of(row, rows[i]);
    }
    int[][] members = IntStream.range(0, classes)
        .mapToObj(k -> IntStream.range(0, rows.length)
            .filter(i -> examples.classOf()[i] == k)
            .toArray())
        .toArray(int[][]::new);
    for (int k = 0; k < classes; k++) {
      distance[k][k] = 0;
      by[k][k] = List.of();
      for (int j = 0; j < k; j++) {
        Pair pair = new Pair(rows, members[k], members[j]);
        int[] features = pair.best(row.length);
        boolean known = members[k].length > 1 && members[j].length > 1 && features.length > 0;
        distance[k][j] = distance[j][k] = known ? pair.apart(features) : Double.NaN;
        by[k][j] = by[j][k] =
            Arrays.stream(features).mapToObj(examples.features()::get).toList();
      }
    }
    return new ClassesApart(distance, by);
  }

  /** The class that is nearest to another; -1 where none can be told. */
  public int nearest(int ofClass) {
    return IntStream.range(0, distance.length)
        .filter(k -> k != ofClass && !Double.isNaN(distance[ofClass][k]))
        .boxed()
        .min(Comparator.comparingDouble(k -> distance[ofClass][k]))
        .orElse(-1);
  }

  private record Pair(float[][] rows, int[] one, int[] other) {

    int[] best(int features) {
      List<Integer> tried = IntStream.range(0, features)
          .boxed()
          .sorted(Comparator.comparingDouble(f -> -apart(new int[] {f})))
          .limit(TRIED)
          .toList();
      List<Integer> chosen = new ArrayList<>();
      while (chosen.size() < Math.min(TOLD_BY, tried.size())) {
        tried.stream()
            .filter(f -> !chosen.contains(f))
            .max(Comparator.comparingDouble(f -> apart(with(chosen, f))))
            .ifPresent(chosen::add);
      }
      return chosen.stream().mapToInt(Integer::intValue).toArray();
    }

    private static int[] with(List<Integer> chosen, int another) {
      return IntStream.concat(chosen.stream().mapToInt(Integer::intValue), IntStream.of(another))
          .toArray();
    }

    double apart(int[] features) {
      Profile a = profile(one, features);
      Profile b = profile(other, features);
      int d = features.length;
      double[][] pooled = new double[d][d];
      double all = one.length + other.length;
      for (int r = 0; r < d; r++) {
        for (int c = 0; c < d; c++) {
          pooled[r][c] =
              (one.length * a.covariance()[r][c] + other.length * b.covariance()[r][c]) / all;
        }
      }
      return Separability.jeffriesMatusita(
          drawn(a, pooled), drawn(b, pooled), IntStream.range(0, d).toArray(), 0);
    }

    /** With its covariance drawn towards that of both, the more so the fewer samples there are. */
    private static Profile drawn(Profile of, double[][] pooled) {
      int d = pooled.length;
      double towards = (d + 1.0) / (of.pixels() + d + 1);
      double[][] mixed = new double[d][d];
      for (int r = 0; r < d; r++) {
        for (int c = 0; c < d; c++) {
          mixed[r][c] = (1 - towards) * of.covariance()[r][c] + towards * pooled[r][c];
        }
      }
      return new Profile(of.name(), of.pixels(), of.mean(), mixed);
    }

    private Profile profile(int[] members, int[] features) {
      int d = features.length;
      double[] mean = new double[d];
      double[][] covariance = new double[d][d];
      for (int i : members) {
        for (int r = 0; r < d; r++) {
          mean[r] += rows[i][features[r]] / members.length;
        }
      }
      for (int i : members) {
        for (int r = 0; r < d; r++) {
          for (int c = 0; c < d; c++) {
            covariance[r][c] += (rows[i][features[r]] - mean[r])
                * (rows[i][features[c]] - mean[c])
                / members.length;
          }
        }
      }
      return new Profile("", members.length, mean, covariance);
    }
  }
}
