package sharpkestrel.sharpen.pan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.function.Supplier;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.CachedRaster;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Regridded;
import sharpkestrel.raster.Window;

/**
 * Rates ways of sharpening a scene. At reduced resolution both images are blurred and thinned by their ratio, sharpened, and
 * compared with the multispectral one as it is (the protocol of Wald, Ranchin and Mangolini 1997, PERS 63(6), 691-699); at
 * full resolution there is no truth, so the bands' likeness to each other and to the panchromatic band is compared before
 * and after (QNR: Alparone et al. 2008, PERS 74(2), 193-200). All in blocks of {@value #BLOCK} multispectral pixels, without
 * those at the edges and without those that hold no-data.
 */
public final class Rater {

  static final int BLOCK = 32;

  private final Pair pair;
  private final double contrast;
  private final boolean align;
  private final Window area;
  private final Job job;

  /**
   * @param area multispectral pixels to compare
   */
  public Rater(Pair pair, double contrast, boolean align, Window area, Job job) {
    this.pair = pair;
    this.contrast = contrast;
    this.align = align;
    this.area = area.intersect(pair.multispectral().grid().window());
    this.job = job;
  }

  /** Rates methods and plain bilinear interpolation, the best first. */
  public Ratings rate(List<Method> methods) {
    Pair coarse = Pair.of(
        CachedRaster.of(Reduced.pan(pair, contrast)),
        CachedRaster.of(Reduced.multispectral(pair, contrast)));
    Alignment shifts = align
        ? AlignmentFinder.find(pair, contrast, job)
        : Alignment.none(pair.multispectral().bands().size());
    Alignment coarseShifts = shifts.scaled(1 / pair.ratio());
    List<Rating> rows = new ArrayList<>();
    int done = 0;
    job.progress("Rating methods", done, methods.size() + 1L);
    rows.add(
        rate("Bilinear interpolation", "", () -> interpolated(coarse), () -> interpolated(pair)));
    for (Method method : methods) {
      job.progress("Rating methods", ++done, methods.size() + 1L);
      rows.add(rate(
          method.title(),
          method.name().toLowerCase(Locale.ROOT),
          () -> sharpened(coarse, method, coarseShifts),
          () -> sharpened(pair, method, shifts)));
    }
    rows.sort(Comparator.comparingDouble(row -> Double.isNaN(row.ergas()) ? 1e9 : row.ergas()));
    return new Ratings(
        List.copyOf(rows),
        pair.multispectral().bands().stream().map(Band::name).toList(),
        blocks().size() * (long) BLOCK * BLOCK);
  }

  private Raster sharpened(Pair of, Method method, Alignment shifts) {
    PanModel model = PanModel.fit(of, method, new double[0], contrast, shifts, job);
    return new SharpenedRaster(of, model, contrast);
  }

  private Rating rate(
      String title, String method, Supplier<Raster> atReduced, Supplier<Raster> atFull) {
    Reference reference = compare(atReduced.get());
    long start = System.nanoTime();
    double[] distortions = distortions(atFull.get());
    long millis = (System.nanoTime() - start) / 1_000_000;
    return new Rating(
        title,
        method,
        reference.ergas,
        reference.angle,
        reference.q2n,
        reference.q,
        distortions[0],
        distortions[1],
        millis);
  }

  /** Blocks that lie a kernel's reach inside of both scenes. */
  private List<Window> blocks() {
    int margin = (int) Math.ceil(3 * pair.ratio());
    Window pan = pair.pan().grid().window();
    Affine map = pair.toMultispectral();
    Window inner = new Window(
            (int) Math.ceil(map.x(0, 0)),
            (int) Math.ceil(map.y(0, 0)),
            (int) (map.x(pan.width(), 0) - Math.ceil(map.x(0, 0))),
            (int) (map.y(0, pan.height()) - Math.ceil(map.y(0, 0))))
        .intersect(pair.multispectral().grid().window());
    inner = new Window(
            inner.x() + margin,
            inner.y() + margin,
            Math.max(0, inner.width() - 2 * margin),
            Math.max(0, inner.height() - 2 * margin))
        .intersect(area);
    List<Window> blocks = new ArrayList<>();
    for (int y = inner.y(); y + BLOCK <= inner.bottom(); y += BLOCK) {
      for (int x = inner.x(); x + BLOCK <= inner.right(); x += BLOCK) {
        blocks.add(new Window(x, y, BLOCK, BLOCK));
      }
    }
    if (blocks.isEmpty()) {
      throw new RasterException("The area to rate must hold at least " + BLOCK + " x " + BLOCK
          + " multispectral pixels, " + margin
          + " away from the edges of both scenes. Choose a larger area.");
    }
    return blocks;
  }

  private record Reference(double ergas, double angle, double q2n, List<Double> q) {}

