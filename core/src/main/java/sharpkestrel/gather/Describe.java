package sharpkestrel.gather;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import sharpkestrel.geo.Acquisition.Calibration;
import sharpkestrel.geo.Crs;
import sharpkestrel.io.Description;
import sharpkestrel.io.Descriptions;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Sources;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Tells of a raster file what it does not say itself. It is kept beside the file, never in it, and counts wherever the file is opened. */
@StepInfo(
    id = "describe",
    stage = Stage.GATHER,
    title = "Describe",
    writesBeside = true,
    does =
        "Tells of a raster file what it does not say itself: system, roles and names of bands, no-data, date, sun and gains. Kept"
            + " beside the file (NAME.about.json), never in it; it counts wherever the file is opened, and takes the place of what"
            + " was told before. What is left at auto stays as the file has it.")
public record Describe(
    @Setting(label = "File", does = "A raster file.", reads = Describe.WithoutDescription.class)
    Path file,

    @Setting(
        label = "System",
        does =
            "The coordinate reference system of its grid: an EPSG code such as EPSG:32630, or well-known text.",
        initial = "auto")
    CrsName crs,

    @Setting(
        label = "Roles",
        does =
            "What each band stands for, separated by commas, such as blue, green, red, near_infrared, short_wave_infrared_1, pan,"
                + " height or other; each but other once.",
        initial = "auto")
    List<String> roles,

    @Setting(
        label = "Names",
        does = "What each band is called, separated by commas.",
        initial = "auto")
    List<String> names,

    @Setting(
        label = "No-data",
        does =
            "The stored number that means no-data: one for all bands, or one for each, separated by commas.",
        initial = "auto")
    List<Double> noData,

    @Setting(
        label = "Time",
        does = "When it was taken: 2031-04-03T11:42:00Z, or the day alone.",
        initial = "auto")
    Optional<Instant> time,

    @Setting(
        label = "Sun elevation",
        does = "Of the sun above the horizon.",
        unit = "degrees",
        min = 0,
        max = 90,
        initial = "auto")
    double sunElevation,

    @Setting(
        label = "Sun azimuth",
        does = "Of the sun, clockwise from north.",
        unit = "degrees",
        min = 0,
        max = 360,
        initial = "auto")
    double sunAzimuth,

    @Setting(
        label = "Gains",
        does = "Radiance of one number in each band (W per m², sr and µm), separated by commas.",
        initial = "auto")
    List<Double> gains,

    @Setting(
        label = "Offsets",
        does = "Radiance at number 0 in each band, separated by commas; 0 where left out.",
        initial = "auto")
    List<Double> offsets,

    @Setting(
        label = "Irradiances",
        does =
            "Of the sun in each band at its mean distance (W per m² and µm), separated by commas.",
        initial = "auto")
    List<Double> irradiances)
    implements Step<Raster> {

  /** All that is read with a raster but what is told here. */
  public static final class WithoutDescription implements Sources {
    @Override
    public List<Path> of(Path named, UnaryOperator<String> settings) {
      return RasterFiles.readWith(named).stream()
          .filter(each -> !each.equals(Descriptions.beside(named)))
          .toList();
    }
  }

  public Describe {
    if (gains.isEmpty() && !(offsets.isEmpty() && irradiances.isEmpty())) {
      throw new IllegalArgumentException(
          "Offsets and irradiances go with gains. Give those too, or leave all three out.");
    }
  }

  @Override
  public Raster run(Job job) {
    if (!Files.isRegularFile(file)) {
      throw new RasterException("There is no file " + file + ". Give the path of a raster file.");
    }
    int bands = RasterFiles.openPlain(file).bands().size();
    if (crs.isKnown()) {
      Crs.of(crs);
    }
    Map<Integer, Description.OfBand> told = new TreeMap<>();
    checkCount("roles", roles, bands);
    checkCount("names", names, bands);
    checkCount("gains", gains, bands);
    checkCount("offsets", offsets, bands);
    checkCount("irradiances", irradiances, bands);
    if (noData.size() != 1) {
      checkCount("numbers that mean no-data", noData, bands);
    }
    List<Optional<BandRole>> all =
        roles.stream().map(Describe::role).map(Optional::of).toList();
    checkDistinct();
    for (int b = 0; b < bands; b++) {
      told.put(
          b,
          new Description.OfBand(
              names.isEmpty() ? Optional.empty() : Optional.of(names.get(b)),
              all.isEmpty() ? Optional.empty() : all.get(b),
              Optional.empty(),
              noData.isEmpty() ? Double.NaN : noData.get(noData.size() == 1 ? 0 : b),
              1,
              0,
              gains.isEmpty()
                  ? Optional.empty()
                  : Optional.of(new Calibration(
                      gains.get(b),
                      offsets.isEmpty() ? 0 : offsets.get(b),
                      irradiances.isEmpty() ? Double.NaN : irradiances.get(b)))));
    }
    Description description = new Description(
        crs.isKnown() ? Optional.of(crs) : Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        time,
        sunElevation,
        sunAzimuth,
        told);
    Descriptions.write(file, description, bands);
    return RasterFiles.open(file);
  }

  private static void checkCount(String what, List<?> given, int bands) {
    if (!given.isEmpty() && given.size() != bands) {
      throw new RasterException("There are " + given.size() + " " + what + " for " + bands
          + " bands. Give one for each, or leave them out.");
    }
  }

  private void checkDistinct() {
    Set<BandRole> seen = EnumSet.noneOf(BandRole.class);
    for (String name : roles) {
      BandRole role = role(name);
      if (role != BandRole.OTHER && !seen.add(role)) {
        throw new RasterException("Two bands are told to be " + role.label()
            + ". A role stands once; give 'other' to the rest.");
      }
    }
    Set<String> before = new HashSet<>();
    for (String name : names) {
      if (!before.add(name)) {
        throw new RasterException("Two bands are called '" + name + "'. Give each its own name.");
      }
    }
  }

  private static BandRole role(String text) {
    BandRole role = BandRole.guess(text);
    if (role == BandRole.OTHER && !text.strip().equalsIgnoreCase(BandRole.OTHER.key())) {
      throw new RasterException(
          "'" + text.strip() + "' is no role. Roles are " + BandRole.keys() + ".");
    }
    return role;
  }
}
