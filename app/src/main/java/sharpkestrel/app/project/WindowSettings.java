package sharpkestrel.app.project;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import sharpkestrel.io.Json;
import sharpkestrel.raster.RasterException;

/** How the window was when it was closed last, of whatever project: theme, size, what was folded. */
public final class WindowSettings {

  private final ObjectNode values;

  private WindowSettings(ObjectNode values) {
    this.values = values;
  }

  private static Path file() {
    return Home.folder().resolve("window.json");
  }

  /** As kept; none where nothing was, or it cannot be read. */
  public static WindowSettings read() {
    try {
      if (Files.isRegularFile(file()) && Json.read(file()) instanceof ObjectNode kept) {
        return new WindowSettings(kept);
      }
    } catch (RasterException damaged) {
      // a window that looks as at first is no loss
    }
    return new WindowSettings(Json.object());
  }

  public boolean is(String name) {
    return values.path(name).asBoolean(false);
  }

  public Optional<Double> number(String name) {
    JsonNode node = values.path(name);
    return node.isNumber() ? Optional.of(node.asDouble()) : Optional.empty();
  }

  public void set(String name, boolean value) {
    values.put(name, value);
  }

  public void set(String name, double value) {
    values.put(name, value);
  }

  /** Keeps them. */
  public void write() {
    Json.write(values, file());
  }
}
