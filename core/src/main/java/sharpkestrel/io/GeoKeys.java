package sharpkestrel.io;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import sharpkestrel.geo.ControlPoints;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.CrsException;
import sharpkestrel.geo.GeoTiffCrs;
import sharpkestrel.geo.VerticalDatum;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.CrsName;

/** The georeference of a GeoTIFF (OGC 19-008r4): affine, CRS, vertical datum, and whether a pixel is area or point. */
final class GeoKeys {

  private static final int MODEL_TYPE = 1024;
  private static final int RASTER_TYPE = 1025;
  private static final int CITATION = 1026;
  private static final int PROJECTED_CITATION = 3073;
  private static final int VERTICAL = 4096;
  private static final int PIXEL_IS_POINT = 2;
  private static final String WKT = "crs:wkt";
  private static final String PROJECTED_TEXT = "PROJCS[";

  private GeoKeys() {}

  /**
   * @param crs none where the file has only control points, which have one of their own
   */
  record Reference(Affine affine, CrsName crs, VerticalDatum vertical, ControlPoints points) {}

  static Reference read(TiffFile file, TiffDirectory directory) {
    long[] keys = directory.numbers(TiffTags.GEO_KEYS);
    CrsName crs = crs(directory, keys);
    boolean point = shortKey(keys, RASTER_TYPE) == PIXEL_IS_POINT;
    double half = point ? 0.5 : 0;
    Affine affine = affine(file, directory);
    ControlPoints points = affine == null ? points(directory, crs, half) : ControlPoints.NONE;
    return new Reference(
        affine == null ? Affine.IDENTITY : affine.shifted(-half, -half),
        points.points().isEmpty() ? crs : CrsName.NONE,
        VerticalDatum.ofEpsg(shortKey(keys, VERTICAL)),
        points);
  }

  private static CrsName crs(TiffDirectory directory, long[] keys) {
    int projected = shortKey(keys, GeoTiffCrs.PROJECTED);
    int geographic = shortKey(keys, GeoTiffCrs.GEOGRAPHIC);
    if (projected > 0 && projected != GeoTiffCrs.USER_DEFINED) {
      return CrsName.epsg(projected);
    }
    if (projected <= 0 && geographic > 0 && geographic != GeoTiffCrs.USER_DEFINED) {
      return CrsName.epsg(geographic);
    }
    if (projected <= 0 && geographic <= 0 && shortKey(keys, MODEL_TYPE) == 0) {
      return CrsName.NONE;
    }
    String ascii = directory.text(TiffTags.GEO_ASCII);
    String citation = asciiKey(keys, ascii, CITATION);
    CrsName given = GeoTiffCrs.read(numbers(directory, keys), citation).orElse(CrsName.NONE);
    String exact =
        ItemsXml.parse(directory.text(TiffTags.ITEMS)).get(ItemsXml.FILE, WKT).orElse("");
    String other = asciiKey(keys, ascii, PROJECTED_CITATION);
    if (!given.isKnown() && other.contains(PROJECTED_TEXT)) {
      return new CrsName(other.substring(other.indexOf(PROJECTED_TEXT)));
    }
    // The text says the same to the last digit, unless other software gave the file another system
    // since.
    boolean same = !exact.isEmpty() && (!given.isKnown() || isLike(new CrsName(exact), given));
    return same ? new CrsName(exact) : given;
  }

  private static boolean isLike(CrsName one, CrsName two) {
    try {
      return Crs.of(one).isLike(Crs.of(two));
    } catch (CrsException notUnderstood) {
      return false;
    }
  }

  private static Map<Integer, Double> numbers(TiffDirectory directory, long[] keys) {
    double[] doubles = directory.doubles(TiffTags.GEO_DOUBLES);
    Map<Integer, Double> numbers = new TreeMap<>();
    for (int i = 4; i + 3 < keys.length; i += 4) {
      int at = (int) keys[i + 3];
      if (keys[i + 1] == 0) {
        numbers.put((int) keys[i], (double) at);
      } else if (keys[i + 1] == TiffTags.GEO_DOUBLES && at < doubles.length) {
        numbers.put((int) keys[i], doubles[at]);
      }
    }
    return numbers;
  }

  /** Tie points without a pixel size say where some pixels lie, not where all do. */
  private static ControlPoints points(TiffDirectory directory, CrsName crs, double half) {
    double[] tie = directory.doubles(TiffTags.TIE_POINTS);
    List<ControlPoints.Point> points = new ArrayList<>();
    for (int i = 0; i + 5 < tie.length; i += 6) {
      points.add(new ControlPoints.Point(
          tie[i] + half, tie[i + 1] + half, tie[i + 3], tie[i + 4], tie[i + 5]));
    }
    return new ControlPoints(crs, points);
  }

