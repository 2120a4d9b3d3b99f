package sharpkestrel.raster;

import java.util.Arrays;

/**
 * A plane resampled along its rows at once, and along its columns as rows of the result are asked for: what is done with a
 * row next finds it in the processor's cache. Where some of the pixels under a place are no-data the weights of the others
 * are used alone, as long as they carry at least half; else the result is no-data. At the edges of the other grid the weights
 * within it are used alone, for places on it.
 *
 * <p>Every row is an array of its own: the compiler does several pixels at once only where all arrays of a loop are read and
 * written at the same index, as it cannot rule out otherwise that they overlap.
 */
public final class Separable {

  /** Less than this share of the weights does not make a value. */
  private static final float HALF = 0.499f;

  private final Taps down;
  private final float[][] middle;
  private final float[][] known;
  private final float[][] valid;

  /** Which rows some no-data has spoilt. */
  private final boolean[] spoilt;

  private final float[] insideAcross;
  private final float[] insideDown;

  /**
   * @param in (input) the pixels of {@link #needed}, row by row; NaN is no-data
   * @param grid all pixels that the other grid has
   */
  public Separable(float[] in, Taps across, Taps down, Window grid) {
    this.down = down;
    insideAcross = across.inside(grid.x(), grid.right());
    insideDown = down.inside(grid.y(), grid.bottom());
    middle = rows(in, across, down);
    boolean holes = Planes.hasNaN(in);
    valid = holes ? rows(mask(in), across, down) : null;
    known = holes ? rows(filled(in), across, down) : null;
    spoilt = new boolean[middle.length];
    for (int row = 0; row < spoilt.length && holes; row++) {
      spoilt[row] = Planes.hasNaN(middle[row]);
    }
  }

  /** The pixels needed for all places. */
  public static Window needed(Taps across, Taps down) {
    return new Window(
        across.low(), down.low(), across.high() - across.low(), down.high() - down.low());
  }

  /**
   * @param in (input) the pixels of {@link #needed}, row by row; NaN is no-data
   * @param out (output) {@code down.count()} rows of {@code across.count()}
   */
  public static void resample(float[] in, Taps across, Taps down, Window grid, float[] out) {
    new Separable(in, across, down, grid).all(out);
  }

  /**
   * @param out (output) all rows of the result, one behind the other
   */
  public void all(float[] out) {
    int width = middle[0].length;
    float[] row = new float[width];
    for (int y = 0; y < down.count(); y++) {
      row(y, row);
      System.arraycopy(row, 0, out, y * width, width);
    }
  }

  /**
   * @param out (output) a row of the result
   */
  public void row(int y, float[] out) {
    columns(middle, y, out);
    int first = down.first()[y] - down.low();
    for (int k = 0; k < down.size(); k++) {
      if (spoilt[first + k]) {
        mend(y, out);
        return;
      }
    }
  }

  private static float[] mask(float[] in) {
    float[] mask = new float[in.length];
    for (int i = 0; i < in.length; i++) {
      mask[i] = Float.isNaN(in[i]) ? 0 : 1;
    }
    return mask;
  }

  private static float[] filled(float[] in) {
    float[] filled = new float[in.length];
    for (int i = 0; i < in.length; i++) {
      filled[i] = Float.isNaN(in[i]) ? 0 : in[i];
    }
    return filled;
  }

  /** Values from what is valid under them, for those that some no-data has spoilt. */
  private void mend(int y, float[] out) {
    if (insideDown[y] < HALF) {
      return;
    }
    for (int i = 0; i < out.length; i++) {
      if (Float.isNaN(out[i]) && insideAcross[i] >= HALF) {
        float share = sum(valid, y, i);
        if (share >= HALF * insideAcross[i] * insideDown[y]) {
          out[i] = sum(known, y, i) / share;
        }
      }
    }
  }

  private float sum(float[][] from, int y, int x) {
    float[] w = down.weights();
    int first = down.first()[y] - down.low();
    int j = y * down.size();
    float sum = 0;
    for (int k = 0; k < down.size(); k++) {
      sum += w[j + k] * from[first + k][x];
    }
    return sum;
  }

  private static float[][] rows(float[] in, Taps taps, Taps down) {
    int rows = down.high() - down.low();
    int inWidth = taps.high() - taps.low();
    float[][] out = new float[rows][taps.count()];
    int period = taps.size() == 4 ? taps.period() : 0;
    float[][] under = new float[4][period == 0 ? 0 : taps.count() / period + 1];
    float[] phase = new float[under[0].length];
    for (int row = 0; row < rows; row++) {
      int from = row * inWidth - taps.low();
      for (int p = 0; p < period; p++) {
        onePhase(in, from, taps, p, under, phase, out[row]);
      }
      if (period == 0) {
        row(in, from, taps, out[row]);
      }
    }
    return out;
  }

  /** Every so many places the same weights lie over the next pixel: those places together, pixel by pixel. */
  private static void onePhase(
      float[] in, int from, Taps taps, int place, float[][] under, float[] phase, float[] out) {
    float[] w = taps.weights();
    int count = Math.ceilDiv(taps.count() - place, taps.period());
    int j = 4 * place;
    for (int k = 0; k < 4; k++) {
      System.arraycopy(in, from + taps.first()[place] + k, under[k], 0, count);
    }
    four(under[0], under[1], under[2], under[3], w[j], w[j + 1], w[j + 2], w[j + 3], phase);
    spread(phase, count, out, place, taps.period());
  }

  private static void spread(float[] phase, int count, float[] out, int to, int step) {
    for (int k = 0, x = to; k < count; k++, x += step) {
      out[x] = phase[k];
    }
  }

  private static void row(float[] in, int from, Taps taps, float[] out) {
    int[] first = taps.first();
    float[] w = taps.weights();
    int size = taps.size();
    for (int x = 0; x < first.length; x++) {
      int at = from + first[x];
      int j = x * size;
      float sum = w[j] * in[at];
      for (int k = 1; k < size; k++) {
        sum += w[j + k] * in[at + k];
      }
      out[x] = sum;
    }
  }

  private void columns(float[][] from, int y, float[] out) {
    float[] w = down.weights();
    int size = down.size();
    int first = down.first()[y] - down.low();
    int j = y * size;
    if (size == 4) {
      four(
          from[first],
          from[first + 1],
          from[first + 2],
          from[first + 3],
          w[j],
          w[j + 1],
          w[j + 2],
          w[j + 3],
          out);
      return;
    }
    Arrays.fill(out, 0);
    for (int k = 0; k < size; k++) {
      add(from[first + k], w[j + k], out);
    }
  }

  private static void four(
      float[] a,
      float[] b,
      float[] c,
      float[] d,
      float wa,
      float wb,
      float wc,
      float wd,
      float[] out) {
    for (int x = 0; x < out.length; x++) {
      out[x] = wa * a[x] + wb * b[x] + wc * c[x] + wd * d[x];
    }
  }

  private static void add(float[] in, float weight, float[] out) {
    for (int x = 0; x < out.length; x++) {
      out[x] += weight * in[x];
    }
  }
}
