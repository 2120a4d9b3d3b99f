package sharpkestrel.sharpen.contrast;

import java.util.List;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Statistics;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/** A scene with its local contrast evened out: each band by itself, or all by one brightness, which keeps their ratios. */
public final class ContrastRaster extends DerivedRaster {

  private final Raster scene;
  private final boolean together;
  private final float[] dark;
  private final float darkness;
  private final Raster brightness;
  private final Tone[] tones;
  private final Curves[] curves;

  /**
   * @param brightness what is equalised, each of one band: every band of the scene, or the one by which all are
   * @param statistics of each of those
   * @param side of a tile in pixels
   * @param dark what each band of the scene shows where there is no light but haze; colours keep their shares of what is
   *     above it
   * @param darkness the mean of that over the bands whose brightness is equalised
   */
  public ContrastRaster(
      Raster scene,
      List<? extends Raster> brightness,
      List<Statistics> statistics,
      double limit,
      int side,
      double lift,
      boolean together,
      float[] dark,
      float darkness) {
    super(
        scene.grid(), scene.bands(), scene.attachments(), Zoom.FULL_RESOLUTION.over(scene.zoom()));
    this.scene = scene;
    this.together = together;
    this.dark = dark;
    this.darkness = darkness;
    this.brightness = brightness.get(0);
    int count = brightness.size();
    tones = new Tone[count];
    curves = new Curves[count];
    for (int k = 0; k < count; k++) {
      Raster values = brightness.get(k);
      SampleType type = values.bands().get(0).type();
      tones[k] = Tone.of(statistics.get(k), type, lift, (long) side * side);
      curves[k] = tones[k].isFlat()
          ? null
          : new Curves(new Lifted(values, tones[k]), tones[k], limit, side);
    }
  }

  /** A band or brightness with its shadows lifted. */
  private static final class Lifted extends DerivedRaster {
    private final Raster source;
    private final Tone tone;

    Lifted(Raster source, Tone tone) {
      super(source.grid(), source.bands(), source.attachments(), source.zoom());
      this.source = source;
      this.tone = tone;
    }

    @Override
    protected boolean isRounded() {
      return true;
    }

    @Override
    protected void compute(int level, Window window, float[][] target, Request request) {
      source.read(level, window, target, request);
      tone.liftShadows(target[0]);
    }
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    if (!together) {
      scene.read(level, window, target, request);
      for (int b = 0; b < target.length; b++) {
        if (target[b] != null) {
          tones[b].liftShadows(target[b]);
          if (curves[b] != null) {
            curves[b].apply(level, window, target[b], request);
          }
        }
      }
      return;
    }
    float[] before = brightness.read(level, window, request)[0];
    float[] after = before.clone();
    tones[0].liftShadows(after);
    if (curves[0] != null) {
      curves[0].apply(level, window, after, request);
    }
    float[][] all = new float[target.length][window.area()];
    scene.read(level, window, all, request);
    float[] factor = factors(before, after, all);
    for (int b = 0; b < target.length; b++) {
      if (target[b] != null) {
        scale(all[b], dark[b], factor, target[b]);
      }
    }
  }

  private static void scale(float[] from, float dark, float[] factor, float[] to) {
    for (int i = 0; i < to.length; i++) {
      to[i] = dark + (from[i] - dark) * factor[i];
    }
  }

  /** No more than keeps every band within its samples, so that colours stay. */
  private float[] factors(float[] before, float[] after, float[][] all) {
    float[] factor = new float[before.length];
    for (int i = 0; i < factor.length; i++) {
      float light = before[i] - darkness;
      factor[i] = light > 0 ? Math.max(0, (after[i] - darkness) / light) : 1 + 0 * light;
    }
    for (int b = 0; b < all.length; b++) {
      float most = (float) bands().get(b).type().max();
      keepWithin(all[b], dark[b], most, factor);
    }
    return factor;
  }

  private static void keepWithin(float[] band, float dark, float most, float[] factor) {
    for (int i = 0; i < factor.length; i++) {
      if (dark + (band[i] - dark) * factor[i] > most) {
        factor[i] = (most - dark) / (band[i] - dark);
      }
    }
  }
}
