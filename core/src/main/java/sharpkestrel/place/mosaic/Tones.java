package sharpkestrel.place.mosaic;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;

/**
 * Makes the tones of scenes agree where they overlap, for all scenes at once, one of them staying as it is.
 *
 * <p>By a gain and an offset medians of small patches of the same ground are made equal, those left out that lie off the line
 * through most of a pair's: what has changed. By a curve between knots the values that the same share of an overlap lies below are
 * made equal. Both in robust least squares over all pairs of scenes. Then medians of blocks of ground are made equal by a factor
 * that changes slowly over each scene, in robust least squares. Both are linear in their unknowns.
 */
final class Tones {

  private static final double[] SHARES = shares();
  private static final int KNOTS = 9;
  /** Metres of a side of the patches of ground whose medians are compared; shadows are smaller than that. */
  private static final double PATCH = 12;
  /** An overlap of fewer patches says nothing. */
  private static final int LEAST_PATCHES = 40;

  /** Metres of a side of the blocks of ground whose medians are compared. */
  static final double BLOCK = 25;

  /** Patches of a pair that are compared, as few and as many as this, by how many numbers that makes in all. */
  private static final int FEWEST_PATCHES = 100;

  private static final int MOST_PATCHES = 4000;
  private static final long MOST_NUMBERS = 4_000_000;

  private static final int PASSES = 8;
  private static final int ROUNDS = 4;
  /** How much a curve is held to a straight line, and a trend to none, where little tells. */
  private static final double STIFF = 0.02;

  private static final double HELD = 0.002;

  private final Overview overview;
  private final int anchor;
  private final List<Pair> pairs = new ArrayList<>();

  /** Quantiles of both scenes in their overlap, by band, its patches of which values are known, and its blocks of ground. */
  private record Pair(
      int one,
      int two,
      double weight,
      double[][] ofOne,
      double[][] ofTwo,
      Overview.Blocks patches,
      int[] known,
      Overview.Blocks blocks) {}

  /** Medians of a block of ground in two scenes, of one band, and where it lies from -1 to 1. */
  private record Median(int one, int two, double x, double y, double ofOne, double ofTwo) {}

  private Tones(Overview overview, int anchor) {
    this.overview = overview;
    this.anchor = anchor;
  }

  private static double[] shares() {
    double[] shares = new double[33];
    Arrays.setAll(shares, i -> 0.02 + 0.03 * i);
    return shares;
  }

  /**
   * @param anchor place of the scene that stays as it is
   * @param degree of the trends
   * @param metres in a pixel of the overview
   * @return by member and band
   */
  static Tone[][] of(
      Overview overview, int anchor, Balance balance, int degree, double metres, Job job) {
    Tone[][] tones = new Tone[overview.members()][overview.bands()];
    for (Tone[] ofMember : tones) {
      Arrays.fill(ofMember, Tone.UNCHANGED);
    }
    if (balance == Balance.NONE && degree == 0) {
      return tones;
    }
    Tones solver = new Tones(overview, anchor);
    solver.compare(metres);
    boolean[] tied = solver.tiedToAnchor();
    for (int m = 0; m < tied.length; m++) {
      if (!tied[m] && !overview.windows().get(m).isEmpty()) {
        job.warn(
            "Scene " + (m + 1)
                + " has no overlap, of its own or through others, with the anchor: its tones stay as they are.");
      }
    }
    // a line is found the better the flatter what it is laid through, and a trend the better the
    // line
    int rounds = balance == Balance.LINEAR && degree > 0 ? ROUNDS : 1;
    for (int b = 0; b < overview.bands(); b++) {
      for (int round = 0; round < rounds; round++) {
        if (balance != Balance.NONE) {
          solver.curves(b, balance, tied, tones);
        }
        if (degree > 0) {
          solver.trends(b, degree, tied, tones);
        }
      }
    }
    return tones;
  }

  private void compare(double metres) {
    for (int one = 0; one < overview.members(); one++) {
      for (int two = one + 1; two < overview.members(); two++) {
        compare(one, two, metres);
      }
    }
  }

  private void compare(int one, int two, double metres) {
    Overview.Blocks patches = overview.blocks(one, two, side(PATCH, metres));
    int[] known = IntStream.range(0, patches.count()).filter(patches::isKnown).toArray();
    if (known.length < LEAST_PATCHES) {
      return;
    }
    double[][] ofOne = new double[overview.bands()][];
    double[][] ofTwo = new double[overview.bands()][];
    for (int b = 0; b < overview.bands(); b++) {
      ofOne[b] = quantiles(patches.ofOne()[b], known);
      ofTwo[b] = quantiles(patches.ofTwo()[b], known);
    }
    pairs.add(new Pair(
        one,
        two,
        Math.sqrt(known.length),
        ofOne,
        ofTwo,
        patches,
        known,
        overview.blocks(one, two, side(BLOCK, metres))));
  }

  /** Pixels in a side of so many metres. */
  static int side(double length, double metres) {
    return (int) Math.max(1, Math.round(length / metres));
  }

