package sharpkestrel.app.project;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import sharpkestrel.io.Json;
import sharpkestrel.raster.RasterException;

/** How the window was when it was closed last, of whatever project: theme, size, what was folded, columns of tables left out. */
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

  public Set<String> texts(String name) {
    Set<String> texts = new TreeSet<>();
    values.path(name).forEach(node -> texts.add(node.asText()));
    return texts;
  }

  public void set(String name, Set<String> texts) {
    ArrayNode list = values.putArray(name);
    new TreeSet<>(texts).forEach(list::add);
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
