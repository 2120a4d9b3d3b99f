package sharpkestrel.extract.cluster;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.SplittableRandom;
import java.util.stream.IntStream;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;

/**
 * Groups of rows that form of themselves, in the order of how bright they are in all columns together, and what is known of them.
 *
 * @param middles of each cluster, scaled
 * @param shares of the rows looked at that each has
 * @param silhouettes how much nearer rows lie to their own cluster than to the next, -1 to 1, on a sample (Rousseeuw 1987)
 */
public final class Clusters {

  /** Rows on which silhouettes are looked at. */
  private static final int SILHOUETTE_ROWS = 600;

  private static final int STARTS = 3;
  private static final int START_ROWS = 20_000;
  private static final double STILL = 0.0005;

  /** Which cluster a scaled row belongs to. */
  interface Rule {
    int count();

    int of(float[] row);

    float[] middle(int cluster, int d);
  }

  /** The nearest middle. */
  private record Nearest(float[] centres, int d) implements Rule {

    @Override
    public int count() {
      return centres.length / d;
    }

    @Override
    public int of(float[] row) {
      int best = 0;
      float least = Float.POSITIVE_INFINITY;
      for (int c = 0; c < centres.length; c += d) {
        float sum = 0;
        for (int f = 0; f < d; f++) {
          float off = row[f] - centres[c + f];
          sum += off * off;
        }
        if (sum < least) {
          least = sum;
          best = c / d;
        }
      }
      return best;
    }

    @Override
    public float[] middle(int cluster, int width) {
      return Arrays.copyOfRange(centres, cluster * d, (cluster + 1) * d);
    }
  }

  private final Scaling scaling;
  private final Rule rule;

  /** The place of each of the rule's clusters in the order in which they are told. */
  private final int[] place;

  private final float[][] middles;
  private final double[][] spreads;
  private final double[] silhouettes;

  private Clusters(
      Scaling scaling,
      Rule rule,
      int[] place,
      float[][] middles,
      double[][] spreads,
      double[] silhouettes) {
    this.scaling = scaling;
    this.rule = rule;
    this.place = place;
    this.middles = middles;
    this.spreads = spreads;
    this.silhouettes = silhouettes;
  }

  /**
   * Finds clusters.
   *
   * @param columns of what is told by, NaN counts as the mean
   * @throws RasterException where nothing varies, or there are hardly any rows
   */
  public static Clusters find(float[][] columns, ClusterSettings settings, Job job) {
    int n = columns.length == 0 ? 0 : columns[0].length;
    if (n < 2 * settings.atLeast()) {
      throw new RasterException("There are " + n + " with data to form clusters of, too few for "
          + settings.atLeast() + ". Take a larger area, or fewer clusters (at-least).");
    }
    Scaling scaling = Scaling.of(columns, settings.standardise());
    if (!scaling.varies()) {
      throw new RasterException(
          "All have the same values, so that there are no clusters. Take other bands or features.");
    }
    float[] rows = scaling.rows(columns);
    int d = columns.length;
    Rule rule = switch (settings.method()) {
      case SELF_ORGANISING ->
        new Nearest(SelfOrganising.run(new Centres(rows, d), settings, job).centres, d);
      case K_MEANS -> new Nearest(kMeans(rows, d, settings, job), d);
      case MIXTURE -> Mixture.of(thinned(rows, d, Mixture.MOST_ROWS), d, settings, job);
    };
    return told(scaling, rule, rows, d, settings.seed());
  }

  private static float[] thinned(float[] rows, int d, int most) {
    int n = rows.length / d;
    if (n <= most) {
      return rows;
    }
    float[] some = new float[most * d];
    for (int i = 0; i < most; i++) {
      System.arraycopy(rows, (int) ((long) i * n / most) * d, some, i * d, d);
    }
    return some;
  }

  private static float[] kMeans(float[] rows, int d, ClusterSettings settings, Job job) {
    // the starts are tried on some of the rows; all of them then go on from the best
    float[] some = thinned(rows, d, START_ROWS);
    float[] best = null;
    double least = Double.POSITIVE_INFINITY;
    SplittableRandom random = new SplittableRandom(settings.seed());
    for (int start = 0; start < STARTS; start++) {
      Centres centres = new Centres(some, d);
      centres.begin(settings.atMost(), random);
      centres.settle(settings.iterations(), STILL, job);
      job.progress("Clustering", start + 1, STARTS);
      if (centres.scatter() < least) {
        least = centres.scatter();
        best = centres.centres;
      }
    }
    if (some != rows) {
      Centres all = new Centres(rows, d);
      all.centres = best;
      all.settle(settings.iterations(), STILL, job);
      best = all.centres;
    }
    return best;
  }

