package sharpkestrel.geo;

import java.io.IOException;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.TreeSet;
import java.util.zip.GZIPOutputStream;
import org.apache.sis.io.wkt.Convention;
import org.apache.sis.io.wkt.WKTFormat;
import org.apache.sis.measure.Units;
import org.apache.sis.referencing.CRS;
import org.apache.sis.util.ComparisonMode;
import org.apache.sis.util.Utilities;
import org.opengis.parameter.ParameterValueGroup;
import org.opengis.referencing.crs.CRSAuthorityFactory;
import org.opengis.referencing.crs.CoordinateReferenceSystem;
import org.opengis.referencing.crs.GeographicCRS;
import org.opengis.referencing.crs.ProjectedCRS;
import org.opengis.referencing.operation.ConcatenatedOperation;
import org.opengis.referencing.operation.Conversion;
import org.opengis.referencing.operation.CoordinateOperation;
import org.opengis.referencing.operation.SingleOperation;
import org.opengis.util.FactoryException;

/**
 * Makes the table of coordinate reference systems that ships, from the EPSG dataset. Run it when that dataset changes; it takes
 * some minutes: {@code mvn -pl core test-compile exec:java -Dexec.classpathScope=test
 * -Dexec.mainClass=sharpkestrel.geo.CrsTableMaker}.
 */
public final class CrsTableMaker {

  private static final Path TABLE = Path.of("src/main/resources/sharpkestrel/geo/crs.txt.gz");

  private final CRSAuthorityFactory dataset;
  private final CoordinateReferenceSystem wgs84;

  private CrsTableMaker() throws FactoryException {
    dataset = CRS.getAuthorityFactory("EPSG");
    wgs84 = CRS.forCode("EPSG:4326");
  }

  public static void main(String[] arguments) throws IOException, FactoryException {
    CrsTableMaker maker = new CrsTableMaker();
    TreeSet<Integer> codes = new TreeSet<>();
    for (String code : maker.dataset.getAuthorityCodes(GeographicCRS.class)) {
      codes.add(Integer.parseInt(code));
    }
    for (String code : maker.dataset.getAuthorityCodes(ProjectedCRS.class)) {
      codes.add(Integer.parseInt(code));
    }
    try (Writer out = new OutputStreamWriter(
        new GZIPOutputStream(Files.newOutputStream(TABLE)), StandardCharsets.UTF_8)) {
      for (int code : codes) {
        String line = maker.line(code);
        if (!line.isEmpty()) {
          out.write(line);
          out.write('\n');
        }
      }
    }
    System.out.println(Files.size(TABLE) + " bytes of " + codes.size() + " codes");
  }

  /** Code, shift of its datum to WGS 84 (empty where it is no simple one), and well-known text; empty for what is left out. */
  private String line(int code) {
    try {
      CoordinateReferenceSystem crs = dataset.createCoordinateReferenceSystem("EPSG:" + code);
      if (crs.getCoordinateSystem().getDimension() != 2) {
        return "";
      }
      WKTFormat format = new WKTFormat();
      format.setConvention(Convention.WKT2_2015);
      format.setIndentation(WKTFormat.SINGLE_LINE);
      String text = format.format(crs).replaceAll(", REMARK\\[\"([^\"]|\"\")*\"\\](?=\\]*$)", "");
      CoordinateReferenceSystem back = CRS.fromWKT(text);
      if (!isSame(crs, back)) {
        return "";
      }
      return code + "\t" + shift(crs, base(back)) + "\t" + text;
    } catch (FactoryException | RuntimeException leftOut) {
      System.out.println(code + " is left out: " + leftOut.getMessage());
      return "";
    }
  }

  /** Datum ensembles come back as datums; all that counts for coordinates must be as it was. */
  private static boolean isSame(CoordinateReferenceSystem crs, CoordinateReferenceSystem back) {
    return Utilities.equalsIgnoreMetadata(crs, back)
        || Utilities.equalsIgnoreMetadata(crs.getCoordinateSystem(), back.getCoordinateSystem())
            && base(crs) != null
            && (base(crs).getDatum() == null
                || Utilities.equalsIgnoreMetadata(
                    base(crs).getDatum().getEllipsoid(), base(back).getDatum().getEllipsoid()))
            && (crs instanceof GeographicCRS
                || Utilities.equalsIgnoreMetadata(
                    ((ProjectedCRS) crs).getConversionFromBase(),
                    ((ProjectedCRS) back).getConversionFromBase()));
  }

  private static GeographicCRS base(CoordinateReferenceSystem crs) {
    return switch (crs) {
      case GeographicCRS geographic -> geographic;
      case ProjectedCRS projected when projected.getBaseCRS() instanceof GeographicCRS base -> base;
      default -> null;
    };
  }

  /**
   * The way to WGS 84 that the dataset finds best where the system is used; empty where it is more than a similarity.
   *
   * @param read the base of the same, as it is read from text: an ensemble of datums has become one
   */
  private String shift(CoordinateReferenceSystem crs, GeographicCRS read) {
    boolean plain = read != null
        && read.getDatum().getPrimeMeridian().getGreenwichLongitude() == 0
        && read.getCoordinateSystem().getAxis(0).getUnit().equals(Units.DEGREE);
    if (!plain) {
      return "";
    }
    try {
      if (Utilities.deepEquals(base(crs), wgs84, ComparisonMode.IGNORE_METADATA)) {
        return "0 0 0 0 0 0 0";
      }
      List<SingleOperation> shifts = new ArrayList<>();
      collect(CRS.findOperation(crs, wgs84, null), shifts);
      return shifts.size() == 1 ? parameters(shifts.getFirst()) : "";
    } catch (FactoryException | RuntimeException none) {
      return "";
    }
  }

  private static void collect(CoordinateOperation operation, List<SingleOperation> shifts) {
    switch (operation) {
      case ConcatenatedOperation several ->
        several.getOperations().forEach(part -> collect(part, shifts));
      case Conversion map -> {}
      case SingleOperation single -> shifts.add(single);
      default -> throw new IllegalStateException("an operation of another kind");
    }
  }

  private static String parameters(SingleOperation operation) {
    String method = operation.getMethod().getName().getCode();
    ParameterValueGroup values = operation.getParameterValues();
    double turned = method.startsWith("Coordinate Frame") ? -1 : 1;
    boolean rotates = turned < 0 || method.startsWith("Position Vector");
    if (!rotates
        && !method.startsWith("Geocentric translations")
        && !method.equals("Abridged Molodensky")) {
      return "";
    }
    StringBuilder text = new StringBuilder();
    for (String axis : new String[] {"X", "Y", "Z"}) {
      text.append(plain(metres(values, axis + "-axis translation"))).append(' ');
    }
    for (String axis : new String[] {"X", "Y", "Z"}) {
      double seconds = rotates
          ? turned * values.parameter(axis + "-axis rotation").doubleValue(Units.ARC_SECOND)
          : 0;
      text.append(plain(seconds)).append(' ');
    }
    double ppm = rotates ? values.parameter("Scale difference").doubleValue(Units.PPM) : 0;
    return text.append(plain(ppm)).toString();
  }

  private static double metres(ParameterValueGroup values, String name) {
    return values.parameter(name).doubleValue(Units.METRE);
  }

  private static String plain(double value) {
    double rounded = Math.rint(value * 1e9) / 1e9;
    return rounded == 0 ? "0" : String.format(Locale.ROOT, "%s", rounded);
  }
}
