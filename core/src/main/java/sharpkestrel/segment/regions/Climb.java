package sharpkestrel.segment.regions;

import java.util.Arrays;
import sharpkestrel.raster.Window;

/**
 * The climb of one pixel after the other to the middle of what is alike around it. Whether a pixel is near is as good as
 * random, so nothing branches on it: every pixel of the square is added, those that are not near none times. Bands are
 * taken four at a time.
 */
final class Climb {

  static final int LANES = 4;

  /** Stands for no-data: far from everything. */
  static final float FAR = 1e15f;

  /** Square of the step in colour under which a climb is over. */
  private static final float STILL = 0.05f * 0.05f;

  private final float[] colours;
  private final int lanes;
  private final int width;
  private final int height;
  private final int radius;
  private final int iterations;
  private final float[] at;
  private final float[] sums;

  /** Squared distances of a row of the square, then 1 where one is near and 0 elsewhere. */
  private final float[] near;

  private int count;
  private int sumX;
  private int sumY;

  /**
   * @param colours (input) pixel by pixel {@code lanes} numbers in widths of the ball; {@link #FAR} for no-data
   * @param lanes a multiple of {@link #LANES}
   */
  Climb(float[] colours, int lanes, Window window, int radius, int iterations) {
    this.colours = colours;
    this.lanes = lanes;
    width = window.width();
    height = window.height();
    this.radius = radius;
    this.iterations = iterations;
    at = new float[lanes];
    sums = new float[lanes];
    near = new float[2 * radius + 1];
  }

  /** The number of a lane that the last climb ended at. */
  float at(int lane) {
    return at[lane];
  }

  /** Climbs from a pixel; false where it has no data. */
  boolean from(int pixel) {
    for (int k = 0; k < lanes; k++) {
      at[k] = colours[pixel * lanes + k];
      if (at[k] == FAR) {
        return false;
      }
    }
    float middleX = pixel % width;
    float middleY = pixel / width;
    for (int i = 0; i < iterations; i++) {
      add(Math.round(middleX), Math.round(middleY));
      if (count == 0) {
        return true;
      }
      float newX = (float) sumX / count;
      float newY = (float) sumY / count;
      float moved = 0;
      for (int k = 0; k < lanes; k++) {
        float colour = sums[k] / count;
        moved += (colour - at[k]) * (colour - at[k]);
        at[k] = colour;
      }
      boolean still = Math.abs(newX - middleX) < 0.5f && Math.abs(newY - middleY) < 0.5f;
      middleX = newX;
      middleY = newY;
      if (still && moved < STILL) {
        return true;
      }
    }
    return true;
  }

  /** Adds up what is near in the square about a pixel. */
  private void add(int x, int y) {
    int left = Math.max(0, x - radius);
    int right = Math.min(width - 1, x + radius);
    int bottom = Math.min(height - 1, y + radius);
    count = 0;
    sumX = 0;
    sumY = 0;
    Arrays.fill(sums, 0);
    for (int v = Math.max(0, y - radius); v <= bottom; v++) {
      if (lanes == LANES) {
        addRow(v, left, right);
      } else {
        addRowOfMany(v, left, right);
      }
    }
  }

  private void addRow(int v, int left, int right) {
    float at0 = at[0];
    float at1 = at[1];
    float at2 = at[2];
    float at3 = at[3];
    float sum0 = sums[0];
    float sum1 = sums[1];
    float sum2 = sums[2];
    float sum3 = sums[3];
    int inRow = 0;
    int xs = 0;
    for (int u = left, k = (v * width + left) * LANES; u <= right; u++, k += LANES) {
      float c0 = colours[k];
      float c1 = colours[k + 1];
      float c2 = colours[k + 2];
      float c3 = colours[k + 3];
      float d0 = c0 - at0;
      float d1 = c1 - at1;
      float d2 = c2 - at2;
      float d3 = c3 - at3;
      // 1 where the squared distance is below 1, else 0: the sign of the difference
      int in = Float.floatToRawIntBits(d0 * d0 + d1 * d1 + (d2 * d2 + d3 * d3) - 1) >>> 31;
      float share = in;
      inRow += in;
      xs += in * u;
      sum0 += share * c0;
      sum1 += share * c1;
      sum2 += share * c2;
      sum3 += share * c3;
    }
    sums[0] = sum0;
    sums[1] = sum1;
    sums[2] = sum2;
    sums[3] = sum3;
    count += inRow;
    sumX += xs;
    sumY += inRow * v;
  }

  private void addRowOfMany(int v, int left, int right) {
    int n = right - left + 1;
    int start = (v * width + left) * lanes;
    Arrays.fill(near, 0, n, -1);
    for (int lane = 0; lane < lanes; lane += LANES) {
      float at0 = at[lane];
      float at1 = at[lane + 1];
      float at2 = at[lane + 2];
      float at3 = at[lane + 3];
      for (int u = 0, k = start + lane; u < n; u++, k += lanes) {
        float d0 = colours[k] - at0;
        float d1 = colours[k + 1] - at1;
        float d2 = colours[k + 2] - at2;
        float d3 = colours[k + 3] - at3;
        near[u] += d0 * d0 + d1 * d1 + (d2 * d2 + d3 * d3);
      }
    }
    for (int u = 0; u < n; u++) {
      int in = Float.floatToRawIntBits(near[u]) >>> 31;
      near[u] = in;
      count += in;
      sumX += in * (left + u);
      sumY += in * v;
    }
    for (int lane = 0; lane < lanes; lane += LANES) {
      float sum0 = sums[lane];
      float sum1 = sums[lane + 1];
      float sum2 = sums[lane + 2];
      float sum3 = sums[lane + 3];
      for (int u = 0, k = start + lane; u < n; u++, k += lanes) {
        sum0 += near[u] * colours[k];
        sum1 += near[u] * colours[k + 1];
        sum2 += near[u] * colours[k + 2];
        sum3 += near[u] * colours[k + 3];
      }
      sums[lane] = sum0;
      sums[lane + 1] = sum1;
      sums[lane + 2] = sum2;
      sums[lane + 3] = sum3;
    }
  }
}
