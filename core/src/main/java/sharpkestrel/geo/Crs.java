package sharpkestrel.geo;

import java.nio.file.Path;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import javax.measure.Unit;
import javax.measure.quantity.Length;
import org.apache.sis.measure.Units;
import org.apache.sis.metadata.iso.citation.Citations;
import org.apache.sis.referencing.CRS;
import org.apache.sis.referencing.IdentifiedObjects;
import org.apache.sis.referencing.crs.AbstractCRS;
import org.apache.sis.referencing.cs.AxesConvention;
import org.apache.sis.util.ComparisonMode;
import org.apache.sis.util.Utilities;
import org.opengis.parameter.ParameterValueGroup;
import org.opengis.referencing.NoSuchAuthorityCodeException;
import org.opengis.referencing.crs.CoordinateReferenceSystem;
import org.opengis.referencing.crs.GeographicCRS;
import org.opengis.referencing.crs.ProjectedCRS;
import org.opengis.referencing.operation.MathTransform;
import org.opengis.referencing.operation.TransformException;
import org.opengis.util.FactoryException;
import sharpkestrel.raster.CrsName;

/**
 * A coordinate reference system with its axes as x east, y north. Codes come from a table that ships; what is not in it, and
 * ways between datums that are more than a similarity, come from the EPSG dataset, whose first use takes seconds.
 */
public final class Crs {

  public static final CrsName WGS84 = CrsName.epsg(4326);

  private static final DatumShift NO_SHIFT = new DatumShift(0, 0, 0, 0, 0, 0, 0);

  private static final Map<CrsName, Crs> KNOWN = new ConcurrentHashMap<>();

  static {
    if (System.getProperty("derby.stream.error.file") == null) {
      Path log = Path.of(System.getProperty("java.io.tmpdir"), "kestrel-epsg.log");
      System.setProperty("derby.stream.error.file", log.toString());
    }
  }

  private final CrsName name;
  private final CoordinateReferenceSystem crs;
  private final Optional<DatumShift> shift;

  private Crs(CrsName name, CoordinateReferenceSystem crs, Optional<DatumShift> shift) {
    this.name = name;
    this.shift = shift;
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
    int code = name.epsgCode();
    try {
      if (code <= 0) {
        return ofText(name);
      }
      String own = WgsWkt.of(code);
      if (!own.isEmpty()) {
        return new Crs(name, parsed(own), Optional.of(NO_SHIFT));
      }
      Optional<CrsTable.Entry> entry = CrsTable.of(code);
      return entry.isPresent()
          ? new Crs(name, parsed(entry.get().wkt()), entry.get().shift())
          : new Crs(name, CRS.forCode(name.text()), Optional.empty());
    } catch (NoSuchAuthorityCodeException unknown) {
      throw new CrsException(
          "There is no coordinate reference system with the code " + name
              + ". Give another EPSG code such as EPSG:32630, or well-known text.",
          unknown);
    } catch (FactoryException failed) {
      throw new CrsException(
          code > 0
              ? "The dataset of coordinate reference systems could not be opened to look up " + name
                  + ": "
                  + failed.getMessage() + ". Free some space in "
                  + System.getProperty("java.io.tmpdir")
                  + ", or give the system as well-known text."
              : "The coordinate reference system '" + name + "' is not understood: "
                  + failed.getMessage()
                  + ". Give an EPSG code such as EPSG:32630, or well-known text.",
          failed);
    }
  }

  /** Without a look whether the dataset says the same under the text's code: that would open it, which takes seconds. */
  private static CoordinateReferenceSystem parsed(String wkt) throws FactoryException {
    try {
      Object parsed = new org.apache.sis.io.wkt.WKTFormat().parseObject(wkt);
      if (parsed instanceof CoordinateReferenceSystem crs) {
        return crs;
      }
      throw new FactoryException("it is not the text of a coordinate reference system");
    } catch (java.text.ParseException senseless) {
      throw new FactoryException(senseless.getMessage(), senseless);
    }
  }

  /** Its datum's way to WGS 84 is that of the code its base has, and none where the text calls it unknown. */
  private static Crs ofText(CrsName name) throws FactoryException {
    Crs plain = new Crs(name, parsed(name.text()), Optional.empty());
    GeographicCRS base = plain.base();
    if (base == null) {
      return plain;
    }
    boolean unknown =
        base.getDatum().getName().getCode().toLowerCase(Locale.ROOT).startsWith("unknown");
    int code = plain.baseCode();
    Optional<DatumShift> shift = unknown || code == 4326
        ? Optional.of(NO_SHIFT)
        : code > 0 ? CrsTable.of(code).flatMap(CrsTable.Entry::shift) : Optional.empty();
    return new Crs(name, plain.crs, shift);
  }

