package sharpkestrel.app.model;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import javafx.animation.PauseTransition;
import javafx.beans.value.ObservableValue;
import javafx.collections.ListChangeListener;
import javafx.util.Duration;
import sharpkestrel.flow.Origin;
import sharpkestrel.flow.RunSheet;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.io.Json;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.Stage;

/**
 * A project on disk: a folder whose {@code project.json} says how each result was made, as a run sheet, and under
 * {@code made} what each is kept as. It is written after every change. Opening it brings results back from their files,
 * and makes those again that have none. Results that are not open yet, or cannot be opened, stay in the file.
 */
public final class ProjectFile {

  private static final String NAME = "project.json";
  private static final String MADE = "made";
  private static final String LOOKS = "looks";
  private static final String OBJECTS = "objects_drawn";
  private static final String SHOWN = "shown";

  private final Workspace workspace;
  private final Path file;
  private final PauseTransition rested = new PauseTransition(Duration.millis(500));
  private final List<RunSheet.Entry> unopened = new ArrayList<>();
  private final Map<String, Origin.Fingerprint> before = new HashMap<>();

  /** What was shown when the project was closed, until all is open; null then. */
  private ObjectNode shownBefore;

  /** What is shown while the rest is being opened. */
  private Result shownMeanwhile;

  private boolean shownAgain;

  private ProjectFile(Workspace workspace, Path folder) {
    this.workspace = workspace;
    file = folder.resolve(NAME);
    workspace.setFolder(folder);
  }

  /** Whether a folder holds a project. */
  public static boolean isIn(Path folder) {
    return Files.isRegularFile(folder.resolve(NAME));
  }

  /** Begins a project in a folder, in place of any that is there. */
  public static void begin(Workspace workspace, Path folder) {
    KeptPicks.clear(folder);
    new ProjectFile(workspace, folder).keepSaved();
  }

  /**
   * Opens a project, one result after the other in the background.
   *
   * @throws RasterException where the folder holds no project
   */
  public static void open(Workspace workspace, Path folder) {
    if (!isIn(folder)) {
      throw new RasterException(folder + " holds no project: there is no " + NAME
          + ". Choose a folder that Sharp Kestrel made.");
    }
    new ProjectFile(workspace, folder).open();
  }

  /** Writes the project after every change of its results and of what is shown how. */
  private void keepSaved() {
    workspace.results().addListener((ListChangeListener<Result>) change -> save());
    workspace.ownLooks().addListener((ListChangeListener<Look>) change -> save());
    // once a slider rests, not at each of its steps
    rested.setOnFinished(e -> save());
    for (ObservableValue<?> shown : List.of(
        workspace.objectStyleProperty(),
        workspace.paneAProperty(),
        workspace.paneBProperty(),
        workspace.compareProperty(),
        workspace.viewProperty(),
        workspace.lookProperty(),
        workspace.stageProperty())) {
      shown.addListener((p, before, now) -> rested.playFromStart());
    }
  }

  private void save() {
    ObjectNode json = toJson();
    workspace.tasks().quietly(() -> Json.write(json, file), workspace.messageProperty()::set);
  }

  private ObjectNode toJson() {
    ObjectNode json = sheet().toJson();
    ObjectNode made = json.putObject(MADE);
    Map<String, Origin.Fingerprint> all = new LinkedHashMap<>();
    workspace.results().forEach(result -> all.put(result.name(), result.made()));
    unopened.forEach(entry -> {
      if (before.containsKey(entry.name())) {
        all.put(entry.name(), before.get(entry.name()));
      }
    });
    all.forEach((name, fingerprint) ->
        made.putObject(name).put("key", fingerprint.key()).put("file", fingerprint.file()));
    LookJson.write(workspace.ownLooks(), json.putArray(LOOKS));
    LookJson.write(workspace.objectStyleProperty().get(), json.putObject(OBJECTS));
    if (shownBefore != null) {
      json.set(SHOWN, shownBefore);
    } else {
      ShownJson.write(workspace, json.putObject(SHOWN));
    }
    return json;
  }

