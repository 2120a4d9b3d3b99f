package sharpkestrel.app.project;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import sharpkestrel.flow.Origin;
import sharpkestrel.flow.RunSheet;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.io.FileFormatException;
import sharpkestrel.io.Json;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.Stage;

/**
 * What {@code project.json} says: a run sheet, what each of its results is kept as, what waited to be run, and what was shown
 * how. Files of earlier versions are brought up to this one; entries that cannot be read are kept as they are.
 *
 * @param unread steps that cannot be read, and why, as they stand in the file
 * @param waiting steps that were queued and not run
 */
record ProjectJson(
    String title,
    List<RunSheet.Entry> entries,
    List<Unread> unread,
    List<RunSheet.Entry> waiting,
    Map<String, Origin.Fingerprint> made,
    JsonNode root) {

  /** Goes up when the file's form changes; each step up has a migration. */
  static final int VERSION = 2;

  static final String STEPS = "steps";
  static final String WAITING = "waiting";
  static final String MADE = "made";
  private static final String VERSION_OF_FILE = "version";

  /**
   * A step that cannot be read: written by a later version, by hand, or after one that cannot be read either.
   *
   * @param stage where it belongs as far as that can be told
   */
  record Unread(JsonNode node, String title, Stage stage, String why) {}

  /**
   * @throws FileFormatException where it is no project, or one of a later version
   */
  static ProjectJson read(Path file) {
    JsonNode root = Json.read(file);
    if (!(root instanceof ObjectNode object) || !root.path(STEPS).isArray()) {
      throw new FileFormatException(file + " is no project: it has no \"" + STEPS + "\".");
    }
    migrate(object, file);
    Path folder = file.toAbsolutePath().getParent();
    List<RunSheet.Entry> entries = new ArrayList<>();
    List<Unread> unread = new ArrayList<>();
    for (JsonNode node : root.path(STEPS)) {
      try {
        entries.add(ProjectPaths.resolved(RunSheet.entry(node, entries), folder));
      } catch (RasterException wrong) {
        unread.add(new Unread(node, titleOf(node), stageOf(node), wrong.getMessage()));
      }
    }
    List<RunSheet.Entry> waiting = new ArrayList<>();
    for (JsonNode node : root.path(WAITING)) {
      try {
        List<RunSheet.Entry> before = new ArrayList<>(entries);
        before.addAll(waiting);
        waiting.add(ProjectPaths.resolved(RunSheet.entry(node, before), folder));
      } catch (RasterException gone) {
        // what it was to work on is not there; nothing is lost that was made
      }
    }
    Map<String, Origin.Fingerprint> made = new HashMap<>();
    root.path(MADE)
        .properties()
        .forEach(each -> made.put(
            each.getKey(),
            new Origin.Fingerprint(
                each.getValue().path("key").asText(),
                each.getValue().path("file").asText())));
    return new ProjectJson(root.path("title").asText(""), entries, unread, waiting, made, root);
  }

  private static String titleOf(JsonNode node) {
    return node.path("title").asText(node.path("name").asText("entry"));
  }

  private static Stage stageOf(JsonNode node) {
    String id = node.path("step").asText();
    return StepCatalogue.all().stream()
        .filter(step -> step.id().equals(id))
        .findFirst()
        .map(step -> step.stage())
        .orElse(Stage.GATHER);
  }

  private static void migrate(ObjectNode root, Path file) {
    int version = root.path(VERSION_OF_FILE).asInt(1);
    if (version > VERSION) {
      throw new FileFormatException(file + " was written by a later Sharp Kestrel (form " + version
          + ", this one knows " + VERSION + "). Open it with that one; nothing was changed.");
    }
    if (version < 2) {
      // relative paths were of the folder the application was started in
      ProjectPaths.makeAbsolute(root.path(STEPS), Path.of("").toAbsolutePath());
    }
    root.put(VERSION_OF_FILE, VERSION);
  }
}