  private static double[] quantiles(float[] of, int[] known) {
    float[] values = new float[known.length];
    for (int i = 0; i < values.length; i++) {
      values[i] = of[known[i]];
    }
    Arrays.sort(values);
    double[] at = new double[SHARES.length];
    Arrays.setAll(at, k -> values[(int) (SHARES[k] * (values.length - 1))]);
    return at;
  }

  private boolean[] tiedToAnchor() {
    boolean[] tied = new boolean[overview.members()];
    tied[anchor] = true;
    for (boolean more = true; more; ) {
      more = false;
      for (Pair pair : pairs) {
        if (tied[pair.one] != tied[pair.two]) {
          tied[pair.one] = true;
          tied[pair.two] = true;
          more = true;
        }
      }
    }
    return tied;
  }

  /** Knots of each scene's curve in a band; two for a straight line. */
  private double[][] knots(int band, int count) {
    double[][] knots = new double[overview.members()][];
    for (int m = 0; m < knots.length; m++) {
      double low = Double.POSITIVE_INFINITY;
      double high = Double.NEGATIVE_INFINITY;
      for (Pair pair : pairs) {
        double[] of =
            pair.one == m ? pair.ofOne[band] : pair.two == m ? pair.ofTwo[band] : new double[0];
        for (double v : of) {
          low = Math.min(low, v);
          high = Math.max(high, v);
        }
      }
      if (high > low) {
        knots[m] = new double[count];
        for (int k = 0; k < count; k++) {
          knots[m][k] = low + (high - low) * k / (count - 1);
        }
      }
    }
    return knots;
  }

  private void curves(int band, Balance balance, boolean[] tied, Tone[][] tones) {
    int count = balance == Balance.LINEAR ? 2 : KNOTS;
    double[][] knots = knots(band, count);
    int[] first = new int[overview.members()];
    int unknowns = 0;
    for (int m = 0; m < first.length; m++) {
      boolean free = m != anchor && tied[m] && knots[m] != null;
      first[m] = free ? unknowns : -1;
      unknowns += free ? count : 0;
    }
    if (unknowns == 0) {
      return;
    }
    RobustEquations equations = new RobustEquations(unknowns);
    for (Pair pair : pairs) {
      if (tied[pair.one] && knots[pair.one] != null && knots[pair.two] != null) {
        Same same = balance == Balance.LINEAR
            ? patches(pair, band, unknowns, tones)
            : Same.of(pair.ofOne[band], pair.ofTwo[band]);
        equate(pair, same, knots, first, equations);
      }
    }
    for (int m = 0; m < first.length; m++) {
      double stiff = STIFF * pairs.stream().mapToDouble(Pair::weight).sum();
      for (int k = 1; first[m] >= 0 && k + 1 < count; k++) {
        double[] row = new double[unknowns];
        row[first[m] + k - 1] = stiff;
        row[first[m] + k] = -2 * stiff;
        row[first[m] + k + 1] = stiff;
        equations.add(row, 0);
      }
    }
    double[] solved = equations.solve(2 * PASSES);
    for (int m = 0; m < first.length; m++) {
      if (first[m] >= 0) {
        double[] to = Arrays.copyOfRange(solved, first[m], first[m] + count);
        tones[m][band] = new Tone(knots[m], ascending(to), tones[m][band].trend());
        if (!(to[count - 1] > to[0])) {
          throw new RasterException(
              "The tones of scene " + (m + 1) + " run against those of the others in band "
                  + (band + 1) + ": is it the same band? Take it out, or choose no balance.");
        }
      }
    }
  }

  /**
   * Values of the one and of the other scene that are to become equal.
   *
   * @param ofOne (input) value of the one scene
   * @param factorOfOne (input) what its trend makes of it
   */
  private record Same(double[] ofOne, double[] ofTwo, double[] factorOfOne, double[] factorOfTwo) {

    static Same of(double[] one, double[] two) {
      double[] as = new double[one.length];
      Arrays.fill(as, 1);
      return new Same(one, two, as, as);
    }
  }

  private static void equate(
      Pair pair, Same same, double[][] knots, int[] first, RobustEquations equations) {
    int count = same.ofOne.length;
    double each = pair.weight / Math.sqrt(count);
    for (int q = 0; q < count; q++) {
      double[] row = equations.row();
      double right = put(
              row, first[pair.one], knots[pair.one], same.ofOne[q], each * same.factorOfOne[q])
          - put(row, first[pair.two], knots[pair.two], same.ofTwo[q], -each * same.factorOfTwo[q]);
      equations.add(row, -right);
    }
  }

