package sharpkestrel.io;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.Acquisition.Calibration;
import sharpkestrel.raster.BandRole;

/**
 * A delivery described by a STAC item (STAC 1.0 with the view, eo and raster extensions).
 *
 * @param assets in the order of the file
 */
public record StacItem(String id, Acquisition acquisition, List<Asset> assets) {

  /**
   * @param key the asset's name, e.g. {@code pan-R1C2}
   * @param path the file, resolved against the item's folder
   * @param bands the roles and names of its bands, empty where not said
   */
  public record Asset(String key, Path path, List<String> roles, List<BandNote> bands) {}

  public record BandNote(String name, BandRole role) {}

  /**
   * @throws FileFormatException where the file is no STAC item
   */
  public static StacItem read(Path path) {
    JsonNode root = Json.read(path);
    if (!root.path("type").asText().equals("Feature") || !root.has("assets")) {
      throw new FileFormatException(
          path + " is not a STAC item: it needs \"type\": \"Feature\" and \"assets\".");
    }
    JsonNode properties = root.path("properties");
    Map<BandRole, Calibration> calibration = new EnumMap<>(BandRole.class);
    List<Asset> assets = new ArrayList<>();
    Path folder = path.toAbsolutePath().getParent();
    root.path("assets").properties().forEach(entry -> {
      JsonNode asset = entry.getValue();
      List<BandNote> bands = new ArrayList<>();
      JsonNode notes = asset.path("eo:bands");
      JsonNode numbers = asset.path("raster:bands");
      for (int b = 0; b < notes.size(); b++) {
        JsonNode note = notes.get(b);
        String name = note.path("name").asText("band " + (b + 1));
        BandRole role = BandRole.guess(note.path("common_name").asText(name));
        role = role == BandRole.OTHER ? BandRole.guess(name) : role;
        bands.add(new BandNote(name, role));
        JsonNode number = numbers.path(b);
        if (number.has("scale")) {
          calibration.put(
              role,
              new Calibration(
                  number.path("scale").asDouble(),
                  number.path("offset").asDouble(0),
                  note.path("solar_illumination").asDouble(Double.NaN)));
        }
      }
      List<String> roles = new ArrayList<>();
      asset.path("roles").forEach(role -> roles.add(role.asText()));
      assets.add(
          new Asset(entry.getKey(), file(path, folder, asset.path("href").asText()), roles, bands));
    });
    Acquisition acquisition = new Acquisition(
        time(properties.path("datetime").asText()),
        properties.path("view:sun_elevation").asDouble(Double.NaN),
        properties.path("view:sun_azimuth").asDouble(Double.NaN),
        properties.path("view:off_nadir").asDouble(Double.NaN),
        properties.path("view:azimuth").asDouble(Double.NaN),
        calibration);
    return new StacItem(root.path("id").asText(), acquisition, assets);
  }

  private static Path file(Path item, Path folder, String href) {
    try {
      return folder.resolve(href);
    } catch (InvalidPathException senseless) {
      throw new FileFormatException(
          item + ": \"href\" is '" + href + "', which is no name of a file.", senseless);
    }
  }

  private static Instant time(String text) {
    try {
      return Instant.parse(text);
    } catch (DateTimeParseException unknown) {
      return Instant.EPOCH;
    }
  }
}
