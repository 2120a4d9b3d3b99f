package sharpkestrel.demo.sensor;

import static sharpkestrel.demo.sensor.Vectors.dot;

/**
 * A frame camera and the scan of its film: central projection, radial distortion (Brown 1971, first term), then the
 * affine distortion of film and scanner.
 */
public final class FrameCamera implements Sensor {

  private final int width;
  private final int height;
  private final double[] position;
  private final double[] right;
  private final double[] down;
  private final double[] look;
  private final double focal;
  private final double radial;
  private final double[] film;

  /**
   * @param position east, north and ellipsoidal height of the lens
   * @param omega turn about east, radians; {@code phi} about north, {@code kappa} about the vertical
   * @param focal length in pixels of the scan
   * @param radial share by which a point at the focal length from the middle is moved outwards
   * @param film pixels right and down in the scan for a pixel right and down on the film: a, b, c, d
   */
  public FrameCamera(
      int width,
      int height,
      double[] position,
      double omega,
      double phi,
      double kappa,
      double focal,
      double radial,
      double[] film) {
    this.width = width;
    this.height = height;
    this.position = position.clone();
    this.focal = focal;
    this.radial = radial;
    this.film = film.clone();
    right = turned(new double[] {1, 0, 0}, omega, phi, kappa);
    down = turned(new double[] {0, -1, 0}, omega, phi, kappa);
    look = turned(new double[] {0, 0, -1}, omega, phi, kappa);
  }

  /** A vector turned about the vertical, then north, then east. */
  private static double[] turned(double[] v, double omega, double phi, double kappa) {
    double x = v[0] * Math.cos(kappa) - v[1] * Math.sin(kappa);
    double y = v[0] * Math.sin(kappa) + v[1] * Math.cos(kappa);
    double z = v[2];
    double x2 = x * Math.cos(phi) + z * Math.sin(phi);
    double z2 = -x * Math.sin(phi) + z * Math.cos(phi);
    return new double[] {
      x2, y * Math.cos(omega) - z2 * Math.sin(omega), y * Math.sin(omega) + z2 * Math.cos(omega)
    };
  }

  @Override
  public int width() {
    return width;
  }

  @Override
  public int height() {
    return height;
  }

  @Override
  public Row row(double row) {
    double py = row - height / 2.0;
    double determinant = film[0] * film[3] - film[1] * film[2];
    return (col, ray) -> {
      double px = col - width / 2.0;
      double x = (film[3] * px - film[1] * py) / determinant / focal;
      double y = (film[0] * py - film[2] * px) / determinant / focal;
      double moved = Math.hypot(x, y);
      // Newton for the distance before the lens moved it
      double r = moved;
      for (int k = 0; k < 6; k++) {
        r -= (r * (1 + radial * r * r) - moved) / (1 + 3 * radial * r * r);
      }
      double share = moved < 1e-12 ? 1 : r / moved;
      double a = x * share;
      double b = y * share;
      double dz = look[2] + a * right[2] + b * down[2];
      ray[2] = (look[0] + a * right[0] + b * down[0]) / dz;
      ray[3] = (look[1] + a * right[1] + b * down[1]) / dz;
      ray[0] = position[0] - position[2] * ray[2];
      ray[1] = position[1] - position[2] * ray[3];
    };
  }

  @Override
  public void toImage(double east, double north, double h, double[] image) {
    double[] d = {east - position[0], north - position[1], h - position[2]};
    double depth = dot(d, look);
    double x = dot(d, right) / depth;
    double y = dot(d, down) / depth;
    double bend = 1 + radial * (x * x + y * y);
    x *= bend * focal;
    y *= bend * focal;
    image[0] = width / 2.0 + film[0] * x + film[1] * y;
    image[1] = height / 2.0 + film[2] * x + film[3] * y;
  }
}
