package sharpkestrel.geo;

import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.opengis.parameter.ParameterNotFoundException;
import org.opengis.parameter.ParameterValueGroup;
import sharpkestrel.raster.CrsName;

/**
 * Coordinate reference systems that GeoTIFF keys give by their parameters and not by a code (OGC 19-008r4), as well-known text
 * and back.
 */
public final class GeoTiffCrs {

  public static final int USER_DEFINED = 32767;

  public static final int GEOGRAPHIC = 2048;
  public static final int PROJECTED = 3072;
  private static final int ANGULAR_UNIT = 2054;
  private static final int DATUM = 2050;
  private static final int ELLIPSOID = 2056;
  private static final int SEMI_MAJOR = 2057;
  private static final int SEMI_MINOR = 2058;
  private static final int INVERSE_FLATTENING = 2059;
  private static final int PRIME_MERIDIAN = 2061;
  private static final int CONVERSION = 3074;
  private static final int METHOD = 3075;
  private static final int LINEAR_UNIT = 3076;
  private static final int LINEAR_UNIT_SIZE = 3077;

  private static final int METRE = 9001;
  private static final int FOOT = 9002;
  private static final int SURVEY_FOOT = 9003;
  private static final int RADIAN = 9101;
  private static final int DEGREE = 9102;
  private static final int GON = 9105;
  private static final double DEGREES = Math.PI / 180;

  private GeoTiffCrs() {}

  /**
   * @param numbers the keys that hold numbers
   * @param name what the file calls the system
   * @return empty where the keys give none, or one that is not understood
   */
  public static Optional<CrsName> read(Map<Integer, Double> numbers, String name) {
    Optional<String> base = base(numbers, name);
    if (base.isEmpty()) {
      return Optional.empty();
    }
    boolean projected = numbers.containsKey(PROJECTED) || numbers.containsKey(METHOD);
    if (!projected) {
      return Optional.of(new CrsName("GEODCRS[" + base.get()
          + ",CS[ellipsoidal,2],AXIS[\"latitude\",north,ORDER[1]],AXIS[\"longitude\",east,ORDER[2]],"
          + "ANGLEUNIT[\"degree\",0.0174532925199433]]"));
    }
    int code = numbers.getOrDefault(METHOD, 0.0).intValue();
    Optional<ProjectionKeys> projection = ProjectionKeys.of(code, numbers);
    double metres = metres(numbers);
    if (projection.isEmpty() || Double.isNaN(metres)) {
      return Optional.empty();
    }
    String unit = "LENGTHUNIT[\"" + unitName(metres) + "\"," + plain(metres) + "]";
    StringBuilder text =
        new StringBuilder("PROJCRS[\"").append(quoted(name)).append("\",BASEGEODCRS[");
    text.append(base.get()).append("],CONVERSION[\"").append(quoted(name)).append("\",METHOD[\"");
    text.append(projection.get().method()).append("\"]");
    double radians = radians(numbers);
    for (ProjectionKeys.Parameter parameter : projection.get().parameters()) {
      double value = parameter.in(numbers).orElse(parameter.otherwise());
      text.append(",PARAMETER[\"").append(parameter.name()).append("\",");
      text.append(
          switch (parameter.kind()) {
            case ANGLE -> plain(value) + ",ANGLEUNIT[\"unit\"," + plain(radians) + "]";
            case LENGTH -> plain(value) + "," + unit;
            case SCALE -> plain(value) + ",SCALEUNIT[\"unity\",1]";
          });
      text.append(']');
    }
    text.append("],CS[Cartesian,2],AXIS[\"(E)\",east,ORDER[1]],AXIS[\"(N)\",north,ORDER[2]],");
    return Optional.of(new CrsName(text.append(unit).append(']').toString()));
  }

  /** Name, datum and prime meridian. */
  private static Optional<String> base(Map<Integer, Double> numbers, String name) {
    int code = numbers.getOrDefault(GEOGRAPHIC, 0.0).intValue();
    if (code > 0 && code != USER_DEFINED) {
      String wkt = WgsWkt.of(code);
      String text = wkt.isEmpty() ? CrsTable.of(code).map(CrsTable.Entry::wkt).orElse("") : wkt;
      int from = text.indexOf('[');
      int to = text.indexOf("CS[");
      return text.startsWith("GEODCRS") && to > from
          ? Optional.of(text.substring(from + 1, to).strip().replaceAll(",$", "") + ",ID[\"EPSG\","
              + code + "]")
          : Optional.empty();
    }
    double a = numbers.getOrDefault(SEMI_MAJOR, Double.NaN);
    double inverse = inverseFlattening(numbers, a);
    if (!(a > 1) || Double.isNaN(inverse)) {
      return Optional.empty();
    }
    double meridian = numbers.getOrDefault(PRIME_MERIDIAN, 0.0);
    return Optional.of(
        "\"" + quoted(name) + "\",DATUM[\"unknown\",ELLIPSOID[\"unknown\"," + plain(a) + ","
            + plain(inverse) + ",LENGTHUNIT[\"metre\",1]]],PRIMEM[\""
            + (meridian == 0 ? "Greenwich" : "unknown") + "\"," + plain(meridian)
            + ",ANGLEUNIT[\"degree\",0.0174532925199433]]");
  }

