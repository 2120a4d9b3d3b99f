package sharpkestrel.io;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import sharpkestrel.geo.Acquisition.Calibration;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;

/** What a person told of a raster file, kept as JSON beside it ({@code NAME.about.json}) and never in it. */
public final class Descriptions {

  private static final String ENDING = ".about.json";

  private Descriptions() {}

  public static Path beside(Path raster) {
    return TiffPyramid.beside(raster, ENDING);
  }

  /**
   * What was told of a raster; nothing where no file lies beside it.
   *
   * @throws FileFormatException that names what in the file is not understood
   */
  public static Description read(Path raster) {
    Path file = beside(raster);
    if (!Files.isRegularFile(file)) {
      return Description.NONE;
    }
    JsonNode root = Json.read(file);
    Map<Integer, Description.OfBand> bands = new TreeMap<>();
    JsonNode list = root.path("bands");
    for (int b = 0; b < list.size(); b++) {
      bands.put(b, band(file, list.get(b)));
    }
    return new Description(
        text(root, "crs").map(CrsName::new),
        Optional.empty(),
        Optional.empty(),
        text(root, "time").map(time -> time(file, time)),
        number(file, root, "sun_elevation"),
        number(file, root, "sun_azimuth"),
        bands);
  }

  private static Description.OfBand band(Path file, JsonNode node) {
    Optional<BandRole> role = text(node, "role").map(name -> role(file, name));
    double gain = number(file, node, "gain");
    double offset = number(file, node, "offset");
    return new Description.OfBand(
        text(node, "name"),
        role,
        text(node, "unit"),
        number(file, node, "no_data"),
        1,
        0,
        Double.isNaN(gain)
            ? Optional.empty()
            : Optional.of(new Calibration(
                gain, Double.isNaN(offset) ? 0 : offset, number(file, node, "irradiance"))));
  }

  private static BandRole role(Path file, String name) {
    BandRole role = BandRole.guess(name);
    if (role == BandRole.OTHER && !name.equals(BandRole.OTHER.label())) {
      throw wrong(file, "'" + name + "' is no role of a band");
    }
    return role;
  }

  private static Instant time(Path file, String text) {
    try {
      return Instant.parse(text);
    } catch (DateTimeParseException notOne) {
      throw wrong(file, "'" + text + "' is no time such as 2031-04-03T11:42:00Z");
    }
  }

  private static Optional<String> text(JsonNode node, String name) {
    return Optional.ofNullable(node.get(name)).filter(JsonNode::isTextual).map(JsonNode::asText);
  }

  private static double number(Path file, JsonNode node, String name) {
    JsonNode value = node.get(name);
    if (value != null && !value.isNumber()) {
      throw wrong(file, "\"" + name + "\" is " + value + ", not a number");
    }
    return value == null ? Double.NaN : value.asDouble();
  }

  private static FileFormatException wrong(Path file, String what) {
    return new FileFormatException(
        file + ": " + what + ". Correct it, or take the file away to open the raster as it is.");
  }

  /** Keeps what is told of a raster that has so many bands. */
  public static void write(Path raster, Description told, int bands) {
    ObjectNode root = Json.object();
    told.crs().ifPresent(crs -> root.put("crs", crs.text()));
    told.time().ifPresent(time -> root.put("time", time.toString()));
    put(root, "sun_elevation", told.sunElevation());
    put(root, "sun_azimuth", told.sunAzimuth());
    ArrayNode list = root.putArray("bands");
    for (int b = 0; b < bands; b++) {
      ObjectNode node = list.addObject();
      Description.OfBand of = told.of(b);
      of.name().ifPresent(name -> node.put("name", name));
      of.role().ifPresent(role -> node.put("role", role.label()));
      of.unit().ifPresent(unit -> node.put("unit", unit));
      put(node, "no_data", of.noData());
      of.calibration().ifPresent(c -> {
        node.put("gain", c.gain()).put("offset", c.offset());
        put(node, "irradiance", c.irradiance());
      });
    }
    Json.write(root, beside(raster));
  }

  private static void put(ObjectNode node, String name, double value) {
    if (!Double.isNaN(value)) {
      node.put(name, value);
    }
  }
}
