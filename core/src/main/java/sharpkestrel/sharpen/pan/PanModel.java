package sharpkestrel.sharpen.pan;

import java.util.Arrays;
import java.util.Locale;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Kept;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Window;

/**
 * How a panchromatic band relates to the others, and with it what a method does to them: {@code band + gain * (panGain * pan
 * + panOffset - base)} or, by ratio, {@code band * pan / base}; the base is {@code constant + sum of weights * bands} or the
 * panchromatic band without its detail (the common frame of Vivone et al. 2015, IEEE TGRS 53(5), 2565-2586).
 *
 * @param weights of the bands in the intensity; empty where the base is the panchromatic band's own
 * @param gains of each band, scene-wide
 * @param panVariance of the panchromatic band at the multispectral pixels; NaN where nothing was fitted
 */
public record PanModel(
    Method method,
    double[] weights,
    double constant,
    double panGain,
    double panOffset,
    double[] gains,
    double panVariance,
    Alignment alignment) {

  private static final int ROWS = 256;

  /** Pixels for each unknown below which a relation is not fitted. */
  private static final int LEAST = 16;

  /** Whether detail is a factor rather than an addend. */
  boolean isRatio() {
    return method == Method.BROVEY || method == Method.SMOOTHING;
  }

  /** Fits at the multispectral pixels, the panchromatic ones reduced under each; every pixel takes part. */
  public static PanModel fit(
      Pair pair, Method method, double[] given, double contrast, Alignment alignment, Job job) {
    int n = pair.multispectral().bands().size();
    if (given.length > 0 && method == Method.BROVEY || method == Method.SMOOTHING) {
      return new PanModel(method, given, 0, 1, 0, new double[n], Double.NaN, alignment);
    }
    Moments moments = Kept.of(
        pair.pan(),
        new Relation(pair.multispectral(), contrast, alignment),
        () -> moments(pair, contrast, alignment, job));
    return fit(moments, method, given, alignment);
  }

  /** What the moments of a panchromatic band depend on. */
  private record Relation(Raster multispectral, double contrast, Alignment alignment) {}

  private static Moments moments(Pair pair, double contrast, Alignment alignment, Job job) {
    Raster bands = alignment.applyTo(pair.multispectral());
    Raster reduced = Reduced.pan(pair, contrast);
    int n = bands.bands().size();
    Window whole = under(pair);
    int strips = Math.ceilDiv(whole.height(), ROWS);
    Moments[] parts = new Moments[strips];
    Parallel.run(strips, job, i -> {
      Window window =
          new Window(whole.x(), whole.y() + i * ROWS, whole.width(), ROWS).intersect(whole);
      parts[i] = new Moments(n);
      parts[i].add(bands.read(0, window, job.request()), reduced.read(0, window, job.request())[0]);
      job.progress("Relating the bands", i + 1L, strips);
    });
    Moments sums = new Moments(n);
    for (Moments part : parts) {
      sums.add(part);
    }
    if (sums.count() < LEAST * (n + 1L)) {
      throw new RasterException("Only "
          + sums.count()
          + " pixels have both panchromatic and multispectral data: too few to relate them. Check that the"
          + " scenes overlap where they have data.");
    }
    return sums;
  }

  /** The multispectral pixels that have panchromatic ones under them. */
  private static Window under(Pair pair) {
    Window pan = pair.pan().grid().window();
    int x0 = (int) Math.floor(pair.toMultispectral().x(0, 0));
    int y0 = (int) Math.floor(pair.toMultispectral().y(0, 0));
    int x1 = (int) Math.ceil(pair.toMultispectral().x(pan.width(), pan.height()));
    int y1 = (int) Math.ceil(pair.toMultispectral().y(pan.width(), pan.height()));
    return new Window(x0, y0, x1 - x0, y1 - y0)
        .intersect(pair.multispectral().grid().window());
  }

  static PanModel fit(Moments m, Method method, double[] given, Alignment alignment) {
    int n = m.bands();
    double panDeviation = Math.sqrt(Math.max(0, m.covariance(n, n)));
    if (!(panDeviation > 0)) {
      throw new RasterException(
          "The panchromatic band has one value everywhere, so it holds no detail. Choose another scene.");
    }
    return switch (method) {
      case ADAPTIVE, BROVEY -> {
        double[] w = given.length > 0 ? given : m.weights();
        if (!(Arrays.stream(w).sum() > 0)) {
          throw new RasterException(
              "None of the bands follows the panchromatic one, so no weights could be fitted. Give the weights, or check"
                  + " that both scenes show the same ground.");
        }
        double constant = given.length > 0 ? 0 : m.mean(n) - m.mean(w);
        yield new PanModel(method, w, constant, 1, 0, gains(m, w), m.covariance(n, n), alignment);
      }
      case PRINCIPAL_COMPONENT -> matched(m, method, m.principal(), m.principal(), alignment);
      case GRAM_SCHMIDT -> {
        double[] w = given;
        if (given.length == 0) {
          w = new double[n];
          Arrays.fill(w, 1.0 / n);
        }
        yield matched(m, method, w, gains(m, w), alignment);
      }
      case HIGH_PASS, LAPLACIAN -> {
        double[] gains = new double[n];
        for (int b = 0; b < n; b++) {
          gains[b] = method == Method.HIGH_PASS
              ? Math.sqrt(Math.max(0, m.covariance(b, b))) / panDeviation
              : m.covariance(b, n) / m.covariance(n, n);
        }
        yield new PanModel(method, new double[0], 0, 1, 0, gains, m.covariance(n, n), alignment);
      }
      case SMOOTHING ->
        new PanModel(method, new double[0], 0, 1, 0, new double[n], Double.NaN, alignment);
    };
  }

  /** The panchromatic band given the mean and spread of the intensity that it replaces. */
  private static PanModel matched(
      Moments m, Method method, double[] w, double[] gains, Alignment alignment) {
    int n = m.bands();
    double gain = Math.sqrt(m.variance(w) / m.covariance(n, n));
    double offset = m.mean(w) - gain * m.mean(n);
    return new PanModel(method, w, 0, gain, offset, gains, m.covariance(n, n), alignment);
  }

  private static double[] gains(Moments m, double[] w) {
    double variance = m.variance(w);
    double[] gains = new double[w.length];
    for (int b = 0; b < w.length; b++) {
      gains[b] = variance > 0 ? m.covariance(b, w) / variance : 0;
    }
    return gains;
  }

  /** The weights for people, empty where the method has none. */
  public String weightsText() {
    StringBuilder text = new StringBuilder();
    for (double w : weights) {
      text.append(text.isEmpty() ? "" : ",").append(String.format(Locale.ROOT, "%.2f", w));
    }
    return text.toString();
  }
}
