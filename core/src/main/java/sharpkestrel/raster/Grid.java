package sharpkestrel.raster;

/**
 * Where pixels lie: size, affine from pixel to ground, and the name of the CRS. A grid without CRS still has pixels
 * of a size, so that areas in m² make sense on raw scenes.
 */
public record Grid(int width, int height, Affine affine, CrsName crs) {

  public Grid {
    if (width < 1 || height < 1) {
      throw new IllegalArgumentException(
          "A grid needs at least one pixel each way, not " + width + " x " + height);
    }
  }

  /** A grid of plain pixels with nothing known of the ground. */
  public static Grid ofPixels(int width, int height) {
    return new Grid(width, height, Affine.IDENTITY, CrsName.NONE);
  }

  /** Pixels along one side at a level: half the size for each level, rounded up. */
  public static int sizeAt(int size, int level) {
    return level >= 31 ? 1 : (int) (((long) size + (1L << level) - 1) >> level);
  }

  /** The same ground in pixels twice as large for each level. */
  public Grid atLevel(int level) {
    if (level == 0) {
      return this;
    }
    return new Grid(sizeAt(width, level), sizeAt(height, level), affine.scaled(1L << level), crs);
  }

  /** Levels until the longer side is at most 256 pixels, level 0 included. */
  public int levels() {
    int levels = 1;
    while (Math.max(sizeAt(width, levels - 1), sizeAt(height, levels - 1)) > 256) {
      levels++;
    }
    return levels;
  }

  public Window window() {
    return new Window(0, 0, width, height);
  }

  public Grid part(Window window) {
    return new Grid(window.width(), window.height(), affine.shifted(window.x(), window.y()), crs);
  }

  public long pixels() {
    return (long) width * height;
  }

  /** West, south, east, north of the four corners. */
  public Extent extent() {
    double west = Double.POSITIVE_INFINITY;
    double south = west;
    double east = -west;
    double north = -west;
    for (int corner = 0; corner < 4; corner++) {
      double col = (corner & 1) * (double) width;
      double row = (corner >> 1) * (double) height;
      west = Math.min(west, affine.x(col, row));
      east = Math.max(east, affine.x(col, row));
      south = Math.min(south, affine.y(col, row));
      north = Math.max(north, affine.y(col, row));
    }
    return new Extent(west, south, east, north);
  }

  /** The whole pixels nearest to an extent, within the grid; empty where it lies elsewhere. */
  public Window under(Extent extent) {
    Affine toPixel = affine.inverse();
    double left = Double.POSITIVE_INFINITY;
    double top = left;
    double right = -left;
    double bottom = -left;
    for (int corner = 0; corner < 4; corner++) {
      double x = (corner & 1) == 0 ? extent.west() : extent.east();
      double y = (corner >> 1) == 0 ? extent.south() : extent.north();
      left = Math.min(left, toPixel.x(x, y));
      right = Math.max(right, toPixel.x(x, y));
      top = Math.min(top, toPixel.y(x, y));
      bottom = Math.max(bottom, toPixel.y(x, y));
    }
    long x0 = Math.round(Math.max(left, 0));
    long y0 = Math.round(Math.max(top, 0));
    long x1 = Math.round(Math.min(right, width));
    long y1 = Math.round(Math.min(bottom, height));
    return new Window(
        (int) Math.min(x0, width), (int) Math.min(y0, height), (int) Math.max(0, x1 - x0), (int)
            Math.max(0, y1 - y0));
  }

  /** Area of one pixel in square units of the affine. */
  public double pixelArea() {
    return Math.abs(affine.a() * affine.e() - affine.b() * affine.d());
  }

  /** The side of a square of one pixel's area. */
  public double pixelSize() {
    return Math.sqrt(pixelArea());
  }

  /** A north-up grid of whole pixels that covers an extent from its north-west corner, to a thousandth of a pixel. */
  public static Grid covering(Extent extent, double pixelSize, CrsName crs) {
    int width = (int) Math.max(1, Math.ceil(extent.width() / pixelSize - 1e-3));
    int height = (int) Math.max(1, Math.ceil(extent.height() / pixelSize - 1e-3));
    return new Grid(width, height, Affine.northUp(extent.west(), extent.north(), pixelSize), crs);
  }

  /** Whether both describe the same pixels to a thousandth of one, and the same CRS. */
  public boolean coincides(Grid other) {
    if (width != other.width || height != other.height || !crs.equals(other.crs)) {
      return false;
    }
    double tolerance = 1e-3 * pixelSize();
    Extent one = extent();
    Extent two = other.extent();
    return Math.abs(one.west() - two.west()) < tolerance
        && Math.abs(one.east() - two.east()) < tolerance
        && Math.abs(one.south() - two.south()) < tolerance
        && Math.abs(one.north() - two.north()) < tolerance;
  }
}
