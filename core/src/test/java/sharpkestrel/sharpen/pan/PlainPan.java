package sharpkestrel.sharpen.pan;

/**
 * The methods of pan-sharpening written out pixel by pixel from their papers, for grids whose multispectral pixels hold a
 * whole number of panchromatic ones from the same corner. Slow and plain; the reference for tests.
 */
final class PlainPan {

  private PlainPan() {}

  static double keys(double t) {
    double d = Math.abs(t);
    return d < 1
        ? 1.5 * d * d * d - 2.5 * d * d + 1
        : d < 2 ? -0.5 * d * d * d + 2.5 * d * d - 4 * d + 2 : 0;
  }

  /** Cubic convolution of a square plane onto pixels so many times as small; NaN where the kernel leaves the plane. */
  static double[][] upsampled(double[][] in, int ratio) {
    int n = in.length * ratio;
    double[][] out = new double[n][n];
    for (int y = 0; y < n; y++) {
      for (int x = 0; x < n; x++) {
        double px = (x + 0.5) / ratio - 0.5;
        double py = (y + 0.5) / ratio - 0.5;
        double sum = 0;
        for (int j = (int) Math.floor(py) - 1; j <= Math.floor(py) + 2; j++) {
          for (int i = (int) Math.floor(px) - 1; i <= Math.floor(px) + 2; i++) {
            boolean inside = i >= 0 && j >= 0 && i < in.length && j < in.length;
            sum += inside ? in[j][i] * keys(px - i) * keys(py - j) : Double.NaN;
          }
        }
        out[y][x] = sum;
      }
    }
    return out;
  }

  /** What a sensor of larger pixels sees: a Gaussian of so much contrast at its Nyquist frequency about each pixel. */
  static double[][] reduced(double[][] in, int ratio, double contrast) {
    double sigma = ratio * Math.sqrt(-2 * Math.log(contrast)) / Math.PI;
    int n = in.length / ratio;
    double[][] out = new double[n][n];
    for (int y = 0; y < n; y++) {
      for (int x = 0; x < n; x++) {
        double cx = (x + 0.5) * ratio - 0.5;
        double cy = (y + 0.5) * ratio - 0.5;
        double sum = 0;
        double weights = 0;
        for (int j = 0; j < in.length; j++) {
          for (int i = 0; i < in.length; i++) {
            if (Math.abs(i - cx) < 3 * sigma && Math.abs(j - cy) < 3 * sigma) {
              double w =
                  Math.exp(-((i - cx) * (i - cx) + (j - cy) * (j - cy)) / (2 * sigma * sigma));
              sum += w * in[j][i];
              weights += w;
            }
          }
        }
        out[y][x] = sum / weights;
      }
    }
    return out;
  }

  /** Mean over an odd square about each pixel; NaN where it leaves the plane. */
  static double[][] boxed(double[][] in, int side) {
    int n = in.length;
    int r = side / 2;
    double[][] out = new double[n][n];
    for (int y = 0; y < n; y++) {
      for (int x = 0; x < n; x++) {
        double sum = 0;
        for (int j = y - r; j <= y + r; j++) {
          for (int i = x - r; i <= x + r; i++) {
            sum += i >= 0 && j >= 0 && i < n && j < n ? in[j][i] : Double.NaN;
          }
        }
        out[y][x] = sum / (side * side);
      }
    }
    return out;
  }

  static double mean(double[][] a) {
    double sum = 0;
    for (double[] row : a) {
      for (double v : row) {
        sum += v;
      }
    }
    return sum / (a.length * a.length);
  }

  static double covariance(double[][] a, double[][] b) {
    double ma = mean(a);
    double mb = mean(b);
    double sum = 0;
    for (int y = 0; y < a.length; y++) {
      for (int x = 0; x < a.length; x++) {
        sum += (a[y][x] - ma) * (b[y][x] - mb);
      }
    }
    return sum / (a.length * a.length);
  }

  static double[][] weighted(double[][][] bands, double[] w, double constant) {
    int n = bands[0].length;
    double[][] out = new double[n][n];
    for (int y = 0; y < n; y++) {
      for (int x = 0; x < n; x++) {
        out[y][x] = constant;
        for (int b = 0; b < bands.length; b++) {
          out[y][x] += w[b] * bands[b][y][x];
        }
      }
    }
    return out;
  }

  /** By Cramer's rule, of the two bands that come nearest to the panchromatic one with a constant. */
  static double[] fitted(double[][][] bands, double[][] pan) {
    double aa = covariance(bands[0], bands[0]);
    double ab = covariance(bands[0], bands[1]);
    double bb = covariance(bands[1], bands[1]);
    double ap = covariance(bands[0], pan);
    double bp = covariance(bands[1], pan);
    double det = aa * bb - ab * ab;
    return new double[] {(ap * bb - bp * ab) / det, (bp * aa - ap * ab) / det};
  }

