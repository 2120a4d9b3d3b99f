package sharpkestrel.io;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import sharpkestrel.geo.ControlPoints;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.VerticalDatum;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.CrsName;

/** The georeference of a GeoTIFF (OGC 19-008r4): affine, CRS, vertical datum, and whether a pixel is area or point. */
final class GeoKeys {

  private static final int MODEL_TYPE = 1024;
  private static final int RASTER_TYPE = 1025;
  private static final int CITATION = 1026;
  private static final int GEOGRAPHIC = 2048;
  private static final int PROJECTED = 3072;
  private static final int VERTICAL = 4096;
  private static final int PIXEL_IS_POINT = 2;
  private static final int USER_DEFINED = 32767;
  private static final String WKT_MARK = "WKT ";

  private GeoKeys() {}

  /**
   * @param crs none where the file has only control points, which have one of their own
   */
  record Reference(Affine affine, CrsName crs, VerticalDatum vertical, ControlPoints points) {}

  static Reference read(TiffFile file, TiffDirectory directory) {
    long[] keys = directory.numbers(TiffTags.GEO_KEYS);
    int projected = shortKey(keys, PROJECTED);
    int geographic = shortKey(keys, GEOGRAPHIC);
    CrsName crs = CrsName.NONE;
    if (projected > 0 && projected != USER_DEFINED) {
      crs = CrsName.epsg(projected);
    } else if (projected <= 0 && geographic > 0 && geographic != USER_DEFINED) {
      crs = CrsName.epsg(geographic);
    } else {
      String citation = asciiKey(keys, directory.text(TiffTags.GEO_ASCII), CITATION);
      if (citation.startsWith(WKT_MARK)) {
        crs = new CrsName(citation.substring(WKT_MARK.length()));
      }
    }
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
  static void write(TiffEntries entries, Affine affine, CrsName crs, VerticalDatum vertical) {
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
    List<int[]> keys = new ArrayList<>();
    boolean geographic = Crs.of(crs).isGeographic();
    int code = crs.epsgCode();
    keys.add(new int[] {MODEL_TYPE, 0, 1, geographic ? 2 : 1});
    keys.add(new int[] {RASTER_TYPE, 0, 1, 1});
    String ascii = "";
    if (code > 0 && code < USER_DEFINED) {
      keys.add(new int[] {geographic ? GEOGRAPHIC : PROJECTED, 0, 1, code});
    } else {
      ascii = WKT_MARK + crs.text() + "|";
      keys.add(
          new int[] {CITATION, TiffTags.GEO_ASCII, ascii.getBytes(StandardCharsets.UTF_8).length, 0
          });
      keys.add(new int[] {geographic ? GEOGRAPHIC : PROJECTED, 0, 1, USER_DEFINED});
    }
    if (vertical.toEpsg() > 0) {
      keys.add(new int[] {VERTICAL, 0, 1, vertical.toEpsg()});
    }
    int[] flat = new int[4 + 4 * keys.size()];
    flat[0] = 1;
    flat[1] = 1;
    flat[2] = vertical.toEpsg() > 0 ? 1 : 0;
    flat[3] = keys.size();
    for (int i = 0; i < keys.size(); i++) {
      System.arraycopy(keys.get(i), 0, flat, 4 + 4 * i, 4);
    }
    entries.shorts(TiffTags.GEO_KEYS, flat);
    if (!ascii.isEmpty()) {
      entries.ascii(TiffTags.GEO_ASCII, ascii);
    }
  }
}
