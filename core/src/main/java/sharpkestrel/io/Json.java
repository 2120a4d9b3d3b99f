package sharpkestrel.io;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.StreamReadFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.CharacterCodingException;
import java.nio.file.Files;
import java.nio.file.Path;

/** Reading and writing of JSON files. */
public final class Json {

  private static final ObjectMapper MAPPER = JsonMapper.builder()
      .enable(SerializationFeature.INDENT_OUTPUT)
      .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
      .build();

  private Json() {}

  public static ObjectNode object() {
    return MAPPER.createObjectNode();
  }

  /**
   * @throws FileFormatException with line and column of what cannot be read
   */
  public static JsonNode read(Path path) {
    try {
      return MAPPER.readTree(Files.readString(path));
    } catch (JsonProcessingException malformed) {
      throw new FileFormatException(
          path
              + " is not JSON: "
              + malformed.getOriginalMessage()
              + " (line "
              + (malformed.getLocation() == null ? "?" : malformed.getLocation().getLineNr())
              + ")",
          malformed);
    } catch (CharacterCodingException binary) {
      throw new FileFormatException(path + " is not JSON: it is no text.", binary);
    } catch (IOException failed) {
      throw new FileFormatException(
          path + " cannot be read: " + failed.getMessage() + ". Check the name and the folder.",
          failed);
    }
  }

  /**
   * Reads a text.
   *
   * @throws FileFormatException where it is not JSON
   */
  public static JsonNode parse(String text) {
    try {
      return MAPPER.readTree(text);
    } catch (JsonProcessingException malformed) {
      throw new FileFormatException("not JSON: " + malformed.getOriginalMessage(), malformed);
    }
  }

  /** Reads a file that ships beside a class. */
  public static JsonNode resource(Class<?> beside, String name) {
    try (InputStream in = beside.getResourceAsStream(name)) {
      if (in == null) {
        throw new IllegalStateException(name + " does not ship with " + beside.getName());
      }
      return MAPPER.readTree(in);
    } catch (IOException broken) {
      throw new IllegalStateException(name + " cannot be read", broken);
    }
  }

  public static void write(JsonNode node, Path path) {
    AtomicFile.write(path, temporary -> Files.writeString(temporary, pretty(node)));
  }

  public static String pretty(JsonNode node) {
    try {
      return MAPPER.writeValueAsString(node) + "\n";
    } catch (JsonProcessingException impossible) {
      throw new IllegalStateException(impossible);
    }
  }

  public static String line(JsonNode node) {
    return node.toString();
  }
}
