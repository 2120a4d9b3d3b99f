package sharpkestrel.geo;

import java.time.Duration;
import java.time.Instant;
import java.util.EnumMap;
import java.util.Map;
import java.util.Optional;
import sharpkestrel.raster.Attachments;
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

  private static final Instant J2000 = Instant.parse("2000-01-01T12:00:00Z");

  public Acquisition {
    calibration = calibration.isEmpty()
        ? Map.of()
        : Map.copyOf(new EnumMap<BandRole, Calibration>(calibration));
  }

  /** When a scene was taken; empty where that is not known. */
  public static Optional<Instant> timeOf(Attachments attachments) {
    return attachments
        .get(Acquisition.class)
        .map(Acquisition::time)
        .filter(time -> !time.equals(Instant.EPOCH));
  }

  public Optional<Calibration> calibrationOf(BandRole role) {
    return Optional.ofNullable(calibration.get(role));
  }

  /**
   * Distance of earth and sun in astronomical units, to 1e-4 (Astronomical Almanac, section C, low-precision formulas
   * for the sun).
   */
  public double sunDistance() {
    double daysFrom2000 = Duration.between(J2000, time).toSeconds() / 86_400.0;
    double anomaly = Math.toRadians(357.528 + 0.9856003 * daysFrom2000);
    return 1.00014 - 0.01671 * Math.cos(anomaly) - 0.00014 * Math.cos(2 * anomaly);
  }

  /**
   * Factor and addend that turn numbers of a role into top-of-atmosphere reflectance: {@code pi * L * d² / (E * sin
   * elevation)}, with radiance {@code L = gain * number + offset}. Empty where gain, irradiance, sun or time are not known.
   */
  public Optional<double[]> reflectance(BandRole role) {
    if (!(sunElevation > 0) || time.equals(Instant.EPOCH)) {
      return Optional.empty();
    }
    return calibrationOf(role).filter(c -> c.irradiance() > 0).map(c -> {
      double d = sunDistance();
      double k = Math.PI * d * d / (c.irradiance() * Math.sin(Math.toRadians(sunElevation)));
      return new double[] {k * c.gain(), k * c.offset()};
    });
  }
}
