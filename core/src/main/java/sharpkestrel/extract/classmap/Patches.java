package sharpkestrel.extract.classmap;

import java.util.Arrays;
import java.util.stream.IntStream;
import sharpkestrel.raster.DisjointSets;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.PairTable;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.raster.Window;
import sharpkestrel.segment.regions.Pieces;

/**
 * What hangs together of each class, side by side, and how small patches are swallowed by a neighbour: the smallest first, each by the one
 * with the longest common border or by the one most alike in the means of a scene's bands. Patches of one class that come to touch that
 * way are one from then on.
 */
public final class Patches {

  private static final int STRIP = 256;

  private final ScratchLabels labels;
  private final int[] classOf;
  private final int[] pixels;
  private final DisjointSets sets;

  /** For each patch where its neighbours begin; {@code next} chains patches that are one, {@code last} is the chain's end. */
  private final int[] starts;

  private final int[] others;
  private final int[] sides;
  private final int[] next;
  private final int[] last;

  /** Sums of each band over each patch, where likeness is asked for. */
  private double[] sums = new double[0];

  private double[] spreads = new double[0];

  private Patches(
      ScratchLabels labels, int[] classOf, int[] pixels, int[] starts, int[] others, int[] sides) {
    this.labels = labels;
    this.classOf = classOf;
    this.pixels = pixels;
    this.starts = starts;
    this.others = others;
    this.sides = sides;
    sets = new DisjointSets(classOf.length);
    next = new int[classOf.length];
    last = new int[classOf.length];
    Arrays.fill(next, -1);
    Arrays.setAll(last, i -> i);
  }

  /**
   * @param classes 0 for none, which is no patch and swallows nothing
   */
  public static Patches of(LabelRaster classes, Job job) {
    ScratchLabels labels = ScratchLabels.of(classes, job);
    int count = Pieces.ofEqual(labels, job);
    int[] classOf = new int[count + 1];
    int[] pixels = new int[count + 1];
    PairTable pairs = new PairTable(0);
    float[] nothing = new float[0];
    Grid grid = labels.grid();
    int[][] rows = new int[2][grid.width()];
    int[] ofClass = new int[grid.width()];
    for (int y = 0; y < grid.height(); y++) {
      job.cancellation().check();
      int[] row = rows[y & 1];
      int[] above = rows[1 - (y & 1)];
      Window line = new Window(0, y, grid.width(), 1);
      labels.read(line, row);
      classes.read(line, ofClass);
      for (int x = 0; x < row.length; x++) {
        classOf[row[x]] = ofClass[x];
        pixels[row[x]]++;
        if (x > 0) {
          touch(pairs, row[x], row[x - 1], nothing);
        }
        if (y > 0) {
          touch(pairs, row[x], above[x], nothing);
        }
      }
    }
    return of(labels, classOf, pixels, pairs.sorted());
  }

  private static void touch(PairTable pairs, int a, int b, float[] nothing) {
    if (a != b && a > 0 && b > 0) {
      pairs.add((long) Math.min(a, b) << 32 | Math.max(a, b), nothing);
    }
  }

  private static Patches of(
      ScratchLabels labels, int[] classOf, int[] pixels, PairTable.Pairs pairs) {
    int[] starts = new int[classOf.length + 1];
    for (long key : pairs.keys()) {
      starts[(int) (key >>> 32) + 1]++;
      starts[(int) key + 1]++;
    }
    for (int i = 0; i < classOf.length; i++) {
      starts[i + 1] += starts[i];
    }
    int[] at = Arrays.copyOf(starts, classOf.length);
    int[] others = new int[starts[classOf.length]];
    int[] sides = new int[others.length];
    for (int p = 0; p < pairs.keys().length; p++) {
      int a = (int) (pairs.keys()[p] >>> 32);
      int b = (int) pairs.keys()[p];
      others[at[a]] = b;
      sides[at[a]++] = pairs.sides()[p];
      others[at[b]] = a;
      sides[at[b]++] = pairs.sides()[p];
    }
    return new Patches(labels, classOf, pixels, starts, others, sides);
  }

  /** How many patches there are. */
  public int count() {
    return classOf.length - 1;
  }

  /** Looks at a scene's bands, so that the neighbour most alike can be told. */
  public void look(Raster scene, Job job) {
    int bands = scene.bands().size();
    sums = new double[bands * classOf.length];
    int[] known = new int[classOf.length];
    double[] all = new double[bands];
    double[] squares = new double[bands];
    long[] total = new long[1];
    Grid grid = labels.grid();
    int strips = Math.ceilDiv(grid.height(), STRIP);
    // each strip is read by some thread, and added in order
    int threads = Math.max(1, job.threads());
    for (int from = 0; from < strips; from += threads) {
      int first = from;
      float[][][] planes = new float[Math.min(threads, strips - from)][][];
      Parallel.run(
          planes.length, job, i -> planes[i] = scene.read(0, strip(first + i), job.request()));
      for (int i = 0; i < planes.length; i++) {
        Window rows = strip(first + i);
        int[] patch = new int[rows.area()];
        labels.read(rows, patch);
        for (int p = 0; p < patch.length; p++) {
          boolean valid = patch[p] > 0;
          for (int b = 0; b < bands && valid; b++) {
            valid = !Float.isNaN(planes[i][b][p]);
          }
          for (int b = 0; b < bands && valid; b++) {
            float v = planes[i][b][p];
            sums[patch[p] * bands + b] += v;
            all[b] += v;
            squares[b] += (double) v * v;
          }
          known[patch[p]] += valid ? 1 : 0;
          total[0] += valid ? 1 : 0;
        }
      }
      job.progress("Looking at patches", first, strips);
    }
    spreads = IntStream.range(0, bands)
        .mapToDouble(b -> Math.sqrt(
            Math.max(1e-12, squares[b] / total[0] - all[b] / total[0] * (all[b] / total[0]))))
        .toArray();
    for (int patch = 0; patch < known.length; patch++) {
      // what has no data counts as its pixels, so that sums stay means times pixels
      double scale = known[patch] == 0 ? 0 : (double) pixels[patch] / known[patch];
      for (int b = 0; b < bands; b++) {
        sums[patch * bands + b] *= scale;
      }
    }
  }