  /** The EPSG code of the geographic system beneath; -1 where it names none. */
  int baseCode() {
    var id = IdentifiedObjects.getIdentifier(base(), Citations.EPSG);
    return id == null || !id.getCode().matches("\\d+") ? -1 : Integer.parseInt(id.getCode());
  }

  /** Degrees east of Greenwich. */
  double primeMeridian() {
    return base().getDatum().getPrimeMeridian().getGreenwichLongitude();
  }

  /** The method of a projected system, as EPSG calls it. */
  Optional<String> projectionMethod() {
    return crs instanceof ProjectedCRS projected
        ? Optional.of(projected.getConversionFromBase().getMethod().getName().getCode())
        : Optional.empty();
  }

  ParameterValueGroup projectionParameters() {
    return ((ProjectedCRS) crs).getConversionFromBase().getParameterValues();
  }

  /** Whether both give the same coordinates, to the precision of files. */
  public boolean isLike(Crs other) {
    return Utilities.deepEquals(crs, other.crs, ComparisonMode.APPROXIMATE);
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

  /**
   * From one system to another; a plane whose place on the Earth is not known leads to itself alone.
   *
   * @throws CrsException where one of two different ones is none
   */
  public static CoordinateMap between(CrsName from, CrsName to) {
    return from.equals(to) ? CoordinateMap.IDENTITY : of(from).to(of(to));
  }

  /** From this system to another. */
  public CoordinateMap to(Crs other) {
    if (name.equals(other.name)
        || Utilities.deepEquals(crs, other.crs, ComparisonMode.IGNORE_METADATA)) {
      return CoordinateMap.IDENTITY;
    }
    try {
      return shifted(other).orElse(null) instanceof CoordinateMap plain
          ? plain
          : apply(transform(other));
    } catch (FactoryException none) {
      throw new CrsException(
          "No way is known from " + name + " to " + other.name + ": " + none.getMessage(), none);
    }
  }

  /** By longitudes and latitudes where one of the two is on WGS 84 and the other's datum is a similarity away. */
  private Optional<CoordinateMap> shifted(Crs other) throws FactoryException {
    if (shift.isEmpty() || other.shift.isEmpty() || sharesDatum(other)) {
      return Optional.empty();
    }
    CoordinateMap up = apply(toBase());
    CoordinateMap down = apply(fromBase(other));
    if (other.shift.get().equals(NO_SHIFT)) {
      return Optional.of(up.then(shift.get().toWgs84(ellipsoid())).then(down));
    }
    return shift.get().equals(NO_SHIFT)
        ? Optional.of(up.then(other.shift.get().fromWgs84(other.ellipsoid())).then(down))
        : Optional.empty();
  }

  private boolean sharesDatum(Crs other) {
    GeographicCRS from = base();
    GeographicCRS to = other.base();
    return from != null
        && to != null
        && Utilities.deepEquals(from.getDatum(), to.getDatum(), ComparisonMode.IGNORE_METADATA);
  }

  DatumShift.Ellipsoid ellipsoid() {
    if (base() == null) {
      return DatumShift.Ellipsoid.WGS84;
    }
    var found = base().getDatum().getEllipsoid();
    double a = found.getAxisUnit().getConverterTo(Units.METRE).convert(found.getSemiMajorAxis());
    double b = found.getAxisUnit().getConverterTo(Units.METRE).convert(found.getSemiMinorAxis());
    return new DatumShift.Ellipsoid(a, 1 - b * b / (a * a));
  }

  double inverseFlattening() {
    return base().getDatum().getEllipsoid().getInverseFlattening();
  }

  private static MathTransform fromBase(Crs other) throws FactoryException {
    try {
      return other.toBase().inverse();
    } catch (org.opengis.referencing.operation.NoninvertibleTransformException oneWay) {
      throw new CrsException("No way leads back from " + other.name, oneWay);
    }
  }

  private MathTransform transform(Crs other) throws FactoryException {
    // One datum needs no search through the EPSG dataset, which would start it.
    if (sharesDatum(other)) {
      return org.apache.sis.referencing.operation.transform.MathTransforms.concatenate(
          toBase(), fromBase(other));
    }
    return CRS.findOperation(crs, other.crs, null).getMathTransform();
  }

  /** To longitudes and latitudes on its own datum, without a way to another. */
  CoordinateMap toOwnDegrees() {
    try {
      return base() == null ? to(Crs.of(WGS84)) : apply(toBase());
    } catch (FactoryException none) {
      throw new CrsException("No way leads from " + name + " to its longitudes", none);
    }
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