  private static double inverseFlattening(Map<Integer, Double> numbers, double a) {
    if (numbers.containsKey(INVERSE_FLATTENING)) {
      return numbers.get(INVERSE_FLATTENING);
    }
    double b = numbers.getOrDefault(SEMI_MINOR, Double.NaN);
    return a == b ? 0 : a / (a - b);
  }

  private static double metres(Map<Integer, Double> numbers) {
    return switch (numbers.getOrDefault(LINEAR_UNIT, (double) METRE).intValue()) {
      case METRE -> 1;
      case FOOT -> 0.3048;
      case SURVEY_FOOT -> 1200 / 3937.0;
      default -> numbers.getOrDefault(LINEAR_UNIT_SIZE, Double.NaN);
    };
  }

  private static String unitName(double metres) {
    return metres == 1
        ? "metre"
        : metres == 0.3048 ? "foot" : metres == 1200 / 3937.0 ? "US survey foot" : "unit";
  }

  private static double radians(Map<Integer, Double> numbers) {
    return switch (numbers.getOrDefault(ANGULAR_UNIT, (double) DEGREE).intValue()) {
      case RADIAN -> 1;
      case GON -> Math.PI / 200;
      default -> DEGREES;
    };
  }

  private static String plain(double value) {
    return value == Math.rint(value) && Math.abs(value) < 1e15
        ? Long.toString((long) value)
        : String.format(Locale.ROOT, "%s", value);
  }

  private static String quoted(String name) {
    return name.isBlank() ? "unknown" : name.replace("\"", "\"\"");
  }

  /**
   * The keys that give a system by its parameters.
   *
   * @return numbers by key, whole ones where the key holds a code; empty where GeoTIFF has no words for it
   */
  public static Optional<Map<Integer, Double>> write(Crs crs) {
    Map<Integer, Double> keys = new TreeMap<>();
    DatumShift.Ellipsoid on = crs.ellipsoid();
    int base = crs.baseCode();
    keys.put(GEOGRAPHIC, (double) (base > 0 ? base : USER_DEFINED));
    if (base <= 0) {
      keys.put(DATUM, (double) USER_DEFINED);
      keys.put(ELLIPSOID, (double) USER_DEFINED);
    }
    keys.put(ANGULAR_UNIT, (double) DEGREE);
    keys.put(SEMI_MAJOR, on.a());
    if (on.e2() < 1e-15) {
      keys.put(SEMI_MINOR, on.a());
    } else {
      keys.put(INVERSE_FLATTENING, crs.inverseFlattening());
    }
    keys.put(PRIME_MERIDIAN, crs.primeMeridian());
    if (crs.isGeographic()) {
      return Optional.of(keys);
    }
    Optional<ProjectionKeys> projection = crs.projectionMethod().flatMap(ProjectionKeys::ofMethod);
    if (projection.isEmpty()) {
      return Optional.empty();
    }
    double metres = crs.metresPerUnit();
    int unit = metres == 1
        ? METRE
        : Math.abs(metres - 0.3048) < 1e-12
            ? FOOT
            : Math.abs(metres - 1200 / 3937.0) < 1e-12 ? SURVEY_FOOT : USER_DEFINED;
    keys.put(PROJECTED, (double) USER_DEFINED);
    keys.put(CONVERSION, (double) USER_DEFINED);
    keys.put(METHOD, (double) projection.get().code());
    keys.put(LINEAR_UNIT, (double) unit);
    if (unit == USER_DEFINED) {
      keys.put(LINEAR_UNIT_SIZE, metres);
    }
    ParameterValueGroup values = crs.projectionParameters();
    for (ProjectionKeys.Parameter parameter : projection.get().parameters()) {
      try {
        keys.put(parameter.keys()[0], value(values, parameter, metres));
      } catch (ParameterNotFoundException none) {
        return Optional.empty();
      }
    }
    return Optional.of(keys);
  }

  private static double value(
      ParameterValueGroup values, ProjectionKeys.Parameter parameter, double metres) {
    var value = values.parameter(parameter.name());
    return switch (parameter.kind()) {
      case ANGLE -> value.doubleValue(org.apache.sis.measure.Units.DEGREE);
      case LENGTH -> value.doubleValue(org.apache.sis.measure.Units.METRE) / metres;
      case SCALE -> value.doubleValue();
    };
  }

  /** Whether a key holds a code, and not a number of its own. */
  public static boolean isCode(int key) {
    return key == GEOGRAPHIC
        || key == DATUM
        || key == ELLIPSOID
        || key == ANGULAR_UNIT
        || key == PROJECTED
        || key == CONVERSION
        || key == METHOD
        || key == LINEAR_UNIT;
  }
}