  private static Clusters told(Scaling scaling, Rule rule, float[] rows, int d, int seed) {
    int k = rule.count();
    int n = rows.length / d;
    int[] clusterOf = new int[n];
    int[] counts = new int[k];
    double[][] sums = new double[k][d];
    double[][] squares = new double[k][d];
    float[] row = new float[d];
    for (int i = 0; i < n; i++) {
      System.arraycopy(rows, i * d, row, 0, d);
      int c = rule.of(row);
      clusterOf[i] = c;
      counts[c]++;
      for (int f = 0; f < d; f++) {
        sums[c][f] += row[f];
        squares[c][f] += (double) row[f] * row[f];
      }
    }
    double[] light = new double[k];
    for (int c = 0; c < k; c++) {
      for (int f = 0; f < d; f++) {
        light[c] += rule.middle(c, d)[f];
      }
    }
    int[] order = IntStream.range(0, k)
        .filter(c -> counts[c] > 0)
        .boxed()
        .sorted(Comparator.comparingDouble((Integer c) -> light[c]))
        .mapToInt(Integer::intValue)
        .toArray();
    int[] place = new int[k];
    Arrays.fill(place, -1);
    float[][] middles = new float[order.length][];
    double[][] spreads = new double[order.length][d];
    for (int p = 0; p < order.length; p++) {
      int c = order[p];
      place[c] = p;
      middles[p] = rule.middle(c, d);
      for (int f = 0; f < d; f++) {
        double mean = sums[c][f] / counts[c];
        spreads[p][f] = Math.sqrt(Math.max(0, squares[c][f] / counts[c] - mean * mean));
      }
    }
    int[] told = Arrays.stream(clusterOf).map(c -> place[c]).toArray();
    double[] silhouettes = silhouettes(rows, d, told, order.length, seed);
    return new Clusters(scaling, rule, place, middles, spreads, silhouettes);
  }

  private static double[] silhouettes(float[] rows, int d, int[] clusterOf, int k, int seed) {
    int n = clusterOf.length;
    int[] some =
        new SplittableRandom(seed).ints(Math.min(n, SILHOUETTE_ROWS), 0, n).toArray();
    double[] sums = new double[k];
    int[] counts = new int[k];
    for (int i : some) {
      double[] away = new double[k];
      int[] there = new int[k];
      for (int j : some) {
        if (j != i) {
          double square = 0;
          for (int f = 0; f < d; f++) {
            double off = rows[i * d + f] - rows[j * d + f];
            square += off * off;
          }
          away[clusterOf[j]] += Math.sqrt(square);
          there[clusterOf[j]]++;
        }
      }
      int own = clusterOf[i];
      double next = Double.POSITIVE_INFINITY;
      for (int c = 0; c < k; c++) {
        next = c != own && there[c] > 0 ? Math.min(next, away[c] / there[c]) : next;
      }
      if (there[own] > 0 && next < Double.POSITIVE_INFINITY) {
        double within = away[own] / there[own];
        sums[own] += (next - within) / Math.max(1e-12, Math.max(next, within));
        counts[own]++;
      }
    }
    return IntStream.range(0, k).mapToDouble(c -> sums[c] / counts[c]).toArray();
  }

  public int count() {
    return middles.length;
  }

  /**
   * The cluster of a row, from 0 on.
   *
   * @param row (modified) as columns have it; scaled afterwards
   */
  public int of(float[] row) {
    scaling.apply(row);
    int found = place[rule.of(row)];
    return Math.max(0, found);
  }

  /** The middle of a cluster in a column's own unit. */
  public double mean(int cluster, int column) {
    float per = scaling.perSpreads()[column];
    return per == 0
        ? scaling.means()[column]
        : scaling.means()[column] + middles[cluster][column] / per;
  }

  /** The standard deviation within a cluster in a column's own unit. */
  public double spread(int cluster, int column) {
    float per = scaling.perSpreads()[column];
    return per == 0 ? 0 : spreads[cluster][column] / per;
  }

  /** How much nearer the rows of a cluster lie to each other than to the next one; NaN where too few were looked at. */
  public double silhouette(int cluster) {
    return silhouettes[cluster];
  }

  /** The cluster whose middle is nearest to that of another; -1 where there is one alone. */
  public int nearest(int cluster) {
    int best = -1;
    for (int other = 0; other < middles.length; other++) {
      if (other != cluster && (best < 0 || distance(cluster, other) < distance(cluster, best))) {
        best = other;
      }
    }
    return best;
  }

  /** Between the middles of two clusters, in spreads: the mean over the columns. */
  public double distance(int a, int b) {
    double sum = 0;
    for (int f = 0; f < middles[a].length; f++) {
      double off = middles[a][f] - middles[b][f];
      sum += off * off;
    }
    return Math.sqrt(sum / middles[a].length);
  }

  /** Colours that are alike for clusters that are alike. */
  public List<String> colours() {
    return LikeColours.of(middles);
  }

  /** Names by which they are known until they get others. */
  public List<String> names() {
    List<String> names = new ArrayList<>();
    for (int c = 1; c <= count(); c++) {
      names.add("cluster " + c);
    }
    return names;
  }
}
