package sharpkestrel.app.project;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import sharpkestrel.io.Json;
import sharpkestrel.raster.RasterException;

/** The projects opened last, the newest first, as a file in the application's own folder. */
public final class RecentProjects {

  private static final int MOST = 12;
  private static final String PROJECTS = "projects";

  /** Picture of what a project showed last, in its folder. */
  static final String PICTURE = "picture.png";

  /**
   * A project that was opened.
   *
   * @param when it was last open
   */
  public record Recent(Path folder, String title, Instant when) {

    /** Where the picture of what it showed lies; it need not be there. */
    public Path picture() {
      return folder.resolve(PICTURE);
    }
  }

  private RecentProjects() {}

  private static Path file() {
    return Home.folder().resolve("recent.json");
  }

  /** Those that are still there. */
  public static List<Recent> all() {
    if (!Files.isRegularFile(file())) {
      return List.of();
    }
    List<Recent> all = new ArrayList<>();
    try {
      for (JsonNode node : Json.read(file()).path(PROJECTS)) {
        Path folder = Path.of(node.path("folder").asText());
        if (ProjectFile.isIn(folder)) {
          all.add(new Recent(
              folder,
              node.path("title").asText(),
              Instant.parse(node.path("when").asText())));
        }
      }
    } catch (RasterException | java.time.DateTimeException damaged) {
      // a list of what was open is no loss
    }
    return all;
  }

  /** Puts a project first. */
  static synchronized void add(Path folder, String title) {
    Path real = folder.toAbsolutePath().normalize();
    List<Recent> all = new ArrayList<>(all());
    all.removeIf(recent -> recent.folder().equals(real));
    all.addFirst(new Recent(real, title, Instant.now()));
    ObjectNode root = Json.object();
    ArrayNode array = root.putArray(PROJECTS);
    all.stream()
        .limit(MOST)
        .forEach(recent -> array
            .addObject()
            .put("folder", recent.folder().toString())
            .put("title", recent.title())
            .put("when", recent.when().toString()));
    Json.write(root, file());
  }
}