  private static Affine affine(TiffFile file, TiffDirectory directory) {
    double[] matrix = directory.doubles(TiffTags.TRANSFORMATION);
    if (matrix.length >= 8) {
      return checked(
          file, new Affine(matrix[0], matrix[1], matrix[3], matrix[4], matrix[5], matrix[7]));
    }
    double[] scale = directory.doubles(TiffTags.PIXEL_SCALE);
    double[] tie = directory.doubles(TiffTags.TIE_POINTS);
    if (scale.length < 2 || tie.length < 6) {
      return null;
    }
    return checked(
        file,
        new Affine(
            scale[0], 0, tie[3] - tie[0] * scale[0], 0, -scale[1], tie[4] + tie[1] * scale[1]));
  }

  private static Affine checked(TiffFile file, Affine affine) {
    double det = affine.a() * affine.e() - affine.b() * affine.d();
    if (!(Math.abs(det) > 0)
        || !Double.isFinite(det)
        || !Double.isFinite(affine.c())
        || !Double.isFinite(affine.f())) {
      throw file.broken("its georeference gives pixels no area");
    }
    return affine;
  }

  private static int shortKey(long[] keys, int wanted) {
    for (int i = 4; i + 3 < keys.length; i += 4) {
      if (keys[i] == wanted && keys[i + 1] == 0) {
        return (int) keys[i + 3];
      }
    }
    return 0;
  }

  private static String asciiKey(long[] keys, String ascii, int wanted) {
    for (int i = 4; i + 3 < keys.length; i += 4) {
      if (keys[i] == wanted && keys[i + 1] == TiffTags.GEO_ASCII) {
        int from = (int) Math.min(keys[i + 3], ascii.length());
        int to = (int) Math.min(from + keys[i + 2], ascii.length());
        String text = ascii.substring(from, Math.max(from, to));
        return text.endsWith("|") ? text.substring(0, text.length() - 1) : text;
      }
    }
    return "";
  }

  /** Adds the tags of a georeference to a directory that is being written. */
  static void write(
      TiffEntries entries, ItemsXml items, Affine affine, CrsName crs, VerticalDatum vertical) {
    if (affine.isNorthUp()) {
      entries.doubles(TiffTags.PIXEL_SCALE, affine.a(), -affine.e(), 0);
      entries.doubles(TiffTags.TIE_POINTS, 0, 0, 0, affine.c(), affine.f(), 0);
    } else if (!affine.equals(Affine.IDENTITY)) {
      entries.doubles(
          TiffTags.TRANSFORMATION,
          affine.a(),
          affine.b(),
          0,
          affine.c(),
          affine.d(),
          affine.e(),
          0,
          affine.f(),
          0,
          0,
          0,
          0,
          0,
          0,
          0,
          1);
    }
    if (!crs.isKnown()) {
      return;
    }
    Crs meant = Crs.of(crs);
    int code = crs.epsgCode();
    Map<Integer, Double> numbers = new TreeMap<>();
    if (code > 0 && code < GeoTiffCrs.USER_DEFINED) {
      numbers.put(
          meant.isGeographic() ? GeoTiffCrs.GEOGRAPHIC : GeoTiffCrs.PROJECTED, (double) code);
    } else {
      numbers.putAll(GeoTiffCrs.write(meant).orElse(Map.of()));
      items.put(ItemsXml.FILE, WKT, crs.text());
    }
    numbers.put(MODEL_TYPE, meant.isGeographic() ? 2.0 : 1.0);
    numbers.put(RASTER_TYPE, 1.0);
    if (vertical.toEpsg() > 0) {
      numbers.put(VERTICAL, (double) vertical.toEpsg());
    }
    write(entries, numbers, meant.title(), vertical.toEpsg() > 0);
  }

  private static void write(
      TiffEntries entries, Map<Integer, Double> numbers, String title, boolean vertical) {
    List<Double> doubles = new ArrayList<>();
    String ascii = title.replaceAll("[^\\x20-\\x7b\\x7d\\x7e]", "?") + "|";
    TreeMap<Integer, int[]> keys = new TreeMap<>();
    keys.put(CITATION, new int[] {CITATION, TiffTags.GEO_ASCII, ascii.length(), 0});
    numbers.forEach((key, value) -> {
      boolean whole =
          GeoTiffCrs.isCode(key) || key == MODEL_TYPE || key == RASTER_TYPE || key == VERTICAL;
      if (whole) {
        keys.put(key, new int[] {key, 0, 1, value.intValue()});
      } else {
        keys.put(key, new int[] {key, TiffTags.GEO_DOUBLES, 1, doubles.size()});
        doubles.add(value);
      }
    });
    int[] flat = new int[4 + 4 * keys.size()];
    flat[0] = 1;
    flat[1] = 1;
    flat[2] = vertical ? 1 : 0;
    flat[3] = keys.size();
    int at = 4;
    for (int[] key : keys.values()) {
      System.arraycopy(key, 0, flat, at, 4);
      at += 4;
    }
    entries.shorts(TiffTags.GEO_KEYS, flat);
    entries.ascii(TiffTags.GEO_ASCII, ascii);
    if (!doubles.isEmpty()) {
      entries.doubles(
          TiffTags.GEO_DOUBLES,
          doubles.stream().mapToDouble(Double::doubleValue).toArray());
    }
  }
}
