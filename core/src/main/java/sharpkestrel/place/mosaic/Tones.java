package sharpkestrel.place.mosaic;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.ejml.data.DMatrixRMaj;
import org.ejml.dense.row.factory.LinearSolverFactory_DDRM;
import org.ejml.interfaces.linsol.LinearSolverDense;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Window;

/**
 * Makes the tones of scenes agree where they overlap, for all scenes at once, one of them staying as it is.
 *
 * <p>First the values that the same share of an overlap lies below are made equal: by a gain and an offset, or by a curve
 * between knots, in least squares over all pairs of scenes. Then medians of blocks of ground are made equal by a factor
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

  private static final int PASSES = 8;
  /** How much a curve is held to a straight line, and a trend to none, where little tells. */
  private static final double STIFF = 0.02;

  private static final double HELD = 0.002;

  private final Overview overview;
  private final int anchor;
  private final List<Pair> pairs = new ArrayList<>();

  /** Quantiles of both scenes in their overlap, by band. */
  private record Pair(int one, int two, double weight, double[][] ofOne, double[][] ofTwo) {}

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
    for (int b = 0; b < overview.bands(); b++) {
      if (balance != Balance.NONE) {
        solver.curves(b, balance, tied, tones);
      }
      if (degree > 0) {
        solver.trends(b, degree, metres, tied, tones);
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
    Window common = overview.common(one, two);
    int side = (int) Math.max(1, Math.round(PATCH / metres));
    int across = common.width() / side;
    int down = common.height() / side;
    float[][] ofOne = new float[overview.bands()][across * down];
    float[][] ofTwo = new float[overview.bands()][across * down];
    float[] a = new float[side * side];
    float[] c = new float[side * side];
    int count = 0;
    for (int k = 0; k < across * down; k++) {
      int left = common.x() + k % across * side;
      int top = common.y() + k / across * side;
      int n = 0;
      for (int b = 0; b < overview.bands(); b++) {
        n = overview.gather(one, two, b, new Window(left, top, side, side), a, c);
        if (2 * n < side * side) {
          break;
        }
        ofOne[b][count] = (float) median(a, n);
        ofTwo[b][count] = (float) median(c, n);
      }
      count += 2 * n >= side * side ? 1 : 0;
    }
    if (count < LEAST_PATCHES) {
      return;
    }
    double[][] quantilesOne = new double[overview.bands()][];
    double[][] quantilesTwo = new double[overview.bands()][];
    for (int b = 0; b < overview.bands(); b++) {
      quantilesOne[b] = quantiles(ofOne[b], count);
      quantilesTwo[b] = quantiles(ofTwo[b], count);
    }
    pairs.add(new Pair(one, two, Math.sqrt(count), quantilesOne, quantilesTwo));
  }

  private static double[] quantiles(float[] of, int count) {
    float[] values = Arrays.copyOf(of, count);
    Arrays.sort(values);
    double[] at = new double[SHARES.length];
    Arrays.setAll(at, k -> values[(int) (SHARES[k] * (count - 1))]);
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
    Equations equations = new Equations(unknowns);
    for (Pair pair : pairs) {
      if (!tied[pair.one] || knots[pair.one] == null || knots[pair.two] == null) {
        continue;
      }
      double each = pair.weight / Math.sqrt(SHARES.length);
      for (int q = 0; q < SHARES.length; q++) {
        double[] row = new double[unknowns];
        double right = put(row, first[pair.one], knots[pair.one], pair.ofOne[band][q], each)
            - put(row, first[pair.two], knots[pair.two], pair.ofTwo[band][q], -each);
        equations.add(row, -right);
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
        tones[m][band] = new Tone(knots[m], ascending(to), new double[0]);
        if (!(to[count - 1] > to[0])) {
          throw new RasterException(
              "The tones of scene " + (m + 1) + " run against those of the others in band "
                  + (band + 1) + ": is it the same band? Take it out, or choose no balance.");
        }
      }
    }
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

  private void trends(int band, int degree, double metres, boolean[] tied, Tone[][] tones) {
    List<Median> medians = medians(band, metres, tied, tones);
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
    Equations equations = new Equations(unknowns);
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

  private List<Median> medians(int band, double metres, boolean[] tied, Tone[][] tones) {
    int side = (int) Math.max(1, Math.round(BLOCK / metres));
    List<Median> medians = new ArrayList<>();
    for (Pair pair : pairs) {
      if (!tied[pair.one]) {
        continue;
      }
      Window common = overview.common(pair.one, pair.two);
      float[] one = new float[side * side];
      float[] two = new float[side * side];
      for (int top = common.y(); top + side <= common.bottom(); top += side) {
        for (int left = common.x(); left + side <= common.right(); left += side) {
          int count = overview.gather(
              pair.one, pair.two, band, new Window(left, top, side, side), one, two);
          if (2 * count >= side * side) {
            double x = 2 * (left + side / 2.0) / overview.grid().width() - 1;
            double y = 2 * (top + side / 2.0) / overview.grid().height() - 1;
            medians.add(new Median(
                pair.one,
                pair.two,
                x,
                y,
                tones[pair.one][band].curve(median(one, count)),
                tones[pair.two][band].curve(median(two, count))));
          }
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

  /** Normal equations of a robust fit: what fits badly counts less (Tukey's biweight). */
  private static final class Equations {
    private static final double TUKEY = 4.685;
    private static final double TO_SIGMA = 1.4826;

    private final int unknowns;
    private final List<double[]> rows = new ArrayList<>();
    private final List<Double> right = new ArrayList<>();

    Equations(int unknowns) {
      this.unknowns = unknowns;
    }

    void add(double[] row, double value) {
      rows.add(row);
      right.add(value);
    }

    double[] solve(int passes) {
      double[] weights = new double[rows.size()];
      Arrays.fill(weights, 1);
      double[] x = solved(weights);
      for (int pass = 0; pass < passes; pass++) {
        float[] off = new float[weights.length];
        for (int i = 0; i < off.length; i++) {
          off[i] = (float) Math.abs(residual(i, x));
        }
        double limit = TUKEY * TO_SIGMA * median(off, off.length);
        if (!(limit > 0)) {
          return x;
        }
        for (int i = 0; i < off.length; i++) {
          double u = off[i] / limit;
          weights[i] = u < 1 ? (1 - u * u) * (1 - u * u) : 0;
        }
        x = solved(weights);
      }
      return x;
    }

    private double residual(int i, double[] x) {
      double sum = -right.get(i);
      double[] row = rows.get(i);
      for (int k = 0; k < unknowns; k++) {
        sum += row[k] * x[k];
      }
      return sum;
    }

    private double[] solved(double[] weights) {
      DMatrixRMaj normal = new DMatrixRMaj(unknowns, unknowns);
      DMatrixRMaj side = new DMatrixRMaj(unknowns, 1);
      for (int i = 0; i < weights.length; i++) {
        double[] row = rows.get(i);
        for (int k = 0; k < unknowns; k++) {
          double weighted = weights[i] * row[k];
          if (weighted != 0) {
            for (int j = 0; j < unknowns; j++) {
              normal.add(k, j, weighted * row[j]);
            }
            side.add(k, 0, weighted * right.get(i));
          }
        }
      }
      LinearSolverDense<DMatrixRMaj> solver = LinearSolverFactory_DDRM.symmPosDef(unknowns);
      if (!solver.setA(normal)) {
        throw new RasterException(
            "The overlaps are too alike in tone to balance the scenes by. Choose no balance, or leave the trend out.");
      }
      DMatrixRMaj x = new DMatrixRMaj(unknowns, 1);
      solver.solve(side, x);
      return x.getData().clone();
    }
  }
}
