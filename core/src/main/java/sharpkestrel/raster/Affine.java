package sharpkestrel.raster;

/**
 * An affine map from pixel coordinates to ground coordinates: {@code x = a*col + b*row + c},
 * {@code y = d*col + e*row + f}. The corner of the first pixel is (0, 0) and its centre (0.5, 0.5).
 */
public record Affine(double a, double b, double c, double d, double e, double f) {

  public static final Affine IDENTITY = new Affine(1, 0, 0, 0, 1, 0);

  /** North-up pixels of one size; (west, north) is the outer corner of the first pixel. */
  public static Affine northUp(double west, double north, double pixelSize) {
    return new Affine(pixelSize, 0, west, 0, -pixelSize, north);
  }

  public double x(double col, double row) {
    return a * col + b * row + c;
  }

  public double y(double col, double row) {
    return d * col + e * row + f;
  }

  /** The map that first applies {@code other}, then this one. */
  public Affine after(Affine other) {
    return new Affine(
        a * other.a + b * other.d,
        a * other.b + b * other.e,
        a * other.c + b * other.f + c,
        d * other.a + e * other.d,
        d * other.b + e * other.e,
        d * other.c + e * other.f + f);
  }

  /**
   * From ground to pixel coordinates.
   *
   * @throws IllegalStateException where pixels have no area
   */
  public Affine inverse() {
    double det = a * e - b * d;
    if (!(Math.abs(det) > 0) || Double.isInfinite(det)) {
      throw new IllegalStateException("The georeference gives pixels no area: " + this);
    }
    return new Affine(
        e / det, -b / det, (b * f - c * e) / det, -d / det, a / det, (c * d - a * f) / det);
  }

  /** Pixels {@code factor} times as large, from the same origin. */
  public Affine scaled(double factor) {
    return new Affine(a * factor, b * factor, c, d * factor, e * factor, f);
  }

  /** The same ground seen by a grid whose first pixel is (col, row) of this one. */
  public Affine shifted(double col, double row) {
    return new Affine(a, b, x(col, row), d, e, y(col, row));
  }

  public double pixelWidth() {
    return Math.hypot(a, d);
  }

  public double pixelHeight() {
    return Math.hypot(b, e);
  }

  public boolean isNorthUp() {
    return b == 0 && d == 0 && a > 0 && e < 0;
  }
}