  /** The method as its paper has it, for two bands. */
  static double[][][] sharpened(
      Method method, double[][] pan, double[][][] bands, int ratio, double contrast) {
    double[][] low = reduced(pan, ratio, contrast);
    double[][][] up = {upsampled(bands[0], ratio), upsampled(bands[1], ratio)};
    int n = pan.length;
    double[][][] out = new double[2][n][n];
    double[] w = switch (method) {
      case ADAPTIVE, BROVEY -> fitted(bands, low);
      case GRAM_SCHMIDT -> new double[] {0.5, 0.5};
      case PRINCIPAL_COMPONENT -> principal(bands);
      default -> new double[2];
    };
    double[][] intensity = weighted(bands, w, 0);
    double vi = covariance(intensity, intensity);
    double constant = mean(low) - mean(intensity);
    double match = Math.sqrt(vi / covariance(low, low));
    double[][] smooth = method == Method.LAPLACIAN ? upsampled(low, ratio) : boxed(pan, ratio + 1);
    for (int b = 0; b < 2; b++) {
      double gain = covariance(bands[b], intensity) / vi;
      double spread = Math.sqrt(covariance(bands[b], bands[b]) / covariance(low, low));
      for (int y = 0; y < n; y++) {
        for (int x = 0; x < n; x++) {
          double i = w[0] * up[0][y][x] + w[1] * up[1][y][x];
          double p = pan[y][x];
          double matched = (p - mean(low)) * match + mean(intensity);
          out[b][y][x] = switch (method) {
            case ADAPTIVE -> up[b][y][x] + gain * (p - i - constant);
            case BROVEY -> up[b][y][x] * p / (i + constant);
            case GRAM_SCHMIDT -> up[b][y][x] + gain * (matched - i);
            case PRINCIPAL_COMPONENT -> up[b][y][x] + w[b] * (matched - i);
            case HIGH_PASS -> up[b][y][x] + spread * (p - smooth[y][x]);
            case SMOOTHING -> up[b][y][x] * p / smooth[y][x];
            case LAPLACIAN -> up[b][y][x] + local(bands[b], low, x, y, ratio) * (p - smooth[y][x]);
          };
        }
      }
    }
    return out;
  }

  /** The larger eigenvector of a two by two covariance, in closed form. */
  private static double[] principal(double[][][] bands) {
    double angle = 0.5
        * Math.atan2(
            2 * covariance(bands[0], bands[1]),
            covariance(bands[0], bands[0]) - covariance(bands[1], bands[1]));
    double sign = Math.cos(angle) + Math.sin(angle) < 0 ? -1 : 1;
    return new double[] {sign * Math.cos(angle), sign * Math.sin(angle)};
  }

  /** Slopes of nine by nine pixels about the four nearest multispectral ones, bilinear between them. */
  private static double local(double[][] band, double[][] low, int x, int y, int ratio) {
    double px = (x + 0.5) / ratio - 0.5;
    double py = (y + 0.5) / ratio - 0.5;
    int i = (int) Math.floor(px);
    int j = (int) Math.floor(py);
    double fx = px - i;
    double fy = py - j;
    double sum = 0;
    for (int k = 0; k < 4; k++) {
      double weight = ((k & 1) == 0 ? 1 - fx : fx) * ((k >> 1) == 0 ? 1 - fy : fy);
      sum += weight * slope(band, low, i + (k & 1), j + (k >> 1));
    }
    return sum;
  }

  private static double slope(double[][] band, double[][] low, int x, int y) {
    double whole = covariance(band, low) / covariance(low, low);
    double still = 0.01 * covariance(low, low);
    double n = 0;
    double mb = 0;
    double mp = 0;
    for (int j = y - 4; j <= y + 4; j++) {
      for (int i = x - 4; i <= x + 4; i++) {
        if (i >= 0 && j >= 0 && i < low.length && j < low.length) {
          n++;
          mb += band[j][i];
          mp += low[j][i];
        }
      }
    }
    double cov = 0;
    double var = 0;
    for (int j = y - 4; j <= y + 4; j++) {
      for (int i = x - 4; i <= x + 4; i++) {
        if (i >= 0 && j >= 0 && i < low.length && j < low.length) {
          cov += (band[j][i] - mb / n) * (low[j][i] - mp / n) / n;
          var += (low[j][i] - mp / n) * (low[j][i] - mp / n) / n;
        }
      }
    }
    double slope = (cov + still * whole) / (var + still);
    return Math.max(0, Math.min(3 * Math.abs(whole), slope));
  }
}