  /** Patches of ground in both scenes, evenly taken from all that have not changed. */
  private Same patches(Pair pair, int band, int unknowns, Tone[][] tones) {
    long most =
        Math.clamp(MOST_NUMBERS / ((long) unknowns * pairs.size()), FEWEST_PATCHES, MOST_PATCHES);
    int count = (int) Math.min(most, pair.known.length);
    Overview.Blocks patches = pair.patches;
    double[][] all = new double[4][count];
    double[] flatOne = new double[count];
    double[] flatTwo = new double[count];
    for (int k = 0; k < count; k++) {
      int patch = pair.known[(int) ((long) k * pair.known.length / count)];
      double x = patches.x()[patch];
      double y = patches.y()[patch];
      all[0][k] = patches.ofOne()[band][patch];
      all[1][k] = patches.ofTwo()[band][patch];
      all[2][k] = tones[pair.one][band].factor(x, y);
      all[3][k] = tones[pair.two][band].factor(x, y);
      flatOne[k] = all[0][k] * all[2][k];
      flatTwo[k] = all[1][k] * all[3][k];
    }
    int[] steady = MedianLine.through(flatOne, flatTwo).near(flatOne, flatTwo);
    double[][] kept = Arrays.stream(all)
        .map(values -> Arrays.stream(steady).mapToDouble(k -> values[k]).toArray())
        .toArray(double[][]::new);
    return new Same(kept[0], kept[1], kept[2], kept[3]);
  }

  /** What a value becomes, in terms of the curve's values at its knots; what is known of it already is returned. */
  private static double put(double[] row, int first, double[] knots, double value, double weight) {
    if (first < 0) {
      return Math.abs(weight) * value;
    }
    int k = 1;
    while (k + 1 < knots.length && value > knots[k]) {
      k++;
    }
    double share = (value - knots[k - 1]) / (knots[k] - knots[k - 1]);
    row[first + k - 1] += weight * (1 - share);
    row[first + k] += weight * share;
    return 0;
  }

  /** Neighbours that descend take their mean, until none does. */
  private static double[] ascending(double[] values) {
    double[] sums = new double[values.length];
    int[] counts = new int[values.length];
    int n = 0;
    for (double v : values) {
      sums[n] = v;
      counts[n++] = 1;
      while (n > 1 && sums[n - 2] / counts[n - 2] > sums[n - 1] / counts[n - 1]) {
        sums[n - 2] += sums[n - 1];
        counts[n - 2] += counts[n - 1];
        n--;
      }
    }
    double[] rising = new double[values.length];
    int at = 0;
    for (int k = 0; k < n; k++) {
      for (int i = 0; i < counts[k]; i++) {
        rising[at++] = sums[k] / counts[k];
      }
    }
    return rising;
  }

  private void trends(int band, int degree, boolean[] tied, Tone[][] tones) {
    List<Median> medians = medians(band, tied, tones);
    int terms = Tone.terms(degree);
    int[] first = new int[overview.members()];
    int unknowns = 0;
    for (int m = 0; m < first.length; m++) {
      int member = m;
      boolean free =
          m != anchor && medians.stream().anyMatch(p -> p.one == member || p.two == member);
      first[m] = free ? unknowns : -1;
      unknowns += free ? terms : 0;
    }
    if (unknowns == 0) {
      return;
    }
    RobustEquations equations = new RobustEquations(unknowns);
    double sum = 0;
    for (Median pair : medians) {
      double[] row = new double[unknowns];
      for (int k = 0; k < terms; k++) {
        double term = Tone.term(k, pair.x, pair.y);
        if (first[pair.one] >= 0) {
          row[first[pair.one] + k] = pair.ofOne * term;
        }
        if (first[pair.two] >= 0) {
          row[first[pair.two] + k] = -pair.ofTwo * term;
        }
      }
      sum += Math.abs(pair.ofOne);
      equations.add(row, pair.ofTwo - pair.ofOne);
    }
    for (int k = 0; k < unknowns; k++) {
      double[] row = new double[unknowns];
      row[k] = Math.sqrt(HELD) * sum / Math.sqrt(medians.size());
      equations.add(row, 0);
    }
    double[] solved = equations.solve(PASSES);
    for (int m = 0; m < first.length; m++) {
      if (first[m] >= 0) {
        tones[m][band] =
            tones[m][band].with(Arrays.copyOfRange(solved, first[m], first[m] + terms));
      }
    }
  }

  private List<Median> medians(int band, boolean[] tied, Tone[][] tones) {
    List<Median> medians = new ArrayList<>();
    for (Pair pair : pairs) {
      Overview.Blocks blocks = pair.blocks;
      for (int k = 0; tied[pair.one] && k < blocks.count(); k++) {
        if (blocks.isKnown(k)) {
          medians.add(new Median(
              pair.one,
              pair.two,
              blocks.x()[k],
              blocks.y()[k],
              tones[pair.one][band].curve(blocks.ofOne()[band][k]),
              tones[pair.two][band].curve(blocks.ofTwo()[band][k])));
        }
      }
    }
    return medians;
  }

  static double median(float[] values, int count) {
    float[] sorted = Arrays.copyOf(values, count);
    Arrays.sort(sorted);
    return count % 2 == 1
        ? sorted[count / 2]
        : 0.5 * ((double) sorted[count / 2 - 1] + sorted[count / 2]);
  }
}
