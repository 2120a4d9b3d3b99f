package sharpkestrel.raster;

/** How values between pixel centres are found. */
public enum Resampling {
  NEAREST(0),
  BILINEAR(1),
  /** Cubic convolution with parameter -0.5 (Keys 1981, IEEE Trans. ASSP 29(6), 1153-1160). */
  CUBIC(2);

  /** Pixels whose weights are held at a time. */
  private static final int RUN = 1024;

  /** In place of a pixel's corner: some of the kernel lies outside, or all of it. */
  private static final int EDGE = -1;

  private static final int NOWHERE = -2;

  private final int reach;

  Resampling(int reach) {
    this.reach = reach;
  }

  /** Pixels needed around the one a position falls in. */
  public int reach() {
    return reach;
  }

  /**
   * Samples planes at given positions. Where some pixels under the kernel are no-data the weights of the others are
   * used alone, as long as they carry at least half; else the result is no-data. Outside of the planes is no-data.
   *
   * @param planes (input) height * width, row by row; null planes are skipped
   * @param xs (input) positions in pixels of the planes, centres at .5; NaN gives no-data
   * @param out (output) one value for each position and plane
   */
  public void sample(
      float[][] planes, int width, int height, double[] xs, double[] ys, int count, float[][] out) {
    switch (this) {
      case NEAREST -> nearest(planes, width, height, xs, ys, count, out);
      case BILINEAR -> bilinear(planes, width, height, xs, ys, count, out);
      case CUBIC -> cubic(planes, width, height, xs, ys, count, out);
    }
  }

  private static void nearest(
      float[][] planes, int width, int height, double[] xs, double[] ys, int count, float[][] out) {
    for (int b = 0; b < planes.length; b++) {
      if (planes[b] == null) {
        continue;
      }
      float[] in = planes[b];
      float[] to = out[b];
      for (int i = 0; i < count; i++) {
        boolean inside = xs[i] >= 0 && ys[i] >= 0 && xs[i] < width && ys[i] < height;
        to[i] = inside ? in[(int) ys[i] * width + (int) xs[i]] : Float.NaN;
      }
    }
  }

  private static void bilinear(
      float[][] planes, int width, int height, double[] xs, double[] ys, int count, float[][] out) {
    for (int i = 0; i < count; i++) {
      double px = xs[i] - 0.5;
      double py = ys[i] - 0.5;
      int x = (int) Math.floor(px);
      int y = (int) Math.floor(py);
      boolean inside = x >= 0 && y >= 0 && x + 1 < width && y + 1 < height;
      float fx = (float) (px - x);
      float fy = (float) (py - y);
      for (int b = 0; b < planes.length; b++) {
        float[] in = planes[b];
        if (in == null) {
          continue;
        }
        float value = Float.NaN;
        if (inside) {
          int at = y * width + x;
          float top = in[at] + (in[at + 1] - in[at]) * fx;
          float bottom = in[at + width] + (in[at + width + 1] - in[at + width]) * fx;
          value = top + (bottom - top) * fy;
        }
        out[b][i] = !Float.isNaN(value) ? value : bilinearOfValid(in, width, height, px, py);
      }
    }
  }

  private static float bilinearOfValid(float[] in, int width, int height, double px, double py) {
    float[] wx = {(float) (1 - (px - Math.floor(px))), (float) (px - Math.floor(px))};
    float[] wy = {(float) (1 - (py - Math.floor(py))), (float) (py - Math.floor(py))};
    return ofValid(in, width, height, (int) Math.floor(px), (int) Math.floor(py), wx, wy, 2);
  }

