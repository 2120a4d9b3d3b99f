package sharpkestrel.sharpen;

import java.util.List;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Resampling;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/** Multispectral bands, interpolated onto the panchromatic grid by cubic convolution, with detail injected. */
final class PansharpenRaster extends DerivedRaster {

  private final Raster pan;
  private final int panBand;
  private final Raster multispectral;
  private final Affine toMultispectral;
  private final PanModel model;
  private final Pansharpen.Method method;
  private final double ratio;

  PansharpenRaster(
      Raster pan,
      int panBand,
      Raster multispectral,
      Affine toMultispectral,
      List<Band> bands,
      PanModel model,
      Pansharpen.Method method) {
    super(
        pan.grid(),
        bands,
        multispectral.attachments(),
        Zoom.RESAMPLING.over(pan.zoom()).over(multispectral.zoom()));
    this.pan = pan;
    this.panBand = panBand;
    this.multispectral = multispectral;
    this.toMultispectral = toMultispectral;
    this.model = model;
    this.method = method;
    this.ratio = pan.grid().pixelSize() / multispectral.grid().pixelSize();
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    int count = window.area();
    float[][] panTarget = new float[pan.bands().size()][];
    panTarget[panBand] = new float[count];
    pan.read(level, window, panTarget, request);
    float[] detail = panTarget[panBand];
    float[][] bands = new float[multispectral.bands().size()][count];
    upsample(level, window, bands, request);
    double[] w = model.weights();
    boolean brovey = method == Pansharpen.Method.BROVEY;
    for (int i = 0; i < count; i++) {
      double intensity = model.constant();
      for (int b = 0; b < bands.length; b++) {
        if (brovey) {
          // Beside a bright edge the cubic kernel swings below 0, which a factor would make a
          // colour of.
          bands[b][i] = Math.max(0, bands[b][i]);
        }
        intensity += w[b] * bands[b][i];
      }
      // Brovey's factor and the adaptive method's difference both carry the detail of this pixel.
      detail[i] = brovey
          ? intensity > 0 ? (float) (detail[i] / intensity) : Float.NaN
          : (float) (detail[i] - intensity);
    }
    for (int b = 0; b < target.length; b++) {
      if (target[b] == null) {
        continue;
      }
      float gain = (float) model.gains()[b];
      for (int i = 0; i < count; i++) {
        target[b][i] = brovey ? bands[b][i] * detail[i] : bands[b][i] + gain * detail[i];
      }
    }
  }

  private void upsample(int level, Window window, float[][] bands, Request request) {
    int msLevel = Math.max(0, Math.min(multispectral.levels() - 1, (int)
        Math.floor(Math.log(ratio * (1 << level)) / Math.log(2) + 0.1)));
    Affine affine = new Affine(1.0 / (1 << msLevel), 0, 0, 0, 1.0 / (1 << msLevel), 0)
        .after(toMultispectral)
        .scaled(1L << level);
    int count = window.area();
    double[] xs = new double[count];
    double[] ys = new double[count];
    for (int y = 0; y < window.height(); y++) {
      for (int x = 0; x < window.width(); x++) {
        int i = y * window.width() + x;
        xs[i] = affine.x(window.x() + x + 0.5, window.y() + y + 0.5);
        ys[i] = affine.y(window.x() + x + 0.5, window.y() + y + 0.5);
      }
    }
    Window source = Window.under(
        xs,
        ys,
        count,
        Resampling.CUBIC.reach(),
        multispectral.grid().atLevel(msLevel).window());
    if (source.isEmpty()) {
      Planes.fillNaN(bands);
      return;
    }
    float[][] planes = multispectral.read(msLevel, source, request);
    for (int i = 0; i < count; i++) {
      xs[i] -= source.x();
      ys[i] -= source.y();
    }
    Resampling.CUBIC.sample(planes, source.width(), source.height(), xs, ys, count, bands);
  }
}
