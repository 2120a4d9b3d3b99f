package sharpkestrel.segment.regions;

import java.util.Arrays;
import sharpkestrel.raster.Window;

/**
 * The climb of one pixel after the other to the middle of what is alike around it.
 *
 * <p>Whether a pixel is near is as good as random, so nothing branches on it: a mask of all ones or zeros lets each pixel of the
 * square into the sums or not. Near is what has {@code |c - a|² < 1}, or {@code c·a - |c|²/2 > (|a|² - 1)/2} with the left part
 * known beforehand. Two bands share a number of 64 bits in the sums, the upper in steps of 2^32; what was added is told
 * apart by taking away as many times the middle of the ball, from which all that is near differs by less than one.
 */
final class Climb {

  /** Fixed-point steps of the ball's half-width; a square of 61 x 61 pixels of them stays below 2^31. */
  private static final double STEPS = 1 << 18;

  /** Square of the step in colour under which a climb is over. */
  private static final double STILL = 0.05 * 0.05;

  /** In the sum of where the near pixels lie: columns from bit 0, rows from bit 20, their count from bit 40. */
  private static final int ROWS = 20;

  private static final int COUNT = 40;
  private static final long MASK = (1L << ROWS) - 1;

  private final int bands;
  private final int pairs;
  private final int radius;
  private final int iterations;

  /** Pixels of a row, with a margin of the radius on both sides. */
  private final int stride;

  /** Pixel by pixel its bands in half-widths of the ball; zeros for no-data. */
  private final double[] colours;

  /** Half of the squared length of each colour, below zero; minus infinity for no-data, which is near to nothing. */
  private final double[] halves;

  /** Pixel by pixel its pairs of bands in fixed point. */
  private final long[] packed;

  private final double[] at;
  private final long[] sums;
  private long places;

  /**
   * @param planes (input) the samples of a window by band; no-data where any is not finite
   * @param scales how many half-widths of the ball a unit of each band is
   */
  Climb(float[][] planes, float[] scales, Window window, int radius, int iterations) {
    bands = planes.length;
    pairs = (bands + 1) / 2;
    this.radius = radius;
    this.iterations = iterations;
    stride = window.width() + 2 * radius;
    int pixels = stride * (window.height() + 2 * radius);
    colours = new double[pixels * bands];
    halves = new double[pixels];
    packed = new long[pixels * pairs];
    at = new double[bands];
    sums = new long[pairs];
    Arrays.fill(halves, Double.NEGATIVE_INFINITY);
    for (int y = 0; y < window.height(); y++) {
      for (int x = 0; x < window.width(); x++) {
        set(place(x, y), planes, y * window.width() + x, scales);
      }
    }
  }

  private int place(int x, int y) {
    return (y + radius) * stride + x + radius;
  }

  private void set(int place, float[][] planes, int pixel, float[] scales) {
    double squares = 0;
    for (int b = 0; b < bands; b++) {
      float value = planes[b][pixel] * scales[b];
      if (!Float.isFinite(value)) {
        Arrays.fill(colours, place * bands, place * bands + b, 0);
        return;
      }
      colours[place * bands + b] = value;
      squares += (double) value * value;
    }
    halves[place] = -squares / 2;
    for (int p = 0; p < pairs; p++) {
      packed[place * pairs + p] = pair(colours, place * bands, p);
    }
  }

  /** A pair of bands of the colour that begins at {@code from} in fixed point. */
  private long pair(double[] from, int start, int p) {
    long low = Math.round(from[start + 2 * p] * STEPS);
    return 2 * p + 1 < bands ? low + (Math.round(from[start + 2 * p + 1] * STEPS) << 32) : low;
  }

  /** The number of a band, in half-widths of the ball, that the last climb ended at. */
  double at(int band) {
    return at[band];
  }

  /** Climbs from a pixel of the window; false where it has no data. */
  boolean from(int x, int y) {
    int place = place(x, y);
    if (halves[place] == Double.NEGATIVE_INFINITY) {
      return false;
    }
    System.arraycopy(colours, place * bands, at, 0, bands);
    double middleX = x;
    double middleY = y;
    for (int i = 0; i < iterations; i++) {
      int left = (int) Math.round(middleX) - radius;
      int top = (int) Math.round(middleY) - radius;
      add(place(left, top));
      int count = (int) (places >> COUNT);
      if (count == 0) {
        return true;
      }
      double newX = left + (double) (places & MASK) / count;
      double newY = top + (double) (places >> ROWS & MASK) / count;
      double moved = move(count);
      boolean still = Math.abs(newX - middleX) < 0.5 && Math.abs(newY - middleY) < 0.5;
      middleX = newX;
      middleY = newY;
      if (still && moved < STILL) {
        return true;
      }
    }
    return true;
  }

  /** Moves the colour to the mean of what was added up; returns the squared distance. */
  private double move(int count) {
    double moved = 0;
    for (int p = 0; p < pairs; p++) {
      long apart = sums[p] - count * pair(at, 0, p);
      int low = (int) apart;
      moved += moveBand(2 * p, (double) low / count);
      if (2 * p + 1 < bands) {
        moved += moveBand(2 * p + 1, (double) (apart - low >> 32) / count);
      }
    }
    return moved;
  }

  private double moveBand(int b, double steps) {
    double colour = (Math.round(at[b] * STEPS) + steps) / STEPS;
    double moved = colour - at[b];
    at[b] = colour;
    return moved * moved;
  }

  /** Adds up what is near in the square that begins at a place. */
  private void add(int corner) {
    double squares = -1;
    for (double v : at) {
      squares += v * v;
    }
    if (bands == 4) {
      addFour(corner, squares / 2);
    } else {
      addAny(corner, squares / 2);
    }
  }

  /** What one pixel adds to {@link #places}, without its number. */
  private long row(int v, int from) {
    return (1L << COUNT) + ((long) v << ROWS) - from;
  }

  private void addFour(int corner, double least) {
    double at0 = at[0];
    double at1 = at[1];
    double at2 = at[2];
    double at3 = at[3];
    long first = 0;
    long second = 0;
    long where = 0;
    for (int v = 0; v <= 2 * radius; v++) {
      int from = corner + v * stride;
      long row = row(v, from);
      for (int i = from; i <= from + 2 * radius; i++) {
        int k = 4 * i;
        double like = colours[k] * at0
            + colours[k + 1] * at1
            + (colours[k + 2] * at2 + colours[k + 3] * at3)
            + halves[i];
        long near = Double.doubleToRawLongBits(least - like) >> 63;
        first += packed[2 * i] & near;
        second += packed[2 * i + 1] & near;
        where += row + i & near;
      }
    }
    sums[0] = first;
    sums[1] = second;
    places = where;
  }

  private void addAny(int corner, double least) {
    Arrays.fill(sums, 0);
    places = 0;
    for (int v = 0; v <= 2 * radius; v++) {
      int from = corner + v * stride;
      long row = row(v, from);
      for (int i = from; i <= from + 2 * radius; i++) {
        double like = halves[i];
        for (int b = 0; b < bands; b++) {
          like += colours[i * bands + b] * at[b];
        }
        long near = Double.doubleToRawLongBits(least - like) >> 63;
        for (int p = 0; p < pairs; p++) {
          sums[p] += packed[i * pairs + p] & near;
        }
        places += row + i & near;
      }
    }
  }
}
