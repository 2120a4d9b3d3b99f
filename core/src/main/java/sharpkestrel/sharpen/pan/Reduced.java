package sharpkestrel.sharpen.pan;

import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandsOf;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Separable;
import sharpkestrel.raster.Taps;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/** A scene as a coarser sensor would have seen it: blurred by a Gaussian, on a grid of larger pixels, as floats. */
final class Reduced extends DerivedRaster {

  private final Raster source;
  private final Affine toSource;
  private final double sigma;

  /**
   * @param grid of the coarser sensor
   * @param toSource from its pixels to the source's, without rotation
   * @param sigma standard deviation in pixels of the source
   */
  private Reduced(Raster source, Grid grid, Affine toSource, double sigma) {
    super(
        grid,
        source.bands().stream().map(Reduced::asFloat).toList(),
        source.attachments(),
        Zoom.FULL_RESOLUTION);
    this.source = source;
    this.toSource = toSource;
    this.sigma = sigma;
  }

  private static Band asFloat(Band band) {
    return band.withType(SampleType.FLOAT32, Double.NaN);
  }

  /**
   * The panchromatic band on the multispectral grid.
   *
   * @param contrast of the multispectral sensor at its Nyquist frequency
   */
  static Raster pan(Pair pair, double contrast) {
    Affine map = pair.toMultispectral();
    return new Reduced(
        new BandsOf(pair.pan(), pair.panBand()),
        pair.multispectral().grid(),
        new Affine(1 / map.a(), 0, -map.c() / map.a(), 0, 1 / map.e(), -map.f() / map.e()),
        pair.sigma(contrast));
  }

  /** The multispectral scene in pixels as much larger than its own as those are than the panchromatic ones. */
  static Raster multispectral(Pair pair, double contrast) {
    Raster scene = pair.multispectral();
    double across = 1 / pair.toMultispectral().a();
    double down = 1 / pair.toMultispectral().e();
    Affine fine = scene.grid().affine();
    Grid grid = new Grid(
        (int) Math.max(1, Math.floor(scene.grid().width() / across)),
        (int) Math.max(1, Math.floor(scene.grid().height() / down)),
        fine.after(new Affine(across, 0, 0, 0, down, 0)),
        scene.grid().crs());
    return new Reduced(scene, grid, new Affine(across, 0, 0, 0, down, 0), pair.sigma(contrast));
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    if (level > 0) {
      Planes.readByHalving(this, level, window, target, request);
      return;
    }
    Taps across = Taps.gaussian(toSource.a(), toSource.c(), window.x(), window.width(), sigma);
    Taps down = Taps.gaussian(toSource.e(), toSource.f(), window.y(), window.height(), sigma);
    Window under = Separable.needed(across, down);
    float[][] planes = Planes.like(target, under.area());
    source.read(0, under, planes, request);
    for (int b = 0; b < target.length; b++) {
      if (target[b] != null) {
        Separable.resample(planes[b], across, down, source.grid().window(), target[b]);
      }
    }
  }
}