  /**
   * In runs of pixels whose weights are worked out once for all planes; each plane is then gone through by itself, so that
   * it stays in the processor's cache.
   */
  private static void cubic(
      float[][] planes, int width, int height, double[] xs, double[] ys, int count, float[][] out) {
    int[] corner = new int[RUN];
    float[] weights = new float[8 * RUN];
    float[] wx = new float[4];
    float[] wy = new float[4];
    for (int from = 0; from < count; from += RUN) {
      int run = Math.min(RUN, count - from);
      boolean mend = false;
      for (int k = 0; k < run; k++) {
        double px = xs[from + k] - 0.5;
        double py = ys[from + k] - 0.5;
        // also refuses NaN
        if (px >= 1 && py >= 1 && px < width - 2 && py < height - 2) {
          int x = (int) px;
          int y = (int) py;
          corner[k] = (y - 1) * width + x - 1;
          keys((float) (px - x), weights, 8 * k);
          keys((float) (py - y), weights, 8 * k + 4);
        } else {
          // farther than the kernel reaches, or nowhere: nothing to mend
          boolean near = px > -2 && py > -2 && px < width + 1 && py < height + 1;
          corner[k] = near ? EDGE : NOWHERE;
          mend |= near;
        }
      }
      for (int b = 0; b < planes.length; b++) {
        if (planes[b] != null) {
          mend |= cubicRun(planes[b], width, corner, weights, run, out[b], from);
        }
      }
      for (int k = 0; mend && k < run; k++) {
        if (corner[k] != NOWHERE) {
          mendRun(planes, width, height, xs, ys, from + k, corner[k] == EDGE, wx, wy, out);
        }
      }
    }
  }

  /** Tells whether some no-data was met. */
  private static boolean cubicRun(
      float[] in, int width, int[] corner, float[] w, int run, float[] to, int from) {
    float seen = 0;
    for (int k = 0; k < run; k++) {
      int at = corner[k];
      if (at < 0) {
        to[from + k] = Float.NaN;
        continue;
      }
      int j = 8 * k;
      float w0 = w[j];
      float w1 = w[j + 1];
      float w2 = w[j + 2];
      float w3 = w[j + 3];
      float sum = w[j + 4] * (w0 * in[at] + w1 * in[at + 1] + w2 * in[at + 2] + w3 * in[at + 3]);
      at += width;
      sum += w[j + 5] * (w0 * in[at] + w1 * in[at + 1] + w2 * in[at + 2] + w3 * in[at + 3]);
      at += width;
      sum += w[j + 6] * (w0 * in[at] + w1 * in[at + 1] + w2 * in[at + 2] + w3 * in[at + 3]);
      at += width;
      sum += w[j + 7] * (w0 * in[at] + w1 * in[at + 1] + w2 * in[at + 2] + w3 * in[at + 3]);
      to[from + k] = sum;
      // NaN once, NaN for good
      seen += 0 * sum;
    }
    return Float.isNaN(seen);
  }

  /** Pixels at the edge, and those that some no-data has spoilt: from what is valid under the kernel. */
  private static void mendRun(
      float[][] planes,
      int width,
      int height,
      double[] xs,
      double[] ys,
      int i,
      boolean atEdge,
      float[] wx,
      float[] wy,
      float[][] out) {
    boolean known = false;
    for (int b = 0; b < planes.length; b++) {
      if (planes[b] == null || !atEdge && !Float.isNaN(out[b][i])) {
        continue;
      }
      double px = xs[i] - 0.5;
      double py = ys[i] - 0.5;
      int x = (int) Math.floor(px) - 1;
      int y = (int) Math.floor(py) - 1;
      if (!known) {
        keys((float) (px - x - 1), wx, 0);
        keys((float) (py - y - 1), wy, 0);
        known = true;
      }
      out[b][i] = Double.isNaN(px) || Double.isNaN(py)
          ? Float.NaN
          : ofValid(planes[b], width, height, x, y, wx, wy, 4);
    }
  }

  private static void keys(float t, float[] w, int at) {
    float t2 = t * t;
    float t3 = t2 * t;
    w[at] = -0.5f * t3 + t2 - 0.5f * t;
    w[at + 1] = 1.5f * t3 - 2.5f * t2 + 1;
    w[at + 2] = -1.5f * t3 + 2 * t2 + 0.5f * t;
    w[at + 3] = 0.5f * t3 - 0.5f * t2;
  }

  private static float ofValid(
      float[] in, int width, int height, int x0, int y0, float[] wx, float[] wy, int n) {
    float sum = 0;
    float weight = 0;
    for (int row = 0; row < n; row++) {
      int y = y0 + row;
      if (y < 0 || y >= height) {
        continue;
      }
      for (int col = 0; col < n; col++) {
        int x = x0 + col;
        if (x < 0 || x >= width) {
          continue;
        }
        float v = in[y * width + x];
        if (!Float.isNaN(v)) {
          sum += wy[row] * wx[col] * v;
          weight += wy[row] * wx[col];
        }
      }
    }
    return weight >= 0.5f ? sum / weight : Float.NaN;
  }
}
