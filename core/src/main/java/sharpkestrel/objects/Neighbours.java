package sharpkestrel.objects;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.PairTable;

/** Which objects touch which, and along how many pixel sides: a graph in flat arrays, both ways. */
public final class Neighbours {

  private final int[] starts;
  private final int[] others;
  private final int[] sides;

  private Neighbours(int[] starts, int[] others, int[] sides) {
    this.starts = starts;
    this.others = others;
    this.sides = sides;
  }

  /** Of a set's objects, in one pass over its labels. */
  public static Neighbours of(ObjectSet set, Job job) {
    BorderFeatures borders = new BorderFeatures(set.count(), 0, 0, Optional.empty());
    ObjectStrips.run(set, ObjectGeometry.of(set), List.of(), List.of(borders), job);
    return borders.neighbours();
  }

  static Neighbours of(int objects, PairTable.Pairs pairs) {
    int[] starts = new int[objects + 1];
    for (long key : pairs.keys()) {
      starts[(int) (key >>> 32) + 1]++;
      starts[(int) key + 1]++;
    }
    for (int i = 0; i < objects; i++) {
      starts[i + 1] += starts[i];
    }
    int[] next = Arrays.copyOf(starts, objects);
    int[] others = new int[starts[objects]];
    int[] sides = new int[starts[objects]];
    for (int p = 0; p < pairs.keys().length; p++) {
      int a = (int) (pairs.keys()[p] >>> 32);
      int b = (int) pairs.keys()[p];
      others[next[a]] = b;
      sides[next[a]++] = pairs.sides()[p];
      others[next[b]] = a;
      sides[next[b]++] = pairs.sides()[p];
    }
    return new Neighbours(starts, others, sides);
  }

  public int count(int object) {
    return starts[object + 1] - starts[object];
  }

  /** The k-th neighbour of an object. */
  public int neighbour(int object, int k) {
    return others[starts[object] + k];
  }

  /** Pixel sides along which an object touches its k-th neighbour. */
  public int sides(int object, int k) {
    return sides[starts[object] + k];
  }

  /** Mean of a value over the neighbours, each as much as its share of the common border; NaN where there are none. */
  double mean(int object, double[] values) {
    double sum = 0;
    double total = 0;
    for (int i = starts[object]; i < starts[object + 1]; i++) {
      double value = values[others[i]];
      if (!Double.isNaN(value)) {
        sum += sides[i] * value;
        total += sides[i];
      }
    }
    return total == 0 ? Double.NaN : sum / total;
  }
}
