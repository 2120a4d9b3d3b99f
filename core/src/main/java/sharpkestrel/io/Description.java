package sharpkestrel.io;

import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.Acquisition.Calibration;
import sharpkestrel.geo.ControlPoints;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RolesSaid;
import sharpkestrel.raster.SampleType;

/**
 * What is told of a raster from outside of its pixels: by a file beside it, or by a person. What is not told stays as the
 * raster has it.
 *
 * @param time when it was taken
 * @param sunElevation degrees above the horizon, NaN where not told
 * @param sunAzimuth degrees clockwise from north, NaN where not told
 * @param bands by place, from 0
 */
public record Description(
    Optional<CrsName> crs,
    Optional<Affine> affine,
    Optional<ControlPoints> points,
    Optional<Instant> time,
    double sunElevation,
    double sunAzimuth,
    Map<Integer, OfBand> bands) {

  public static final Description NONE = new Description(
      Optional.empty(),
      Optional.empty(),
      Optional.empty(),
      Optional.empty(),
      Double.NaN,
      Double.NaN,
      Map.of());

  /**
   * @param noData the stored number that means none; NaN where not told
   * @param scale by which stored numbers are multiplied, 1 where not told; then {@code offset} is added
   */
  public record OfBand(
      Optional<String> name,
      Optional<BandRole> role,
      Optional<String> unit,
      double noData,
      double scale,
      double offset,
      Optional<Calibration> calibration) {

    public static final OfBand NONE = new OfBand(
        Optional.empty(), Optional.empty(), Optional.empty(), Double.NaN, 1, 0, Optional.empty());

    OfBand withNoData(double number) {
      return new OfBand(name, role, unit, number, scale, offset, calibration);
    }

    boolean scales() {
      return scale != 1 || offset != 0;
    }

    OfBand over(OfBand lower) {
      return new OfBand(
          name.or(lower::name),
          role.or(lower::role),
          unit.or(lower::unit),
          Double.isNaN(noData) ? lower.noData : noData,
          scales() ? scale : lower.scale,
          scales() ? offset : lower.offset,
          calibration.or(lower::calibration));
    }
  }

  public Description {
    bands = Map.copyOf(bands);
  }

  /** Scales and offsets from the items of a TIFF file. */
  static Description ofItems(ItemsXml items, List<Band> bands) {
    Map<Integer, OfBand> told = new TreeMap<>();
    for (int b = 0; b < bands.size(); b++) {
      double scale = items.number(b, "SCALE").orElse(1);
      double offset = items.number(b, "OFFSET").orElse(0);
      if (scale != 1 || offset != 0) {
        told.put(
            b,
            new OfBand(
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                Double.NaN,
                scale,
                offset,
                Optional.empty()));
      }
    }
    return NONE.withBands(told);
  }

  Description withAffine(Optional<Affine> told) {
    return new Description(crs, told, points, time, sunElevation, sunAzimuth, bands);
  }

  public Description withBands(Map<Integer, OfBand> told) {
    return new Description(crs, affine, points, time, sunElevation, sunAzimuth, told);
  }

  /** What this tells, and for the rest what another does. */
  public Description over(Description lower) {
    Map<Integer, OfBand> all = new TreeMap<>(lower.bands);
    bands.forEach((b, told) -> all.merge(b, told, (below, above) -> above.over(below)));
    return new Description(
        crs.or(lower::crs),
        affine.or(lower::affine),
        points.or(lower::points),
        time.or(lower::time),
        Double.isNaN(sunElevation) ? lower.sunElevation : sunElevation,
        Double.isNaN(sunAzimuth) ? lower.sunAzimuth : sunAzimuth,
        all);
  }

  public OfBand of(int band) {
    return bands.getOrDefault(band, OfBand.NONE);
  }

  /**
   * A raster as it is described.
   *
   * @param overviewsKnow whether whoever made its reduced levels knew of the no-data that is told here; else they are
   *     made anew from the full one
   */
  public Raster describe(Raster raster, boolean overviewsKnow) {
    if (equals(NONE)) {
      return raster;
    }
    Grid old = raster.grid();
    Grid grid =
        new Grid(old.width(), old.height(), affine.orElse(old.affine()), crs.orElse(old.crs()));
    List<Band> told = new ArrayList<>();
    for (int b = 0; b < raster.bands().size(); b++) {
      told.add(described(raster.bands().get(b), of(b)));
    }
    boolean scaled = bands.values().stream().anyMatch(OfBand::scales);
    if (scaled) {
      told.replaceAll(band -> band.withType(SampleType.FLOAT32, Double.NaN));
    }
    Attachments all = attachments(raster.attachments(), told);
    return new DescribedRaster(raster, grid, told, all, this, overviewsKnow);
  }

  private static Band described(Band band, OfBand told) {
    Band named = told.name().map(band::withName).orElse(band);
    boolean byRole = told.name().isEmpty() && band.name().equals(band.role().label());
    Band withRole = told.role()
        .map(role -> byRole ? named.withRole(role).withName(role.label()) : named.withRole(role))
        .orElse(named);
    Band withUnit = told.unit().map(withRole::withUnit).orElse(withRole);
    double noData = TiffAbout.noData(Double.toString(told.noData()), band.type());
    return Double.isNaN(noData) ? withUnit : withUnit.withType(band.type(), noData);
  }

  private Attachments attachments(Attachments before, List<Band> told) {
    Attachments all = before.with(ControlPoints.class, points);
    if (bands.values().stream().anyMatch(of -> of.role().isPresent())) {
      all = all.with(RolesSaid.class, new RolesSaid());
    }
    Map<BandRole, Calibration> gains = new EnumMap<>(BandRole.class);
    Optional<Acquisition> known = before.get(Acquisition.class);
    known.ifPresent(acquisition -> gains.putAll(acquisition.calibration()));
    bands.forEach((b, of) ->
        of.calibration().ifPresent(c -> gains.put(told.get(b).role(), c)));
    boolean tells = time.isPresent()
        || !Double.isNaN(sunElevation)
        || !Double.isNaN(sunAzimuth)
        || bands.values().stream().anyMatch(of -> of.calibration().isPresent());
    if (!tells) {
      return all;
    }
    return all.with(
        Acquisition.class,
        new Acquisition(
            time.or(() -> known.map(Acquisition::time)).orElse(Instant.EPOCH),
            orElse(sunElevation, known.map(Acquisition::sunElevation)),
            orElse(sunAzimuth, known.map(Acquisition::sunAzimuth)),
            known.map(Acquisition::viewOffNadir).orElse(Double.NaN),
            known.map(Acquisition::viewAzimuth).orElse(Double.NaN),
            gains));
  }

  private static double orElse(double told, Optional<Double> known) {
    return Double.isNaN(told) ? known.orElse(Double.NaN) : told;
  }
}
