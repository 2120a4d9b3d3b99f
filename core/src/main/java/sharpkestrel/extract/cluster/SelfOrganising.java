package sharpkestrel.extract.cluster;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.SplittableRandom;
import sharpkestrel.raster.Job;

/**
 * Clusters that split where they are wide, join where they are near, and go where hardly anything belongs to them (Ball and Hall 1965,
 * ISODATA, Stanford Research Institute). Lengths are in spreads of the columns.
 */
final class SelfOrganising {

  /** Pairs that join in one round, at the most. */
  private static final int MOST_PAIRS = 3;

  /** How far the halves of a split cluster begin from its middle, in its spread. */
  private static final double HALF = 0.5;

  private static final double STILL = 0.001;

  private SelfOrganising() {}

  static Centres run(Centres centres, ClusterSettings settings, Job job) {
    centres.begin(
        Math.max(settings.atLeast(), (settings.atLeast() + settings.atMost()) / 2),
        new SplittableRandom(settings.seed()));
    int d = centres.centres.length / centres.count();
    int least = (int) Math.max(1, Math.floor(settings.smallest() / 100 * centres.rows()));
    for (int round = 0; round < settings.iterations(); round++) {
      job.cancellation().check();
      job.progress("Clustering", round, settings.iterations());
      int moved = centres.assign(job);
      centres.move();
      int before = centres.count();
      drop(centres, d, least, settings.atLeast());
      boolean changed = centres.count() < before;
      // the last round leaves clusters as they are
      if (round + 1 < settings.iterations() && !changed) {
        changed = round % 2 == 0
            ? split(centres, d, least, settings) || join(centres, d, settings)
            : join(centres, d, settings) || split(centres, d, least, settings);
      }
      if (!changed && round > 1 && moved <= STILL * centres.rows()) {
        break;
      }
    }
    centres.settle(2, STILL, job);
    return centres;
  }

  private static void drop(Centres centres, int d, int least, int atLeast) {
    List<Integer> small = new ArrayList<>();
    for (int c = 0; c < centres.count(); c++) {
      if (centres.counts[c] < least) {
        small.add(c);
      }
    }
    small.sort((a, b) -> Integer.compare(centres.counts[a], centres.counts[b]));
    int most = Math.max(0, centres.count() - Math.max(1, Math.min(atLeast, centres.count())));
    List<Integer> gone = small.subList(0, Math.min(small.size(), most));
    keep(centres, d, c -> !gone.contains(c), List.of());
  }

  private static void keep(
      Centres centres, int d, java.util.function.IntPredicate wanted, List<float[]> more) {
    List<float[]> kept = new ArrayList<>();
    List<Integer> counts = new ArrayList<>();
    List<double[]> squares = new ArrayList<>();
    for (int c = 0; c < centres.count(); c++) {
      if (wanted.test(c)) {
        kept.add(Arrays.copyOfRange(centres.centres, c * d, (c + 1) * d));
        counts.add(centres.counts[c]);
        squares.add(Arrays.copyOfRange(centres.squares, c * d, (c + 1) * d));
      }
    }
    kept.addAll(more);
    float[] flat = new float[kept.size() * d];
    for (int c = 0; c < kept.size(); c++) {
      System.arraycopy(kept.get(c), 0, flat, c * d, d);
    }
    centres.centres = flat;
    centres.counts = counts.stream().mapToInt(Integer::intValue).toArray();
    centres.squares = squares.stream().flatMapToDouble(Arrays::stream).toArray();
  }

  /** Clusters that are wider than they may be, and looser than most or too few, become two. */
  private static boolean split(Centres centres, int d, int least, ClusterSettings settings) {
    int k = centres.count();
    double[] mean = new double[k];
    double all = 0;
    for (int i = 0; i < centres.rows(); i++) {
      int c = centres.nearest[i];
      if (c >= 0 && c < k) {
        mean[c] += centres.distance[i];
        all += centres.distance[i];
      }
    }
    all /= centres.rows();
    List<Integer> wide = new ArrayList<>();
    List<float[]> halves = new ArrayList<>();
    for (int c = 0; c < k && k + wide.size() < settings.atMost(); c++) {
      int column = 0;
      for (int f = 1; f < d; f++) {
        column = centres.spread(c, f) > centres.spread(c, column) ? f : column;
      }
      double spread = centres.spread(c, column);
      boolean loose = mean[c] / centres.counts[c] > all && centres.counts[c] > 2 * (least + 1);
      if (spread > settings.splitBeyond() && (loose || 2 * k <= settings.atMost())
          || k + wide.size() < settings.atLeast() && centres.counts[c] > 1) {
        wide.add(c);
        for (double side : new double[] {-HALF, HALF}) {
          float[] half = Arrays.copyOfRange(centres.centres, c * d, (c + 1) * d);
          half[column] += (float) (side * spread);
          halves.add(half);
        }
      }
    }
    if (wide.isEmpty()) {
      return false;
    }
    keep(centres, d, c -> !wide.contains(c), halves);
    return true;
  }

  /** Pairs that are nearer than they may be become one, the nearest first, each cluster once. */
  private static boolean join(Centres centres, int d, ClusterSettings settings) {
    int k = centres.count();
    List<double[]> pairs = new ArrayList<>();
    for (int a = 0; a < k; a++) {
      for (int b = a + 1; b < k; b++) {
        double sum = 0;
        for (int f = 0; f < d; f++) {
          double off = centres.centres[a * d + f] - centres.centres[b * d + f];
          sum += off * off;
        }
        double apart = Math.sqrt(sum / d);
        if (apart < settings.joinUnder()) {
          pairs.add(new double[] {apart, a, b});
        }
      }
    }
    pairs.sort((p, q) -> Double.compare(p[0], q[0]));
    boolean[] used = new boolean[k];
    List<float[]> joined = new ArrayList<>();
    for (double[] pair : pairs) {
      int a = (int) pair[1];
      int b = (int) pair[2];
      boolean may = joined.size() < MOST_PAIRS && k - joined.size() > settings.atLeast();
      if (used[a] || used[b] || !may) {
        continue;
      }
      used[a] = true;
      used[b] = true;
      float[] mean = new float[d];
      double total = centres.counts[a] + centres.counts[b];
      for (int f = 0; f < d; f++) {
        mean[f] = (float) ((centres.counts[a] * centres.centres[a * d + f]
                + centres.counts[b] * centres.centres[b * d + f])
            / total);
      }
      joined.add(mean);
    }
    if (joined.isEmpty()) {
      return false;
    }
    keep(centres, d, c -> !used[c], joined);
    return true;
  }
}
