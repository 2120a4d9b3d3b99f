package sharpkestrel.io;

import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.Acquisition.Calibration;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;

/** An acquisition as named items of a GeoTIFF, with the names that STAC uses for the same things. */
final class AcquisitionItems {

  private static final String TIME = "datetime";
  private static final String SUN_ELEVATION = "view:sun_elevation";
  private static final String SUN_AZIMUTH = "view:sun_azimuth";
  private static final String OFF_NADIR = "view:off_nadir";
  private static final String AZIMUTH = "view:azimuth";
  private static final String GAIN = "raster:scale";
  private static final String OFFSET = "raster:offset";
  private static final String IRRADIANCE = "eo:solar_illumination";

  private AcquisitionItems() {}

  static void write(ItemsXml items, Acquisition acquisition, List<Band> bands) {
    items.put(ItemsXml.FILE, TIME, acquisition.time().toString());
    items.put(ItemsXml.FILE, SUN_ELEVATION, Double.toString(acquisition.sunElevation()));
    items.put(ItemsXml.FILE, SUN_AZIMUTH, Double.toString(acquisition.sunAzimuth()));
    items.put(ItemsXml.FILE, OFF_NADIR, Double.toString(acquisition.viewOffNadir()));
    items.put(ItemsXml.FILE, AZIMUTH, Double.toString(acquisition.viewAzimuth()));
    for (int b = 0; b < bands.size(); b++) {
      int band = b;
      acquisition.calibrationOf(bands.get(b).role()).ifPresent(c -> {
        items.put(band, GAIN, Double.toString(c.gain()));
        items.put(band, OFFSET, Double.toString(c.offset()));
        items.put(band, IRRADIANCE, Double.toString(c.irradiance()));
      });
    }
  }

  static Optional<Acquisition> read(ItemsXml items, List<Band> bands) {
    if (items.get(ItemsXml.FILE, SUN_ELEVATION).isEmpty()
        && items.get(ItemsXml.FILE, TIME).isEmpty()) {
      return Optional.empty();
    }
    Map<BandRole, Calibration> calibration = new EnumMap<>(BandRole.class);
    for (int b = 0; b < bands.size(); b++) {
      if (items.get(b, GAIN).isPresent()) {
        calibration.put(
            bands.get(b).role(),
            new Calibration(
                number(items, b, GAIN), number(items, b, OFFSET), number(items, b, IRRADIANCE)));
      }
    }
    return Optional.of(new Acquisition(
        time(items.get(ItemsXml.FILE, TIME).orElse("")),
        number(items, ItemsXml.FILE, SUN_ELEVATION),
        number(items, ItemsXml.FILE, SUN_AZIMUTH),
        number(items, ItemsXml.FILE, OFF_NADIR),
        number(items, ItemsXml.FILE, AZIMUTH),
        calibration));
  }

  private static Instant time(String text) {
    try {
      return Instant.parse(text);
    } catch (DateTimeParseException unknown) {
      return Instant.EPOCH;
    }
  }

  private static double number(ItemsXml items, int band, String name) {
    try {
      return items.get(band, name).map(Double::parseDouble).orElse(Double.NaN);
    } catch (NumberFormatException unreadable) {
      return Double.NaN;
    }
  }
}
