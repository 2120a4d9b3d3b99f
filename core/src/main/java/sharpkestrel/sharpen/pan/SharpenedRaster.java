package sharpkestrel.sharpen.pan;

import java.util.Arrays;
import java.util.List;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.CachedRaster;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Regridded;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Separable;
import sharpkestrel.raster.Taps;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/** Multispectral bands, interpolated onto the panchromatic grid by cubic convolution, with detail given to them. */
public final class SharpenedRaster extends DerivedRaster {

  /** Beside a dark intensity a factor could be anything; more than this is no detail. */
  private static final float MOST = 64;

  private static final float TINY = 1e-20f;

  private final Pair pair;
  private final PanModel model;
  private final Raster reduced;
  private final Raster gains;

  /**
   * @param contrast of the multispectral sensor at its Nyquist frequency
   */
  public SharpenedRaster(Pair pair, PanModel model, double contrast) {
    super(
        pair.pan().grid(),
        types(pair.multispectral()),
        pair.multispectral().attachments().with(PanModel.class, model),
        Zoom.RESAMPLING.over(pair.pan().zoom()).over(pair.multispectral().zoom()));
    this.pair = pair;
    this.model = model;
    boolean pyramid = model.method() == Method.LAPLACIAN;
    reduced = pyramid ? CachedRaster.of(Reduced.pan(pair, contrast)) : null;
    gains = pyramid
        ? CachedRaster.of(new ContextGains(
            model.alignment().applyTo(pair.multispectral()),
            reduced,
            model.gains(),
            model.panVariance()))
        : null;
  }

  private static List<Band> types(Raster scene) {
    SampleType type = scene.bands().get(0).type();
    return scene.bands().stream()
        .map(band -> band.type() == type ? band : band.withType(type, band.noData()))
        .toList();
  }

  @Override
  protected boolean isRounded() {
    return true;
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    boolean substitutes = model.method().substitutes();
    boolean[] wanted = new boolean[target.length];
    for (int b = 0; b < wanted.length; b++) {
      wanted[b] = target[b] != null || substitutes && model.weights()[b] != 0;
    }
    Separable[] bands = upsampled(level, window, wanted, request);
    if (!substitutes && pair.ratio() <= (1 << level)) {
      for (int b = 0; b < target.length; b++) {
        if (target[b] != null) {
          bands[b].all(target[b]);
          bands().get(b).quantise(target[b], 0, target[b].length);
        }
      }
      return;
    }
    float[] margined = pan(level, window, request);
    float[] pan = margin(level) == 0 ? margined : inner(level, window, margined);
    Separable smooth = substitutes ? null : smooth(level, window, margined, request);
    Separable[] local = gains == null ? null : localGains(level, window, target, request);
    Rows rows = new Rows(window.width(), bands);
    for (int y = 0; y < window.height(); y++) {
      System.arraycopy(pan, y * window.width(), rows.pan, 0, window.width());
      rows.sharpen(y, smooth, local, target);
    }
  }

  /** One row of a window at a time, small enough to stay in the processor's cache from one step to the next. */
  private final class Rows {
    private final Separable[] from;
    private final float[][] bands;
    final float[] pan;
    private final float[] base;
    private final float[] gain;

    Rows(int width, Separable[] from) {
      this.from = from;
      bands = new float[from.length][];
      for (int b = 0; b < bands.length; b++) {
        bands[b] = from[b] == null ? null : new float[width];
      }
      pan = new float[width];
      base = new float[width];
      gain = new float[width];
    }

    void sharpen(int y, Separable smooth, Separable[] local, float[][] target) {
      if (smooth != null) {
        smooth.row(y, base);
      } else {
        Arrays.fill(base, (float) model.constant());
      }
      for (int b = 0; b < bands.length; b++) {
        if (bands[b] == null) {
          continue;
        }
        from[b].row(y, bands[b]);
        if (model.isRatio()) {
          light(bands[b]);
        }
        if (smooth == null && model.weights()[b] != 0) {
          addTo(base, bands[b], (float) model.weights()[b]);
        }
      }
      if (model.isRatio()) {
        factors(base, pan);
      } else {
        differences(base, pan, (float) model.panGain(), (float) model.panOffset());
      }
      for (int b = 0; b < bands.length; b++) {
        if (target[b] == null) {
          continue;
        }
        if (model.isRatio()) {
          multiply(bands[b], base);
        } else if (local == null) {
          add(bands[b], base, (float) model.gains()[b]);
        } else {
          local[b].row(y, gain);
          add(bands[b], base, gain);
        }
        bands().get(b).quantise(bands[b], 0, bands[b].length);
        System.arraycopy(bands[b], 0, target[b], y * pan.length, pan.length);
      }
    }
  }

  /** A cubic kernel swings below 0 beside a bright edge, of which a factor would make a colour. */
  private static void light(float[] band) {
    for (int i = 0; i < band.length; i++) {
      band[i] = 0.5f * (band[i] + Math.abs(band[i]));
    }
  }

  private static void addTo(float[] base, float[] band, float weight) {
    for (int i = 0; i < base.length; i++) {
      base[i] += weight * band[i];
    }
  }

  private static void factors(float[] base, float[] pan) {
    for (int i = 0; i < base.length; i++) {
      base[i] = Math.min(MOST, pan[i] / (base[i] + TINY));
    }
  }

