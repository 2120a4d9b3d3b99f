package sharpkestrel.raster;

/** A raster on the pixels of another grid, finer ones than its own and not turned against them. */
public final class Regridded extends DerivedRaster {

  /** How values between pixel centres are found. */
  public enum Kernel {
    BILINEAR,
    CUBIC
  }

  private final Raster source;
  private final Affine toSource;
  private final Kernel kernel;

  /**
   * @param toSource from the grid's pixels to those of the source, without rotation
   */
  public Regridded(Raster source, Grid grid, Affine toSource, Kernel kernel) {
    super(grid, source.bands(), source.attachments(), Zoom.RESAMPLING.over(source.zoom()));
    this.source = source;
    this.toSource = toSource;
    this.kernel = kernel;
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    int theirs = levelFor(source, (1 << level) * Math.sqrt(toSource.a() * toSource.e()));
    double share = 1.0 / (1 << theirs);
    Affine map = new Affine(share, 0, 0, 0, share, 0).after(toSource).scaled(1L << level);
    Taps across = taps(map.a(), map.c(), window.x(), window.width());
    Taps down = taps(map.e(), map.f(), window.y(), window.height());
    Window needed = Separable.needed(across, down);
    float[][] planes = Planes.like(target, needed.area());
    source.read(theirs, needed, planes, request);
    Window whole = source.grid().atLevel(theirs).window();
    for (int b = 0; b < target.length; b++) {
      if (target[b] != null) {
        Separable.resample(planes[b], across, down, whole, target[b]);
      }
    }
  }

  /** The level of a raster whose pixels are no larger than so many of its full-size ones. */
  public static int levelFor(Raster raster, double pixels) {
    int level = (int) Math.floor(Math.log(pixels) / Math.log(2) + 0.1);
    return Math.max(0, Math.min(raster.levels() - 1, level));
  }

  private Taps taps(double step, double start, int from, int count) {
    return kernel == Kernel.CUBIC
        ? Taps.cubic(step, start, from, count)
        : Taps.bilinear(step, start, from, count);
  }
}
