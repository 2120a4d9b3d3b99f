package sharpkestrel.extract.cluster;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.extract.cluster.ClusterSettings.Method;
import sharpkestrel.raster.Job;

/** Clusters against the distributions that rows were drawn from, and against plain counts. */
class ClustersTest {

  private static final int PER_GROUP = 400;

  /**
   * Rows about some middles.
   *
   * @param middles of groups, in two columns
   */
  private static float[][] rows(double[][] middles, double spread, long seed) {
    Random random = new Random(seed);
    float[][] columns = new float[2][middles.length * PER_GROUP];
    for (int i = 0; i < columns[0].length; i++) {
      for (int f = 0; f < 2; f++) {
        columns[f][i] = (float) (middles[i / PER_GROUP][f] + spread * random.nextGaussian());
      }
    }
    return columns;
  }

  private static int[] clusterOf(Clusters clusters, float[][] columns) {
    return IntStream.range(0, columns[0].length)
        .map(i -> clusters.of(new float[] {columns[0][i], columns[1][i]}))
        .toArray();
  }

  /** Share of the rows of a group that its commonest cluster has, each cluster counting for one group alone. */
  private static double pure(int[] clusterOf, int groups) {
    Set<Integer> used = new HashSet<>();
    int right = 0;
    for (int g = 0; g < groups; g++) {
      int[] counts = new int[100];
      for (int i = g * PER_GROUP; i < (g + 1) * PER_GROUP; i++) {
        counts[clusterOf[i]]++;
      }
      int best = 0;
      for (int c = 0; c < counts.length; c++) {
        best = counts[c] > counts[best] ? c : best;
      }
      right += used.add(best) ? counts[best] : 0;
    }
    return right / (double) clusterOf.length;
  }

  private static ClusterSettings selfOrganising(int least, int most, int seed) {
    return new ClusterSettings(Method.SELF_ORGANISING, least, most, 0.5, 0.5, 0.25, 30, true, seed);
  }

  private static final double[][] FIVE = {{0, 0}, {40, 5}, {10, 35}, {45, 50}, {80, 20}};

  @ParameterizedTest
  @ValueSource(ints = {1, 2, 3, 4, 5, 6})
  void theyFindHowManyGroupsThereAre(int seed) {
    float[][] columns = rows(FIVE, 3, seed);

    Clusters found = Clusters.find(columns, selfOrganising(2, 12, seed), Job.QUIET);

    assertThat(pure(clusterOf(found, columns), FIVE.length)).isGreaterThan(0.97);
    assertThat(found.count()).isBetween(5, 7);
  }

  @Test
  void middlesAndSpreadsAreThoseOfTheGroupsInTheirOwnUnits() {
    float[][] columns = rows(FIVE, 3, 9);

    Clusters found = Clusters.find(columns, ClusterSettings.kMeans(5, 4), Job.QUIET);

    assertThat(found.count()).isEqualTo(5);
    int[] clusterOf = clusterOf(found, columns);
    for (int g = 0; g < FIVE.length; g++) {
      int c = clusterOf[g * PER_GROUP];
      for (int f = 0; f < 2; f++) {
        assertThat(found.mean(c, f)).isCloseTo(FIVE[g][f], within(0.7));
        assertThat(found.spread(c, f)).isCloseTo(3, within(0.4));
      }
      assertThat(found.silhouette(c)).isGreaterThan(0.7);
    }
  }

  @Test
  void aMixtureFindsTheNumberOfLongGroupsThatNearestMiddlesCutThrough() {
    Random random = new Random(3);
    float[][] columns = new float[2][3 * PER_GROUP];
    for (int i = 0; i < columns[0].length; i++) {
      columns[0][i] = (float) (30 * random.nextGaussian());
      columns[1][i] = (float) (12 * (i / PER_GROUP) + 1.5 * random.nextGaussian());
    }
    ClusterSettings settings =
        new ClusterSettings(Method.MIXTURE, 1, 6, 0.5, 0.5, 0.25, 200, true, 2);

    Clusters found = Clusters.find(columns, settings, Job.QUIET);

    assertThat(found.count()).isEqualTo(3);
    assertThat(pure(clusterOf(found, columns), 3)).isGreaterThan(0.97);
    Clusters near = Clusters.find(columns, ClusterSettings.kMeans(3, 2), Job.QUIET);
    assertThat(pure(clusterOf(near, columns), 3)).isLessThan(0.9);
  }

  @Test
  void whatIsNearestAndHowFarApartAreByTheMiddles() {
    float[][] columns = rows(new double[][] {{0, 0}, {10, 10}, {100, 100}}, 1, 5);

    Clusters found = Clusters.find(columns, ClusterSettings.kMeans(3, 1), Job.QUIET);

    assertThat(found.names()).containsExactly("cluster 1", "cluster 2", "cluster 3");
    assertThat(found.mean(0, 0)).isCloseTo(0, within(0.3));
    assertThat(found.nearest(0)).isEqualTo(1);
    assertThat(found.nearest(2)).isEqualTo(1);
    assertThat(found.distance(0, 1) / found.distance(1, 2)).isCloseTo(10.0 / 90, within(0.01));
    assertThat(new HashSet<>(found.colours())).hasSize(3).allMatch(c -> c.matches("#[0-9A-F]{6}"));
  }

  @Test
  void theSameSeedGivesTheSameWhateverTheThreads() {
    float[][] columns = rows(FIVE, 12, 7);
    for (Method method : Method.values()) {
      ClusterSettings settings = new ClusterSettings(method, 3, 7, 0.5, 0.5, 0.25, 20, true, 8);
      Clusters one = Clusters.find(columns, settings, Job.of(1, 512));
      Clusters two = Clusters.find(columns, settings, Job.of(2, 512));
      assertThat(clusterOf(one, columns)).isEqualTo(clusterOf(two, columns));
    }
  }

  @Test
  void unstandardisedTheWiderColumnTells() {
    Random random = new Random(1);
    float[][] columns = new float[2][800];
    for (int i = 0; i < 800; i++) {
      columns[0][i] = (float) ((i % 2) * 1000 + random.nextGaussian());
      columns[1][i] = (float) ((i / 400) * 1.0 + 0.05 * random.nextGaussian());
    }
    ClusterSettings settings = new ClusterSettings(Method.K_MEANS, 2, 2, 0, 1, 0, 50, false, 1);

    Clusters found = Clusters.find(columns, settings, Job.QUIET);

    assertThat(List.of(0, 1, 2, 3))
        .allMatch(i -> found.of(new float[] {columns[0][i], columns[1][i]}) == i % 2);
  }

  @Test
  void whatCannotFormClustersIsSaid() {
    assertThatThrownBy(() -> Clusters.find(
            new float[][] {new float[100], new float[100]},
            ClusterSettings.kMeans(3, 1),
            Job.QUIET))
        .hasMessageContaining("same values");
    assertThatThrownBy(() ->
            Clusters.find(new float[][] {new float[3]}, ClusterSettings.kMeans(3, 1), Job.QUIET))
        .hasMessageContaining("too few");
    assertThatThrownBy(() -> selfOrganising(5, 3, 1)).hasMessageContaining("cannot both be");
  }
}
