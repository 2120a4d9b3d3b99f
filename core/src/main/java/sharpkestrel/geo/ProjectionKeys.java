package sharpkestrel.geo;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Map projections as GeoTIFF keys tell them (OGC 19-008r4, annex C and the registry of coordinate transformation codes), with
 * the methods and parameters of EPSG that they stand for.
 *
 * @param code of the projection in key 3075
 * @param method by its EPSG name
 */
record ProjectionKeys(int code, String method, List<Parameter> parameters) {

  /** What a parameter measures. */
  enum Kind {
    ANGLE,
    LENGTH,
    SCALE
  }

  /**
   * @param name by EPSG
   * @param keys that hold it; the first is written, any is read
   * @param otherwise where none is there; NaN where it must be
   */
  record Parameter(String name, Kind kind, double otherwise, int... keys) {

    Optional<Double> in(Map<Integer, Double> numbers) {
      return Arrays.stream(keys).mapToObj(numbers::get).filter(n -> n != null).findFirst();
    }
  }

  private static final int STANDARD_1 = 3078;
  private static final int STANDARD_2 = 3079;
  private static final int ORIGIN_LONGITUDE = 3080;
  private static final int ORIGIN_LATITUDE = 3081;
  private static final int FALSE_EASTING = 3082;
  private static final int FALSE_NORTHING = 3083;
  private static final int FALSE_LONGITUDE = 3084;
  private static final int FALSE_LATITUDE = 3085;
  private static final int FALSE_ORIGIN_EASTING = 3086;
  private static final int FALSE_ORIGIN_NORTHING = 3087;
  private static final int CENTRE_LONGITUDE = 3088;
  private static final int CENTRE_LATITUDE = 3089;
  private static final int ORIGIN_SCALE = 3092;
  private static final int CENTRE_SCALE = 3093;
  private static final int AZIMUTH = 3094;
  private static final int STRAIGHT_LONGITUDE = 3095;
  private static final int GRID_ANGLE = 3096;

  private static final Parameter LATITUDE =
      angle("Latitude of natural origin", ORIGIN_LATITUDE, CENTRE_LATITUDE);
  private static final Parameter LONGITUDE =
      angle("Longitude of natural origin", ORIGIN_LONGITUDE, CENTRE_LONGITUDE);
  private static final Parameter CENTRED_LATITUDE =
      angle("Latitude of natural origin", CENTRE_LATITUDE, ORIGIN_LATITUDE);
  private static final Parameter CENTRED_LONGITUDE =
      angle("Longitude of natural origin", CENTRE_LONGITUDE, ORIGIN_LONGITUDE);
  private static final Parameter SCALE =
      new Parameter("Scale factor at natural origin", Kind.SCALE, 1, ORIGIN_SCALE, CENTRE_SCALE);
  private static final Parameter EASTING = length("False easting", FALSE_EASTING);
  private static final Parameter NORTHING = length("False northing", FALSE_NORTHING);
  private static final Parameter FIRST = angle("Latitude of 1st standard parallel", STANDARD_1);
  private static final Parameter SECOND = angle("Latitude of 2nd standard parallel", STANDARD_2);

