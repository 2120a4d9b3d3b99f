package sharpkestrel.demo.light;

import java.time.Instant;

/**
 * Where the sun stands, from date, time and place by the low-precision formulae of the Astronomical Almanac (section C,
 * good to 0.01 degrees between 1950 and 2050), without refraction.
 *
 * @param elevation degrees above the horizon
 * @param azimuth degrees clockwise from north
 */
public record Sun(double elevation, double azimuth) {

  private static final double J2000 = 946_728_000;

  public static Sun at(Instant time, double longitude, double latitude) {
    double days = (time.toEpochMilli() / 1000.0 - J2000) / 86_400;
    double mean = Math.toRadians(280.460 + 0.9856474 * days);
    double anomaly = Math.toRadians(357.528 + 0.9856003 * days);
    double ecliptic = mean
        + Math.toRadians(1.915) * Math.sin(anomaly)
        + Math.toRadians(0.020) * Math.sin(2 * anomaly);
    double obliquity = Math.toRadians(23.439 - 0.0000004 * days);
    double ascension = Math.atan2(Math.cos(obliquity) * Math.sin(ecliptic), Math.cos(ecliptic));
    double declination = Math.asin(Math.sin(obliquity) * Math.sin(ecliptic));
    double sidereal = Math.toRadians(280.46062 + 360.98564737 * days + longitude);
    double hour = sidereal - ascension;
    double phi = Math.toRadians(latitude);
    double up = Math.sin(phi) * Math.sin(declination)
        + Math.cos(phi) * Math.cos(declination) * Math.cos(hour);
    double east = -Math.cos(declination) * Math.sin(hour);
    double north = Math.cos(phi) * Math.sin(declination)
        - Math.sin(phi) * Math.cos(declination) * Math.cos(hour);
    double azimuth = Math.toDegrees(Math.atan2(east, north));
    return new Sun(Math.toDegrees(Math.asin(up)), (azimuth + 360) % 360);
  }

  /** Unit vector towards the sun: east, north, up. */
  public double[] direction() {
    double e = Math.toRadians(elevation);
    double a = Math.toRadians(azimuth);
    return new double[] {Math.cos(e) * Math.sin(a), Math.cos(e) * Math.cos(a), Math.sin(e)};
  }
}
