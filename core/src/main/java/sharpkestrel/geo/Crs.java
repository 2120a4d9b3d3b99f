package sharpkestrel.geo;

import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import javax.measure.Unit;
import javax.measure.quantity.Length;
import org.apache.sis.measure.Units;
import org.apache.sis.referencing.CRS;
import org.apache.sis.referencing.IdentifiedObjects;
import org.apache.sis.referencing.crs.AbstractCRS;
import org.apache.sis.referencing.cs.AxesConvention;
import org.apache.sis.util.ComparisonMode;
import org.apache.sis.util.Utilities;
import org.opengis.referencing.crs.CoordinateReferenceSystem;
import org.opengis.referencing.crs.GeographicCRS;
import org.opengis.referencing.crs.ProjectedCRS;
import org.opengis.referencing.operation.MathTransform;
import org.opengis.referencing.operation.TransformException;
import org.opengis.util.FactoryException;
import sharpkestrel.raster.CrsName;

/**
 * A coordinate reference system with its axes as x east, y north. WGS 84 and its UTM zones are built from their
 * parameters; other codes come from the EPSG dataset, whose first use takes seconds.
 */
public final class Crs {

  public static final CrsName WGS84 = CrsName.epsg(4326);

  private static final Map<CrsName, Crs> KNOWN = new ConcurrentHashMap<>();

  static {
    if (System.getProperty("derby.stream.error.file") == null) {
      Path log = Path.of(System.getProperty("java.io.tmpdir"), "kestrel-epsg.log");
      System.setProperty("derby.stream.error.file", log.toString());
    }
  }

  private final CrsName name;
  private final CoordinateReferenceSystem crs;

  private Crs(CrsName name, CoordinateReferenceSystem crs) {
    this.name = name;
    this.crs = AbstractCRS.castOrCopy(crs).forConvention(AxesConvention.DISPLAY_ORIENTED);
  }

  /**
   * @throws CrsException where the name is none, or not understood; the message says what is
   */
  public static Crs of(CrsName name) {
    if (!name.isKnown()) {
      throw new CrsException(
          "No coordinate reference system is known here. Give one by its code, e.g. EPSG:32630.");
    }
    return KNOWN.computeIfAbsent(name, Crs::make);
  }

  private static Crs make(CrsName name) {
    try {
      int code = name.epsgCode();
      String own = code > 0 ? WgsWkt.of(code) : "";
      if (!own.isEmpty()) {
        return new Crs(name, CRS.fromWKT(own));
      }
      return new Crs(name, code > 0 ? CRS.forCode(name.text()) : CRS.fromWKT(name.text()));
    } catch (FactoryException unknown) {
      throw new CrsException(
          "The coordinate reference system '"
              + name
              + "' is not understood: "
              + unknown.getMessage()
              + ". Give an EPSG code such as EPSG:32630, or well-known text.",
          unknown);
    }
  }

  public CrsName name() {
    return name;
  }

  public String title() {
    return IdentifiedObjects.getDisplayName(crs, null);
  }

  /** Well-known text in the form of 2001 (WKT 1), which older software reads. */
  public String wkt1() {
    var format = new org.apache.sis.io.wkt.WKTFormat();
    format.setConvention(org.apache.sis.io.wkt.Convention.WKT1_COMMON_UNITS);
    format.setIndentation(org.apache.sis.io.wkt.WKTFormat.SINGLE_LINE);
    return format.format(crs);
  }

  public boolean isGeographic() {
    return crs instanceof GeographicCRS;
  }

  public boolean isProjected() {
    return crs instanceof ProjectedCRS;
  }

  /** Metres in a unit of the axes; NaN for angular ones. */
  public double metresPerUnit() {
    Unit<?> unit = crs.getCoordinateSystem().getAxis(0).getUnit();
    return Units.isLinear(unit)
        ? unit.asType(Length.class).getConverterTo(Units.METRE).convert(1.0)
        : Double.NaN;
  }

  /** From this system to another. */
  public CoordinateMap to(Crs other) {
    if (name.equals(other.name)
        || Utilities.deepEquals(crs, other.crs, ComparisonMode.IGNORE_METADATA)) {
      return CoordinateMap.IDENTITY;
    }
    try {
      return apply(transform(other));
    } catch (FactoryException none) {
      throw new CrsException(
          "No way is known from " + name + " to " + other.name + ": " + none.getMessage(), none);
    }
  }

  private MathTransform transform(Crs other) throws FactoryException {
    // One datum needs no search through the EPSG dataset, which would start it.
    GeographicCRS from = base();
    GeographicCRS to = other.base();
    if (from != null
        && to != null
        && Utilities.deepEquals(from.getDatum(), to.getDatum(), ComparisonMode.IGNORE_METADATA)) {
      MathTransform here = toBase();
      MathTransform there = other.toBase();
      try {
        return org.apache.sis.referencing.operation.transform.MathTransforms.concatenate(
            here, there.inverse());
      } catch (org.opengis.referencing.operation.NoninvertibleTransformException oneWay) {
        throw new CrsException("No way leads back from " + other.name, oneWay);
      }
    }
    return CRS.findOperation(crs, other.crs, null).getMathTransform();
  }

  private GeographicCRS base() {
    return switch (crs) {
      case GeographicCRS geographic -> geographic;
      case ProjectedCRS projected when projected.getBaseCRS() instanceof GeographicCRS base -> base;
      default -> null;
    };
  }

  /** To longitude and latitude in degrees on this system's own datum. */
  private MathTransform toBase() throws FactoryException {
    CoordinateReferenceSystem target =
        AbstractCRS.castOrCopy(base()).forConvention(AxesConvention.DISPLAY_ORIENTED);
    if (crs instanceof GeographicCRS) {
      return org.apache.sis.referencing.operation.transform.MathTransforms.identity(2);
    }
    ProjectedCRS projected = (ProjectedCRS) crs;
    try {
      MathTransform inverse =
          projected.getConversionFromBase().getMathTransform().inverse();
      var swap = org.apache.sis.referencing.cs.CoordinateSystems.swapAndScaleAxes(
          projected.getBaseCRS().getCoordinateSystem(), target.getCoordinateSystem());
      return org.apache.sis.referencing.operation.transform.MathTransforms.concatenate(
          inverse, org.apache.sis.referencing.operation.transform.MathTransforms.linear(swap));
    } catch (org.opengis.referencing.operation.NoninvertibleTransformException
        | javax.measure.IncommensurableException oneWay) {
      throw new CrsException("No way leads from " + name + " to its longitudes", oneWay);
    }
  }

  private static CoordinateMap apply(MathTransform transform) {
    return (xy, count) -> {
      try {
        transform.transform(xy, 0, xy, 0, count);
      } catch (TransformException outside) {
        applySingly(transform, xy, count);
      }
    };
  }

  private static void applySingly(MathTransform transform, double[] xy, int count) {
    for (int i = 0; i < count; i++) {
      try {
        transform.transform(xy, 2 * i, xy, 2 * i, 1);
      } catch (TransformException outside) {
        xy[2 * i] = Double.NaN;
        xy[2 * i + 1] = Double.NaN;
      }
    }
  }
}