  private Window strip(int place) {
    Grid grid = labels.grid();
    return new Window(0, place * STRIP, grid.width(), STRIP).intersect(grid.window());
  }

  /**
   * Lets neighbours swallow all that are smaller than their class may be.
   *
   * @param least pixels of a patch by class, from 1 on
   */
  public void absorb(double[] least, Job job) {
    long[] queue = IntStream.range(1, classOf.length)
        .filter(i -> pixels[i] < least[classOf[i]])
        .mapToLong(i -> (long) pixels[i] << 32 | i)
        .sorted()
        .toArray();
    java.util.PriorityQueue<Long> grown = new java.util.PriorityQueue<>();
    int[] touching = new int[classOf.length];
    int at = 0;
    while (at < queue.length || !grown.isEmpty()) {
      boolean fromQueue = at < queue.length && (grown.isEmpty() || queue[at] <= grown.peek());
      long entry = fromQueue ? queue[at++] : grown.poll();
      int patch = (int) entry;
      if (sets.root(patch) != patch
          || pixels[patch] != entry >>> 32
          || pixels[patch] >= least[classOf[patch]]) {
        continue;
      }
      if ((at & 0xfff) == 0) {
        job.cancellation().check();
        job.progress("Swallowing small patches", at, queue.length);
      }
      int root = swallow(patch, touching);
      if (root >= 0 && pixels[root] < least[classOf[root]]) {
        grown.add((long) pixels[root] << 32 | root);
      }
    }
  }

  /**
   * @param touching (scratch) 0 in all, before and after
   * @return the patch that it is part of now; -1 where nothing touches it
   */
  private int swallow(int patch, int[] touching) {
    int[] found = new int[8];
    int count = 0;
    for (int member = patch; member >= 0; member = next[member]) {
      for (int i = starts[member]; i < starts[member + 1]; i++) {
        int other = sets.root(others[i]);
        if (other != patch) {
          if (touching[other] == 0) {
            found = count == found.length ? Arrays.copyOf(found, 2 * count) : found;
            found[count++] = other;
          }
          touching[other] += sides[i];
        }
      }
    }
    int best = -1;
    double most = Double.NEGATIVE_INFINITY;
    for (int i = 0; i < count; i++) {
      double value = spreads.length == 0 ? touching[found[i]] : -unlikeness(patch, found[i]);
      if (value > most || value == most && found[i] < best) {
        most = value;
        best = found[i];
      }
    }
    int root = -1;
    if (best >= 0) {
      int ofClass = classOf[best];
      root = join(best, patch, ofClass);
      for (int i = 0; i < count; i++) {
        if (found[i] != best && classOf[found[i]] == ofClass) {
          root = join(root, found[i], ofClass);
        }
      }
    }
    for (int i = 0; i < count; i++) {
      touching[found[i]] = 0;
    }
    return root;
  }

  /** How unlike two patches are: the squared difference of their means, in spreads of each band. */
  private double unlikeness(int a, int b) {
    double sum = 0;
    for (int band = 0; band < spreads.length; band++) {
      double off =
          sums[a * spreads.length + band] / pixels[a] - sums[b * spreads.length + band] / pixels[b];
      sum += off * off / (spreads[band] * spreads[band]);
    }
    return sum;
  }

  private int join(int a, int b, int ofClass) {
    int root = sets.unite(a, b);
    int other = root == a ? b : a;
    next[last[root]] = other;
    last[root] = last[other];
    pixels[root] += pixels[other];
    for (int band = 0; band < spreads.length; band++) {
      sums[root * spreads.length + band] += sums[other * spreads.length + band];
    }
    classOf[root] = ofClass;
    return root;
  }

  /** The classes as they are by now. */
  public ScratchLabels classes(int most, Job job) {
    ScratchLabels classes = new ScratchLabels(labels.grid());
    ClassMap.eachStrip(labels.grid(), job, rows -> {
      int[] values = new int[rows.area()];
      labels.read(rows, values);
      for (int i = 0; i < values.length; i++) {
        values[i] = values[i] == 0 ? 0 : classOf[sets.root(values[i])];
      }
      classes.write(rows, values);
    });
    classes.setMaxLabel(most);
    return classes;
  }

  /** Labels of the patches as they were found, 1 to {@link #count}. */
  public LabelRaster labels() {
    return labels;
  }

  /** The class of a patch as it was found. */
  public int classOf(int patch) {
    return classOf[patch];
  }

  public int pixels(int patch) {
    return pixels[patch];
  }
}
