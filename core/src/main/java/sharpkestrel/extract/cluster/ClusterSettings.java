package sharpkestrel.extract.cluster;

import sharpkestrel.step.Setting;

/** How clusters form. */
public record ClusterSettings(
    @Setting(
        label = "Method",
        does =
            "self_organising: clusters split where they are wide and join where they are near; k_means: as many as at most are told;"
                + " mixture: normal distributions, their number by what the data bear (Bayesian information).",
        initial = "self_organising")
    Method method,

    @Setting(label = "At least", does = "Fewest clusters.", min = 1, max = 200, initial = "5")
    int atLeast,

    @Setting(
        label = "At most",
        does = "Most clusters; of k_means their number.",
        min = 1,
        max = 200,
        initial = "10")
    int atMost,

    @Setting(
        label = "Smallest share",
        does = "Clusters that have less of all are given up.",
        unit = "%",
        min = 0,
        max = 50,
        initial = "0.5",
        when = "method=self_organising")
    double smallest,

    @Setting(
        label = "Split beyond",
        does =
            "A cluster that is wider in some band splits: its standard deviation there, as a share of that of all.",
        min = 0.01,
        max = 10,
        initial = "0.5",
        when = "method=self_organising")
    double splitBeyond,

    @Setting(
        label = "Join under",
        does =
            "Clusters whose middles are nearer become one: their mean difference over the bands, as a share of the standard deviation of"
                + " all.",
        min = 0,
        max = 10,
        initial = "0.25",
        when = "method=self_organising")
    double joinUnder,

    @Setting(
        label = "Iterations",
        does = "Most rounds; fewer where nothing moves any more.",
        min = 1,
        max = 1000,
        initial = "20")
    int iterations,

    @Setting(
        label = "Standardise",
        does = "Whether all bands count the same; else those that vary more count more.",
        initial = "true")
    boolean standardise,

    @Setting(
        label = "Seed",
        does = "Start of what is drawn by chance; the same gives the same clusters.",
        min = 0,
        max = 1e9,
        initial = "1")
    int seed) {

  /** How clusters form. */
  public enum Method {
    SELF_ORGANISING,
    K_MEANS,
    MIXTURE
  }

  public ClusterSettings {
    if (atLeast > atMost) {
      throw new IllegalArgumentException("At least " + atLeast + " clusters and at most " + atMost
          + " cannot both be; let the first be the smaller.");
    }
  }

  /** A fixed number by k-means. */
  public static ClusterSettings kMeans(int k, int seed) {
    return new ClusterSettings(Method.K_MEANS, k, k, 0, 1, 0, 100, true, seed);
  }
}