  private RunSheet sheet() {
    List<RunSheet.Entry> entries = new ArrayList<>();
    for (Result result : workspace.results()) {
      Map<String, String> inputs = new LinkedHashMap<>(result.files());
      result.inputs().forEach((name, input) -> inputs.put(name, "@" + input.name()));
      entries.add(new RunSheet.Entry(
          result.name(), result.title(), result.step().id(), inputs, result.settings(), false));
    }
    entries.addAll(unopened);
    return new RunSheet(workspace.titleProperty().get(), Map.of(), entries);
  }

  private void open() {
    RunSheet sheet = RunSheet.read(file);
    JsonNode json = Json.read(file);
    workspace.ownLooks().setAll(LookJson.read(json.path(LOOKS)));
    workspace.objectStyleProperty().set(LookJson.style(json.path(OBJECTS)));
    shownBefore = json.path(SHOWN) instanceof ObjectNode shown ? shown : null;
    for (Map.Entry<String, JsonNode> made : json.path(MADE).properties()) {
      JsonNode node = made.getValue();
      before.put(
          made.getKey(),
          new Origin.Fingerprint(node.path("key").asText(), node.path("file").asText()));
    }
    workspace.titleProperty().set(sheet.title());
    unopened.addAll(sheet.steps());
    sheet.steps().forEach(entry -> workspace.reservedNames().add(entry.name()));
    keepSaved();
    sheet.steps().forEach(this::queue);
    workspace.tasks().afterAll(this::opened);
  }

  private void queue(RunSheet.Entry entry) {
    Map<String, Result> inputs = new LinkedHashMap<>();
    Map<String, String> files = new LinkedHashMap<>();
    workspace
        .tasks()
        .run(
            entry.title(),
            job -> {
              entry.inputs().forEach((name, reference) -> {
                if (reference.startsWith("@")) {
                  inputs.put(name, workspace.maker().current(reference.substring(1)));
                } else {
                  files.put(name, reference);
                }
              });
              return workspace
                  .maker()
                  .bringBack(
                      entry, inputs, files, Optional.ofNullable(before.get(entry.name())), job);
            },
            made -> broughtBack(entry, inputs, files, made),
            failure -> workspace
                .messageProperty()
                .set(entry.title() + " could not be opened: " + failure.getMessage()
                    + " It stays in the project."));
  }

  private void broughtBack(
      RunSheet.Entry entry,
      Map<String, Result> inputs,
      Map<String, String> files,
      ResultMaker.Made made) {
    unopened.remove(entry);
    Result result = new Result(
        entry.name(),
        entry.title(),
        StepCatalogue.get(entry.step()),
        inputs,
        files,
        entry.settings(),
        made.value(),
        made.fingerprint());
    workspace.remember(result.step(), files, entry.settings());
    workspace.results().add(result);
    workspace.maker().keep(result);
    // whoever has chosen something to look at meanwhile is left alone
    boolean untouched = workspace.paneAProperty().get() == shownMeanwhile;
    if (untouched && shownBefore != null && ShownJson.restore(workspace, shownBefore, result)) {
      shownMeanwhile = result;
      shownAgain = true;
    } else if (shownMeanwhile == null && untouched && result.backdrop() != null) {
      shownMeanwhile = result;
      workspace.show(result);
    }
  }

  /** Shows the newest result where what was shown is gone; clears away what nothing refers to any more. */
  private void opened() {
    if (!shownAgain && workspace.paneAProperty().get() == shownMeanwhile) {
      showNewest();
    }
    shownBefore = null;
    Set<String> waiting = unopened.stream()
        .map(entry -> before.get(entry.name()))
        .filter(java.util.Objects::nonNull)
        .map(Origin.Fingerprint::file)
        .collect(Collectors.toSet());
    workspace.maker().prune(workspace.results(), waiting);
  }

  /** Where there is more than raw scenes. */
  private void showNewest() {
    workspace.results().reversed().stream()
        .filter(r -> r.backdrop() != null && r.stage() != Stage.GATHER)
        .findFirst()
        .ifPresent(result -> {
          workspace.show(result);
          workspace.stageProperty().set(result.stage());
        });
  }
}
