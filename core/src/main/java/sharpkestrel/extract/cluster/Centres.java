package sharpkestrel.extract.cluster;

import java.util.Arrays;
import java.util.SplittableRandom;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;

/**
 * Clusters by their middles: rows go to the nearest. Begun with middles that are drawn far from each other (Arthur and Vassilvitskii 2007,
 * SODA, 1027-1035), then moved to the means of what went to them (Lloyd 1982, IEEE TIT 28(2), 129-137).
 */
final class Centres {

  private static final int CHUNK = 8192;

  private final int d;
  private final float[] rows;
  private final int n;

  /** One after another; fewer or more as clusters join or split. */
  float[] centres;

  final int[] nearest;
  final double[] distance;
  int[] counts;

  /** Sums of squares of each column about the centre, by cluster. */
  double[] squares;

  Centres(float[] rows, int d) {
    this.rows = rows;
    this.d = d;
    n = d == 0 ? 0 : rows.length / d;
    nearest = new int[n];
    distance = new double[n];
  }

  int count() {
    return centres.length / d;
  }

  int rows() {
    return n;
  }

  /** Draws the first middles. */
  void begin(int k, SplittableRandom random) {
    centres = new float[k * d];
    double[] far = new double[n];
    Arrays.fill(far, Double.POSITIVE_INFINITY);
    int at = random.nextInt(n);
    for (int c = 0; c < k; c++) {
      System.arraycopy(rows, at * d, centres, c * d, d);
      double all = 0;
      for (int i = 0; i < n; i++) {
        far[i] = Math.min(far[i], squared(i, c));
        all += far[i];
      }
      if (!(all > 0)) {
        // there are no more than so many different rows
        centres = Arrays.copyOf(centres, (c + 1) * d);
        return;
      }
      double drawn = random.nextDouble() * all;
      at = 0;
      while (at < n - 1 && drawn >= far[at]) {
        drawn -= far[at++];
      }
    }
  }

  double squared(int row, int centre) {
    double sum = 0;
    for (int f = 0; f < d; f++) {
      double off = rows[row * d + f] - centres[centre * d + f];
      sum += off * off;
    }
    return sum;
  }

  /**
   * Sends each row to the nearest middle.
   *
   * @return how many went elsewhere than before
   */
  int assign(Job job) {
    int chunks = Math.ceilDiv(n, CHUNK);
    int[] moved = new int[chunks];
    Parallel.run(chunks, job, chunk -> {
      int k = count();
      for (int i = chunk * CHUNK; i < Math.min(n, (chunk + 1) * CHUNK); i++) {
        int best = 0;
        float least = Float.POSITIVE_INFINITY;
        for (int c = 0; c < k; c++) {
          float sum = 0;
          for (int f = 0; f < d; f++) {
            float off = rows[i * d + f] - centres[c * d + f];
            sum += off * off;
          }
          if (sum < least) {
            least = sum;
            best = c;
          }
        }
        moved[chunk] += nearest[i] == best ? 0 : 1;
        nearest[i] = best;
        distance[i] = Math.sqrt(least);
      }
    });
    return Arrays.stream(moved).sum();
  }

  /** Moves each middle to the mean of what went to it, and looks at how it spreads; one that nothing went to is dropped. */
  void move() {
    int k = count();
    counts = new int[k];
    double[] sums = new double[k * d];
    for (int i = 0; i < n; i++) {
      counts[nearest[i]]++;
      for (int f = 0; f < d; f++) {
        sums[nearest[i] * d + f] += rows[i * d + f];
      }
    }
    int[] place = new int[k];
    int left = 0;
    for (int c = 0; c < k; c++) {
      place[c] = counts[c] == 0 ? -1 : left++;
    }
    float[] moved = new float[left * d];
    int[] kept = new int[left];
    for (int c = 0; c < k; c++) {
      for (int f = 0; f < d && place[c] >= 0; f++) {
        moved[place[c] * d + f] = (float) (sums[c * d + f] / counts[c]);
      }
      if (place[c] >= 0) {
        kept[place[c]] = counts[c];
      }
    }
    centres = moved;
    counts = kept;
    squares = new double[left * d];
    for (int i = 0; i < n; i++) {
      nearest[i] = place[nearest[i]];
      for (int f = 0; f < d; f++) {
        double off = rows[i * d + f] - centres[nearest[i] * d + f];
        squares[nearest[i] * d + f] += off * off;
      }
    }
  }

  /** Until hardly a row goes elsewhere, or so many times. */
  void settle(int iterations, double still, Job job) {
    for (int round = 0; round < iterations; round++) {
      job.cancellation().check();
      int moved = assign(job);
      move();
      if (round > 0 && moved <= still * n) {
        break;
      }
    }
  }

  /** Sum of the squared distances of all rows from their middles. */
  double scatter() {
    return Arrays.stream(squares).sum();
  }

  double spread(int cluster, int column) {
    return Math.sqrt(squares[cluster * d + column] / Math.max(1, counts[cluster]));
  }
}
