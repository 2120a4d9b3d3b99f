package sharpkestrel.sharpen.pan;

import java.util.ArrayList;
import java.util.List;
import org.ejml.data.DMatrixRMaj;
import org.ejml.dense.row.factory.LinearSolverFactory_DDRM;
import org.ejml.interfaces.linsol.LinearSolverDense;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Window;

/**
 * Measures how far bands lie off the panchromatic one: in patches spread over the scene a band is {@code gain * pan(x + d) +
 * offset}, whose shift is found by least squares on the gradient (Lucas and Kanade 1981, IJCAI, 674-679), three times over;
 * the median of the patches that follow the panchromatic band counts. Good for shifts of up to about two pixels.
 */
final class AlignmentFinder {

  private static final int SIDE = 48;
  private static final int ACROSS = 12;
  private static final int ROUNDS = 4;
  private static final int LEAST = 5;

  /** Correlation, of either sign, from which a patch tells anything of a shift. */
  private static final double FOLLOWS = 0.7;

  /** Shifts below this many pixels are not told from none. */
  private static final double SMALLEST = 0.02;

  private static final double FARTHEST = 3;

  private AlignmentFinder() {}

  static Alignment find(Pair pair, double contrast, Job job) {
    Raster scene = pair.multispectral();
    Raster reduced = Reduced.pan(pair, contrast);
    int n = scene.bands().size();
    int wide = scene.grid().width() - SIDE;
    int high = scene.grid().height() - SIDE;
    Alignment found = Alignment.none(n);
    if (wide < 0 || high < 0) {
      return found;
    }
    int across = Math.min(ACROSS, 1 + 2 * wide / SIDE);
    int down = Math.min(ACROSS, 1 + 2 * high / SIDE);
    for (int round = 0; round < ROUNDS; round++) {
      Raster moved = found.applyTo(scene);
      double[][][] shifts = new double[across * down][][];
      Parallel.run(across * down, job, i -> {
        int x = across == 1 ? wide / 2 : (int) ((long) wide * (i % across) / (across - 1));
        int y = down == 1 ? high / 2 : (int) ((long) high * (i / across) / (down - 1));
        Window patch = new Window(x, y, SIDE, SIDE);
        float[] pan = reduced.read(0, patch, job.request())[0];
        float[][] bands = moved.read(0, patch, job.request());
        shifts[i] = new double[n][];
        for (int b = 0; b < n; b++) {
          shifts[i][b] = shift(bands[b], pan);
        }
      });
      found = add(found, shifts);
    }
    return withoutSmall(found);
  }

  /** Rounded to thousandths, so that settings and figures show the same; shifts too small to be sure of are left out. */
  private static Alignment withoutSmall(Alignment found) {
    double[] right = new double[found.right().length];
    double[] down = new double[right.length];
    for (int b = 0; b < right.length; b++) {
      if (Math.hypot(found.right()[b], found.down()[b]) >= SMALLEST) {
        right[b] = Math.rint(1000 * found.right()[b]) / 1000;
        down[b] = Math.rint(1000 * found.down()[b]) / 1000;
      }
    }
    return new Alignment(right, down);
  }

  private static Alignment add(Alignment before, double[][][] shifts) {
    int n = before.right().length;
    double[] right = before.right().clone();
    double[] down = before.down().clone();
    for (int b = 0; b < n; b++) {
      List<Double> xs = new ArrayList<>();
      List<Double> ys = new ArrayList<>();
      for (double[][] patch : shifts) {
        if (patch[b] != null) {
          xs.add(patch[b][0]);
          ys.add(patch[b][1]);
        }
      }
      if (xs.size() >= LEAST) {
        right[b] += median(xs);
        down[b] += median(ys);
      }
    }
    return new Alignment(right, down);
  }

  private static double median(List<Double> values) {
    double[] sorted = values.stream().mapToDouble(Double::doubleValue).sorted().toArray();
    return (sorted[(sorted.length - 1) / 2] + sorted[sorted.length / 2]) / 2;
  }

  /** Shift of a patch to the right and down; null where it does not follow the panchromatic one or tells no direction. */
  private static double[] shift(float[] band, float[] pan) {
    DMatrixRMaj left = new DMatrixRMaj(4, 4);
    DMatrixRMaj right = new DMatrixRMaj(4, 1);
    double squares = 0;
    double[] row = new double[4];
    for (int y = 1; y < SIDE - 1; y++) {
      for (int x = 1; x < SIDE - 1; x++) {
        int i = y * SIDE + x;
        row[0] = 1;
        row[1] = pan[i];
        row[2] = (pan[i + 1] - pan[i - 1]) / 2;
        row[3] = (pan[i + SIDE] - pan[i - SIDE]) / 2;
        double value = band[i];
        if (Double.isNaN(value + row[1] + row[2] + row[3])) {
          return null;
        }
        squares += value * value;
        for (int r = 0; r < 4; r++) {
          for (int c = 0; c < 4; c++) {
            left.add(r, c, row[r] * row[c]);
          }
          right.add(r, 0, row[r] * value);
        }
      }
    }
    double count = left.get(0, 0);
    double mean = right.get(0, 0) / count;
    double spread = squares - count * mean * mean;
    DMatrixRMaj x = new DMatrixRMaj(4, 1);
    LinearSolverDense<DMatrixRMaj> solver = LinearSolverFactory_DDRM.symmPosDef(4);
    DMatrixRMaj kept = right.copy();
    if (!(spread > 0) || !solver.setA(left.copy())) {
      return null;
    }
    solver.solve(right, x);
    double explained = -count * mean * mean;
    for (int r = 0; r < 4; r++) {
      explained += x.get(r, 0) * kept.get(r, 0);
    }
    double dx = x.get(2, 0) / x.get(1, 0);
    double dy = x.get(3, 0) / x.get(1, 0);
    boolean follows = explained > FOLLOWS * FOLLOWS * spread;
    return follows && Math.hypot(dx, dy) < FARTHEST ? new double[] {dx, dy} : null;
  }
}
