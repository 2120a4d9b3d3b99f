package sharpkestrel.geo;

import java.time.Instant;
import java.util.EnumMap;
import java.util.Map;
import java.util.Optional;
import sharpkestrel.raster.BandRole;

/**
 * When and how a scene was taken, and how its numbers relate to radiance.
 *
 * @param time null-free: {@link Instant#EPOCH} where not known
 * @param sunElevation degrees above the horizon
 * @param sunAzimuth degrees clockwise from north
 * @param viewOffNadir degrees between the view and the vertical at the ground
 * @param viewAzimuth degrees clockwise from north, from the ground towards the sensor
 * @param calibration by band role
 */
public record Acquisition(
    Instant time,
    double sunElevation,
    double sunAzimuth,
    double viewOffNadir,
    double viewAzimuth,
    Map<BandRole, Calibration> calibration) {

  /**
   * @param gain radiance (W m-2 sr-1 µm-1) a number
   * @param offset radiance at number 0
   * @param irradiance of the sun at the mean distance, W m-2 µm-1
   */
  public record Calibration(double gain, double offset, double irradiance) {}

  public Acquisition {
    calibration = calibration.isEmpty()
        ? Map.of()
        : Map.copyOf(new EnumMap<BandRole, Calibration>(calibration));
  }

  public Optional<Calibration> calibrationOf(BandRole role) {
    return Optional.ofNullable(calibration.get(role));
  }

  /**
   * Distance of earth and sun in astronomical units, to 1e-4 (Spencer 1971, Fourier series of the eccentricity
   * correction).
   */
  public double sunDistance() {
    double dayOfYear = time.atZone(java.time.ZoneOffset.UTC).getDayOfYear();
    double angle = 2 * Math.PI * (dayOfYear - 1) / 365;
    double correction = 1.000110
        + 0.034221 * Math.cos(angle)
        + 0.001280 * Math.sin(angle)
        + 0.000719 * Math.cos(2 * angle)
        + 0.000077 * Math.sin(2 * angle);
    return 1 / Math.sqrt(correction);
  }

  /**
   * Factor and addend that turn numbers of a role into top-of-atmosphere reflectance: {@code pi * L * d² / (E * sin
   * elevation)}, with radiance {@code L = gain * number + offset}.
   */
  public Optional<double[]> reflectance(BandRole role) {
    if (!(sunElevation > 0)) {
      return Optional.empty();
    }
    return calibrationOf(role).filter(c -> c.irradiance() > 0).map(c -> {
      double d = sunDistance();
      double k = Math.PI * d * d / (c.irradiance() * Math.sin(Math.toRadians(sunElevation)));
      return new double[] {k * c.gain(), k * c.offset()};
    });
  }
}