  private Reference compare(Raster made) {
    Raster truth = pair.multispectral();
    int n = truth.bands().size();
    List<Window> blocks = blocks();
    // per block: valid, squared errors and sums of each band, angle, Q of each band, Q2n
    double[][] parts = new double[blocks.size()][];
    Parallel.run(blocks.size(), job, i -> {
      float[][] wanted = truth.read(0, blocks.get(i), job.request());
      float[][] found = made.read(0, blocks.get(i), job.request());
      if (!allValid(wanted) || !allValid(found)) {
        return;
      }
      int count = BLOCK * BLOCK;
      double[] part = new double[3 * n + 2];
      for (int b = 0; b < n; b++) {
        for (int k = 0; k < count; k++) {
          double error = found[b][k] - wanted[b][k];
          part[b] += error * error;
          part[n + b] += wanted[b][k];
        }
        part[2 * n + b] = Likeness.q(wanted[b], found[b], count);
      }
      part[3 * n] = angle(wanted, found, count);
      part[3 * n + 1] = Likeness.q2n(wanted, found, count);
      parts[i] = part;
    });
    double[] sum = new double[3 * n + 2];
    int valid = 0;
    for (double[] part : parts) {
      if (part != null) {
        valid++;
        for (int k = 0; k < sum.length; k++) {
          sum[k] += part[k];
        }
      }
    }
    if (valid == 0) {
      throw new RasterException(
          "No block of the area has data everywhere in both scenes, so nothing can be compared. Choose another area.");
    }
    double relative = 0;
    List<Double> q = new ArrayList<>();
    double pixels = (double) valid * BLOCK * BLOCK;
    for (int b = 0; b < n; b++) {
      double mean = sum[n + b] / pixels;
      relative += sum[b] / pixels / (mean * mean) / n;
      q.add(sum[2 * n + b] / valid);
    }
    return new Reference(
        100 / pair.ratio() * Math.sqrt(relative),
        Math.toDegrees(sum[3 * n] / valid),
        sum[3 * n + 1] / valid,
        List.copyOf(q));
  }

  private static boolean allValid(float[][] planes) {
    float seen = 0;
    for (float[] plane : planes) {
      for (float v : plane) {
        seen += 0 * v;
      }
    }
    return !Float.isNaN(seen);
  }

  /** Mean angle between the spectra of each pixel, radians (Yuhas, Goetz and Boardman 1992). */
  static double angle(float[][] x, float[][] y, int count) {
    double sum = 0;
    for (int i = 0; i < count; i++) {
      double xx = 0;
      double yy = 0;
      double xy = 0;
      for (int b = 0; b < x.length; b++) {
        xx += (double) x[b][i] * x[b][i];
        yy += (double) y[b][i] * y[b][i];
        xy += (double) x[b][i] * y[b][i];
      }
      double cosine = xx > 0 && yy > 0 ? xy / Math.sqrt(xx * yy) : xx == yy ? 1 : 0;
      sum += Math.acos(Math.max(-1, Math.min(1, cosine)));
    }
    return sum / count;
  }

  /** Spectral and spatial distortion at full resolution. */
  private double[] distortions(Raster made) {
    Raster before = pair.multispectral();
    Raster reduced = CachedRaster.of(Reduced.pan(pair, contrast));
    Affine toPan = pair.toMultispectral().inverse();
    int n = before.bands().size();
    List<Window> blocks = blocks();
    double[][] parts = new double[blocks.size()][];
    Parallel.run(blocks.size(), job, i -> {
      Window block = blocks.get(i);
      int x0 = (int) Math.round(toPan.x(block.x(), 0));
      int y0 = (int) Math.round(toPan.y(0, block.y()));
      Window fine = new Window(
          x0,
          y0,
          (int) Math.round(toPan.x(block.right(), 0)) - x0,
          (int) Math.round(toPan.y(0, block.bottom())) - y0);
      float[][] low = before.read(0, block, job.request());
      float[][] high = made.read(0, fine, job.request());
      float[] lowPan = reduced.read(0, block, job.request())[0];
      float[][] panPlanes = new float[pair.pan().bands().size()][];
      panPlanes[pair.panBand()] = new float[fine.area()];
      pair.pan().read(0, fine, panPlanes, job.request());
      float[] highPan = panPlanes[pair.panBand()];
      if (!allValid(low) || !allValid(high) || !allValid(new float[][] {lowPan, highPan})) {
        return;
      }
      double[] part = new double[n * (n - 1) + 2 * n];
      int at = 0;
      for (int a = 0; a < n; a++) {
        for (int b = a + 1; b < n; b++) {
          part[at++] = Likeness.q(low[a], low[b], block.area());
          part[at++] = Likeness.q(high[a], high[b], fine.area());
        }
        part[at++] = Likeness.q(low[a], lowPan, block.area());
        part[at++] = Likeness.q(high[a], highPan, fine.area());
      }
      parts[i] = part;
    });
    return distortions(parts, n);
  }

  private static double[] distortions(double[][] parts, int n) {
    double[] sum = new double[n * (n - 1) + 2 * n];
    int valid = 0;
    for (double[] part : parts) {
      if (part != null) {
        valid++;
        for (int k = 0; k < sum.length; k++) {
          sum[k] += part[k];
        }
      }
    }
    double spectral = 0;
    double spatial = 0;
    int at = 0;
    for (int a = 0; a < n; a++) {
      for (int b = a + 1; b < n; b++) {
        spectral += Math.abs(sum[at + 1] - sum[at]) / valid;
        at += 2;
      }
      spatial += Math.abs(sum[at + 1] - sum[at]) / valid;
      at += 2;
    }
    int pairs = Math.max(1, n * (n - 1) / 2);
    return new double[] {valid == 0 ? Double.NaN : spectral / pairs, spatial / n};
  }

  /** What there is without sharpening: the bands on the panchromatic grid by bilinear interpolation. */
  static Raster interpolated(Pair pair) {
    return new Regridded(
        pair.multispectral(), pair.pan().grid(), pair.toMultispectral(), Regridded.Kernel.BILINEAR);
  }
}
