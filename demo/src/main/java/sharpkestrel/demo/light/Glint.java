package sharpkestrel.demo.light;

/**
 * Sun mirrored by waves: the share of facets that send it to the sensor, by the slopes Cox and Munk (1954) found for a
 * wind, without their skew. The slopes of waves large enough to be seen are added by the caller.
 */
public final class Glint {

  private static final double FRESNEL = 0.021;

  private final double slopeEast;
  private final double slopeNorth;
  private final double variance;
  private final double strength;

  /**
   * @param sun unit vector to the sun
   * @param view unit vector to the sensor
   * @param wind metres a second
   */
  public Glint(double[] sun, double[] view, double wind) {
    double z = sun[2] + view[2];
    slopeEast = -(sun[0] + view[0]) / z;
    slopeNorth = -(sun[1] + view[1]) / z;
    // half of the variance lies in ripples too small to be seen
    variance = 0.5 * (0.003 + 0.00512 * wind);
    double tilt = 1 + slopeEast * slopeEast + slopeNorth * slopeNorth;
    strength = FRESNEL * tilt * tilt / (4 * view[2] * variance);
  }

  /** Reflectance times the sine of the sun's elevation, where the seen waves have these slopes. */
  public double at(double waveEast, double waveNorth) {
    double e = slopeEast - waveEast;
    double n = slopeNorth - waveNorth;
    double x = (e * e + n * n) / variance;
    return x > 24 ? 0 : strength * Math.exp(-x);
  }
}
