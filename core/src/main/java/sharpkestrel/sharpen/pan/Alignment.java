package sharpkestrel.sharpen.pan;

import java.util.List;
import java.util.Locale;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Kept;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Separable;
import sharpkestrel.raster.Taps;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/**
 * How far each multispectral band lies off the panchromatic one, in multispectral pixels: what it shows at a place belongs
 * {@code right} and {@code down} of it.
 */
public record Alignment(double[] right, double[] down) {

  /** Bands that lie where they should. */
  public static Alignment none(int bands) {
    return new Alignment(new double[bands], new double[bands]);
  }

  private record Measured(Raster multispectral, double contrast) {}

  /** Measures it, from the panchromatic band blurred to so much contrast. */
  public static Alignment find(Pair pair, double contrast, Job job) {
    return Kept.of(
        pair.pan(),
        new Measured(pair.multispectral(), contrast),
        () -> AlignmentFinder.find(pair, contrast, job));
  }

  /** The same in pixels of another size. */
  Alignment scaled(double factor) {
    double[] newRight = new double[right.length];
    double[] newDown = new double[right.length];
    for (int b = 0; b < right.length; b++) {
      newRight[b] = factor * right[b];
      newDown[b] = factor * down[b];
    }
    return new Alignment(newRight, newDown);
  }

  public boolean isNone() {
    for (int b = 0; b < right.length; b++) {
      if (right[b] != 0 || down[b] != 0) {
        return false;
      }
    }
    return true;
  }

  /** A scene's bands, each moved to where the panchromatic one shows the same. */
  Raster applyTo(Raster scene) {
    if (isNone()) {
      return scene;
    }
    return new DerivedRaster(
        scene.grid(), scene.bands(), scene.attachments(), Zoom.RESAMPLING.over(scene.zoom())) {
      @Override
      protected void compute(int level, Window window, float[][] target, Request request) {
        if (level > 0) {
          Planes.readByHalving(this, level, window, target, request);
          return;
        }
        for (int b = 0; b < target.length; b++) {
          if (target[b] != null) {
            Taps across = Taps.cubic(1, -right[b], window.x(), window.width());
            Taps downwards = Taps.cubic(1, -down[b], window.y(), window.height());
            Window source = Separable.needed(across, downwards);
            float[][] planes = new float[target.length][];
            planes[b] = new float[source.area()];
            scene.read(0, source, planes, request);
            Separable.resample(planes[b], across, downwards, scene.grid().window(), target[b]);
          }
        }
      }
    };
  }

  /** What was moved, for people. */
  public String toText(List<Band> bands) {
    StringBuilder text = new StringBuilder();
    for (int b = 0; b < right.length; b++) {
      text.append(String.format(
          Locale.ROOT,
          "%s%s %+.2f %+.2f",
          b == 0 ? "" : ", ",
          bands.get(b).name(),
          right[b],
          down[b]));
    }
    return text.toString();
  }
}
