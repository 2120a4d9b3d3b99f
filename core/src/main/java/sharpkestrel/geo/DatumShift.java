package sharpkestrel.geo;

import java.util.Optional;

/**
 * From one datum to WGS 84 by a similarity of geocentric coordinates (EPSG guidance note 7-2, method 9606, position vector):
 * translations in metres, small rotations in seconds of arc, scale in parts per million. Heights are taken as 0.
 */
record DatumShift(double tx, double ty, double tz, double rx, double ry, double rz, double ppm) {

  private static final int ITERATIONS = 6;

  static Optional<DatumShift> parse(String text) {
    String[] n = text.split(" ");
    return n.length != 7
        ? Optional.empty()
        : Optional.of(new DatumShift(
            Double.parseDouble(n[0]),
            Double.parseDouble(n[1]),
            Double.parseDouble(n[2]),
            Double.parseDouble(n[3]),
            Double.parseDouble(n[4]),
            Double.parseDouble(n[5]),
            Double.parseDouble(n[6])));
  }

  /** An ellipsoid by its semi-major axis in metres and the square of its eccentricity. */
  record Ellipsoid(double a, double e2) {

    static final Ellipsoid WGS84 = new Ellipsoid(6_378_137, 0.006694379990141317);
  }

  /** Longitudes and latitudes in degrees on an ellipsoid of the datum, to those of WGS 84. */
  CoordinateMap toWgs84(Ellipsoid own) {
    return (lonLat, count) -> {
      double[] xyz = new double[3];
      for (int i = 0; i < count; i++) {
        toGeocentric(own, lonLat[2 * i], lonLat[2 * i + 1], xyz);
        forward(xyz);
        toGeographic(Ellipsoid.WGS84, xyz, lonLat, i);
      }
    };
  }

  CoordinateMap fromWgs84(Ellipsoid own) {
    return (lonLat, count) -> {
      double[] xyz = new double[3];
      for (int i = 0; i < count; i++) {
        toGeocentric(Ellipsoid.WGS84, lonLat[2 * i], lonLat[2 * i + 1], xyz);
        backward(xyz);
        toGeographic(own, xyz, lonLat, i);
      }
    };
  }

  private void forward(double[] xyz) {
    double s = 1 + ppm * 1e-6;
    double x = xyz[0];
    double y = xyz[1];
    double z = xyz[2];
    double a = radians(rx);
    double b = radians(ry);
    double c = radians(rz);
    xyz[0] = s * (x - c * y + b * z) + tx;
    xyz[1] = s * (c * x + y - a * z) + ty;
    xyz[2] = s * (-b * x + a * y + z) + tz;
  }

  /** By iteration, as rotations are small: each step is exact to the square of the one before. */
  private void backward(double[] xyz) {
    double[] wanted = xyz.clone();
    double[] guess = xyz.clone();
    for (int k = 0; k < ITERATIONS; k++) {
      double[] there = guess.clone();
      forward(there);
      for (int i = 0; i < 3; i++) {
        guess[i] += wanted[i] - there[i];
      }
    }
    System.arraycopy(guess, 0, xyz, 0, 3);
  }

  private static double radians(double seconds) {
    return Math.toRadians(seconds / 3600);
  }

  private static void toGeocentric(Ellipsoid on, double lon, double lat, double[] xyz) {
    double phi = Math.toRadians(lat);
    double lambda = Math.toRadians(lon);
    double sin = Math.sin(phi);
    double n = on.a() / Math.sqrt(1 - on.e2() * sin * sin);
    xyz[0] = n * Math.cos(phi) * Math.cos(lambda);
    xyz[1] = n * Math.cos(phi) * Math.sin(lambda);
    xyz[2] = n * (1 - on.e2()) * sin;
  }

  /** Latitude by fixed point on the parametric one (Bowring 1985), to below a nanodegree near the surface. */
  private static void toGeographic(Ellipsoid on, double[] xyz, double[] lonLat, int i) {
    double p = Math.hypot(xyz[0], xyz[1]);
    double f = 1 - Math.sqrt(1 - on.e2());
    double b = on.a() * (1 - f);
    double second = on.e2() / (1 - on.e2());
    double beta = Math.atan2(on.a() * xyz[2], b * p);
    double phi = 0;
    for (int k = 0; k < 3; k++) {
      double sin = Math.sin(beta);
      double cos = Math.cos(beta);
      phi =
          Math.atan2(xyz[2] + second * b * sin * sin * sin, p - on.e2() * on.a() * cos * cos * cos);
      beta = Math.atan2((1 - f) * Math.sin(phi), Math.cos(phi));
    }
    lonLat[2 * i] = Math.toDegrees(Math.atan2(xyz[1], xyz[0]));
    lonLat[2 * i + 1] = Math.toDegrees(phi);
  }
}