  private static void differences(float[] base, float[] pan, float gain, float offset) {
    for (int i = 0; i < base.length; i++) {
      base[i] = gain * pan[i] + offset - base[i];
    }
  }

  private static void multiply(float[] band, float[] factor) {
    for (int i = 0; i < band.length; i++) {
      band[i] *= factor[i];
    }
  }

  /** What is not below 0 stays so: detail takes no more light away than there is. */
  private static void add(float[] band, float[] detail, float gain) {
    for (int i = 0; i < band.length; i++) {
      band[i] = Math.max(band[i] + gain * detail[i], Math.min(0, band[i]));
    }
  }

  private static void add(float[] band, float[] detail, float[] gain) {
    for (int i = 0; i < band.length; i++) {
      band[i] = Math.max(band[i] + gain[i] * detail[i], Math.min(0, band[i]));
    }
  }

  /** The panchromatic band of a window, with the margin that a box filter needs where the method has one. */
  private float[] pan(int level, Window window, Request request) {
    Raster pan = pair.pan();
    Window read = window.grown(margin(level));
    float[][] planes = new float[pan.bands().size()][];
    planes[pair.panBand()] = new float[read.area()];
    pan.read(level, read, planes, request);
    return planes[pair.panBand()];
  }

  private boolean boxed() {
    return model.method() == Method.HIGH_PASS || model.method() == Method.SMOOTHING;
  }

  /** Side of the box filter in panchromatic pixels: one more than a multispectral pixel has. */
  private double box(int level) {
    return (pair.ratio() + 1) / (1 << level);
  }

  private int margin(int level) {
    return boxed() ? Taps.box(1, 0, 0, 1, box(level)).size() / 2 : 0;
  }

  private float[] inner(int level, Window window, float[] pan) {
    float[] out = new float[window.area()];
    Planes.copy(pan, window.grown(margin(level)), out, window);
    return out;
  }

  /** The panchromatic band without its detail. */
  private Separable smooth(int level, Window window, float[] margined, Request request) {
    if (!boxed()) {
      Affine map = pair.toMultispectral().scaled(1L << level);
      return upsampled(reduced, 0, map, 0, 0, window, new boolean[] {true}, request)[0];
    }
    Taps across = Taps.box(1, 0, window.x(), window.width(), box(level));
    Taps down = Taps.box(1, 0, window.y(), window.height(), box(level));
    Window needed = Separable.needed(across, down);
    float[] part = new float[needed.area()];
    Planes.copy(margined, window.grown(margin(level)), part, needed);
    return new Separable(part, across, down, pair.pan().grid().atLevel(level).window());
  }

  private Separable[] localGains(int level, Window window, float[][] target, Request request) {
    Affine map = pair.toMultispectral().scaled(1L << level);
    Taps across = Taps.bilinear(map.a(), map.c(), window.x(), window.width());
    Taps down = Taps.bilinear(map.e(), map.f(), window.y(), window.height());
    boolean[] wanted = new boolean[target.length];
    for (int b = 0; b < wanted.length; b++) {
      wanted[b] = target[b] != null;
    }
    return resampled(gains, 0, across, down, wanted, request);
  }

  private Separable[] upsampled(int level, Window window, boolean[] wanted, Request request) {
    Raster scene = pair.multispectral();
    int theirs = Regridded.levelFor(scene, (1 << level) / pair.ratio());
    double share = 1.0 / (1 << theirs);
    Affine map =
        new Affine(share, 0, 0, 0, share, 0).after(pair.toMultispectral()).scaled(1L << level);
    if (model.alignment().isNone()) {
      return upsampled(scene, theirs, map, 0, 0, window, wanted, request);
    }
    Separable[] bands = new Separable[wanted.length];
    for (int b = 0; b < bands.length; b++) {
      if (wanted[b]) {
        boolean[] one = new boolean[wanted.length];
        one[b] = true;
        double right = model.alignment().right()[b] * share;
        double down = model.alignment().down()[b] * share;
        bands[b] = upsampled(scene, theirs, map, right, down, window, one, request)[b];
      }
    }
    return bands;
  }

  /** By cubic convolution, of content that belongs so far right of and below where it is. */
  private static Separable[] upsampled(
      Raster from,
      int level,
      Affine map,
      double right,
      double below,
      Window window,
      boolean[] wanted,
      Request request) {
    Taps across = Taps.cubic(map.a(), map.c() - right, window.x(), window.width());
    Taps down = Taps.cubic(map.e(), map.f() - below, window.y(), window.height());
    return resampled(from, level, across, down, wanted, request);
  }

  private static Separable[] resampled(
      Raster from, int level, Taps across, Taps down, boolean[] wanted, Request request) {
    Window source = Separable.needed(across, down);
    float[][] planes = new float[wanted.length][];
    for (int b = 0; b < wanted.length; b++) {
      planes[b] = wanted[b] ? new float[source.area()] : null;
    }
    from.read(level, source, planes, request);
    Window grid = from.grid().atLevel(level).window();
    Separable[] bands = new Separable[wanted.length];
    for (int b = 0; b < wanted.length; b++) {
      bands[b] = wanted[b] ? new Separable(planes[b], across, down, grid) : null;
    }
    return bands;
  }
}