  private static final List<ProjectionKeys> ALL = List.of(
      of(1, "Transverse Mercator", LATITUDE, LONGITUDE, SCALE, EASTING, NORTHING),
      of(
          3,
          "Hotine Oblique Mercator (variant A)",
          angle("Latitude of projection centre", CENTRE_LATITUDE),
          angle("Longitude of projection centre", CENTRE_LONGITUDE),
          angle("Azimuth of initial line", AZIMUTH),
          angle("Angle from Rectified to Skew Grid", GRID_ANGLE),
          new Parameter("Scale factor on initial line", Kind.SCALE, 1, CENTRE_SCALE, ORIGIN_SCALE),
          EASTING,
          NORTHING),
      of(
          9815,
          "Hotine Oblique Mercator (variant B)",
          angle("Latitude of projection centre", CENTRE_LATITUDE),
          angle("Longitude of projection centre", CENTRE_LONGITUDE),
          angle("Azimuth of initial line", AZIMUTH),
          angle("Angle from Rectified to Skew Grid", GRID_ANGLE),
          new Parameter("Scale factor on initial line", Kind.SCALE, 1, CENTRE_SCALE, ORIGIN_SCALE),
          length("Easting at projection centre", FALSE_EASTING),
          length("Northing at projection centre", FALSE_NORTHING)),
      of(
          7,
          "Mercator (variant B)",
          new Parameter("Latitude of 1st standard parallel", Kind.ANGLE, Double.NaN, STANDARD_1),
          LONGITUDE,
          EASTING,
          NORTHING),
      of(7, "Mercator (variant A)", LATITUDE, LONGITUDE, SCALE, EASTING, NORTHING),
      of(
          8,
          "Lambert Conic Conformal (2SP)",
          angle("Latitude of false origin", FALSE_LATITUDE, ORIGIN_LATITUDE),
          angle("Longitude of false origin", FALSE_LONGITUDE, ORIGIN_LONGITUDE),
          FIRST,
          SECOND,
          length("Easting at false origin", FALSE_ORIGIN_EASTING, FALSE_EASTING),
          length("Northing at false origin", FALSE_ORIGIN_NORTHING, FALSE_NORTHING)),
      of(9, "Lambert Conic Conformal (1SP)", LATITUDE, LONGITUDE, SCALE, EASTING, NORTHING),
      of(
          10,
          "Lambert Azimuthal Equal Area",
          CENTRED_LATITUDE,
          CENTRED_LONGITUDE,
          EASTING,
          NORTHING),
      of(
          11,
          "Albers Equal Area",
          angle("Latitude of false origin", ORIGIN_LATITUDE, FALSE_LATITUDE),
          angle("Longitude of false origin", ORIGIN_LONGITUDE, FALSE_LONGITUDE),
          FIRST,
          SECOND,
          length("Easting at false origin", FALSE_EASTING, FALSE_ORIGIN_EASTING),
          length("Northing at false origin", FALSE_NORTHING, FALSE_ORIGIN_NORTHING)),
      of(
          15,
          "Polar Stereographic (variant B)",
          angle("Latitude of standard parallel", ORIGIN_LATITUDE),
          angle("Longitude of origin", STRAIGHT_LONGITUDE, ORIGIN_LONGITUDE),
          EASTING,
          NORTHING),
      of(
          15,
          "Polar Stereographic (variant A)",
          LATITUDE,
          angle("Longitude of natural origin", STRAIGHT_LONGITUDE, ORIGIN_LONGITUDE),
          SCALE,
          EASTING,
          NORTHING),
      of(16, "Oblique Stereographic", LATITUDE, LONGITUDE, SCALE, EASTING, NORTHING),
      of(17, "Equidistant Cylindrical", FIRST, CENTRED_LONGITUDE, EASTING, NORTHING),
      of(18, "Cassini-Soldner", LATITUDE, LONGITUDE, EASTING, NORTHING),
      of(21, "Orthographic", CENTRED_LATITUDE, CENTRED_LONGITUDE, EASTING, NORTHING),
      of(22, "American Polyconic", LATITUDE, LONGITUDE, EASTING, NORTHING),
      of(24, "Sinusoidal", CENTRED_LONGITUDE, EASTING, NORTHING),
      of(26, "New Zealand Map Grid", LATITUDE, LONGITUDE, EASTING, NORTHING),
      of(28, "Lambert Cylindrical Equal Area", FIRST, LONGITUDE, EASTING, NORTHING));

  private static ProjectionKeys of(int code, String method, Parameter... parameters) {
    return new ProjectionKeys(code, method, List.of(parameters));
  }

  private static Parameter angle(String name, int... keys) {
    return new Parameter(name, Kind.ANGLE, 0, keys);
  }

  private static Parameter length(String name, int... keys) {
    return new Parameter(name, Kind.LENGTH, 0, keys);
  }

  /** The projection that keys tell; which of two variants, by what numbers there are. */
  static Optional<ProjectionKeys> of(int code, Map<Integer, Double> numbers) {
    boolean atPole = Math.abs(Math.abs(numbers.getOrDefault(ORIGIN_LATITUDE, 90.0)) - 90) < 1e-9;
    return ALL.stream()
        .filter(p -> p.code == code)
        .filter(p -> !p.method.equals("Mercator (variant B)") || numbers.containsKey(STANDARD_1))
        .filter(p -> !p.method.equals("Polar Stereographic (variant B)") || !atPole)
        .findFirst();
  }

  static Optional<ProjectionKeys> ofMethod(String name) {
    return ALL.stream().filter(p -> p.method.equals(name)).findFirst();
  }
}
