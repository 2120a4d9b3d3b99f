package sharpkestrel.app.project;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import javafx.beans.value.ObservableValue;
import javafx.collections.ListChangeListener;
import sharpkestrel.app.model.Given;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.NotOpen;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.work.RunLane;
import sharpkestrel.flow.Origin;
import sharpkestrel.flow.RunSheet;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.io.Json;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.Stage;

/**
 * A project on disk: a folder whose {@code project.json} says how each result was made, as a run sheet, and under
 * {@code made} what each is kept as. It is written after every change. Opening it brings results back from their files,
 * and makes those again that have none. Results that are not open yet, or cannot be opened, and entries that cannot be read,
 * stay in the file. While another process has the project open it can be looked at, and nothing is written.
 */
public final class ProjectFile {

  private static final String NAME = "project.json";
  private static final String LOOKS = "looks";
  private static final String OBJECTS = "objects_drawn";
  private static final String SHOWN = "shown";

  /** What is shown how is written once that rests, not at each step of a slider. */
  private static final Duration REST = Duration.ofMillis(500);

  private final Workspace workspace;
  private final Path folder;
  private final Path file;
  private final List<RunSheet.Entry> unopened = new ArrayList<>();
  private final List<ProjectJson.Unread> unread = new ArrayList<>();
  private final Map<String, Origin.Fingerprint> before = new HashMap<>();
  private ProjectLock lock;

  /** What was shown when the project was closed, until all is open; null then. */
  private ObjectNode shownBefore;

  /** What is shown while the rest is being opened. */
  private Result shownMeanwhile;

  private boolean shownAgain;

  /** What happens to the workspace afterwards is of no project. */
  private boolean closed;

  private ProjectFile(Workspace workspace, Path folder) {
    this.workspace = workspace;
    this.folder = folder;
    file = folder.resolve(NAME);
    Optional<ProjectLock> taken = ProjectLock.take(folder);
    taken.ifPresent(held -> lock = held);
    workspace.setFolder(folder, taken.isEmpty());
  }

  /** Whether a folder holds a project. */
  public static boolean isIn(Path folder) {
    return Files.isRegularFile(folder.resolve(NAME));
  }

  /**
   * The steps of a project that can be read, with their files as they are on this machine.
   *
   * @throws RasterException where the folder holds no project that can be read
   */
  public static List<RunSheet.Entry> entries(Path folder) {
    return ProjectJson.read(folder.resolve(NAME)).entries();
  }

  /**
   * Begins a project in a folder, in place of any that is there; what was done by hand in that one is put aside.
   *
   * @throws RasterException where somebody else has it open, or nothing can be written there
   */
  public static void begin(Workspace workspace, Path folder) {
    if (isIn(folder)) {
      putHandAside(folder);
    }
    ProjectFile project = new ProjectFile(workspace, folder);
    if (project.lock == null) {
      throw new RasterException("The project in " + folder + " is open: "
          + ProjectLock.holder(folder) + ". Begin in another folder.");
    }
    project.keepSaved();
    project.save();
  }

  private static void putHandAside(Path folder) {
    Path hand = folder.resolve("hand");
    if (Files.isDirectory(hand)) {
      String when = Instant.now().truncatedTo(ChronoUnit.SECONDS).toString().replace(':', '-');
      try {
        Files.move(hand, folder.resolve("hand-until-" + when));
      } catch (IOException failed) {
        throw new RasterException(hand + " could not be put aside: " + failed.getMessage(), failed);
      }
    }
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
    ProjectJson json = ProjectJson.read(folder.resolve(NAME));
    new ProjectFile(workspace, folder).open(json);
  }

  /** Writes the project after every change of its results and of what is shown how. */
  private void keepSaved() {
    if (lock == null) {
      return;
    }
    RecentProjects.add(folder, title());
    workspace.results().addListener((ListChangeListener<Result>) change -> save());
    workspace.display().ownLooks().addListener((ListChangeListener<Look>) change -> save());
    workspace.lanes().run().queue().addListener((ListChangeListener<RunLane.Run>)
        change -> saveOnceAtRest());
    for (ObservableValue<?> shown : List.of(
        workspace.display().objectStyleProperty(),
        workspace.display().paneAProperty(),
        workspace.display().paneBProperty(),
        workspace.display().compareProperty(),
        workspace.display().viewProperty(),
        workspace.display().lookProperty(),
        workspace.titleProperty(),
        workspace.display().stageProperty())) {
      shown.addListener((p, before, now) -> saveOnceAtRest());
    }
    workspace.onClosing(this::close);
  }

  private void close() {
    save();
    closed = true;
    workspace.lanes().save().whenWritten(lock::release);
  }

  private String title() {
    String title = workspace.titleProperty().get();
    return title.isBlank() ? String.valueOf(folder.getFileName()) : title;
  }

  private void saveOnceAtRest() {
    workspace.lanes().save().atRest(file, REST, this::save);
  }

  private void save() {
    if (closed) {
      return;
    }
    ObjectNode json = toJson();
    workspace.lanes().save().write(file, () -> Json.write(json, file));
  }

  private ObjectNode toJson() {
    ObjectNode json = Json.object();
    json.put("version", ProjectJson.VERSION);
    json.setAll(sheet(entries()).toJson());
    unread.forEach(each -> json.withArray(ProjectJson.STEPS).add(each.node()));
    ArrayNode waiting = json.putArray(ProjectJson.WAITING);
    sheet(waiting()).toJson().path(ProjectJson.STEPS).forEach(waiting::add);
    ObjectNode made = json.putObject(ProjectJson.MADE);
    Map<String, Origin.Fingerprint> all = new LinkedHashMap<>();
    unread.forEach(each -> {
      String name = each.node().path("name").asText();
      if (before.containsKey(name)) {
        all.put(name, before.get(name));
      }
    });
    workspace.results().forEach(result -> all.put(result.name(), result.made()));
    unopened.forEach(entry -> {
      if (before.containsKey(entry.name())) {
        all.put(entry.name(), before.get(entry.name()));
      }
    });
    all.forEach((name, fingerprint) ->
        made.putObject(name).put("key", fingerprint.key()).put("file", fingerprint.file()));
    LookJson.write(workspace.display().ownLooks(), json.putArray(LOOKS));
    LookJson.write(workspace.display().objectStyleProperty().get(), json.putObject(OBJECTS));
    if (shownBefore != null) {
      json.set(SHOWN, shownBefore);
    } else {
      ShownJson.write(workspace, json.putObject(SHOWN));
    }
    return json;
  }

  private RunSheet sheet(List<RunSheet.Entry> entries) {
    return new RunSheet(
        workspace.titleProperty().get(),
        Map.of(),
        entries.stream().map(entry -> ProjectPaths.relative(entry, folder)).toList());
  }

  private List<RunSheet.Entry> entries() {
    List<RunSheet.Entry> entries = new ArrayList<>();
    for (Result result : workspace.results()) {
      Map<String, String> inputs = new LinkedHashMap<>(result.files());
      result.inputs().forEach((name, input) -> inputs.put(name, "@" + input.name()));
      entries.add(new RunSheet.Entry(
          result.name(), result.title(), result.step().id(), inputs, result.settings(), false));
    }
    entries.addAll(unopened);
    return entries;
  }

  /** What is queued, under names of its own: results are named when they are made. */
  private List<RunSheet.Entry> waiting() {
    List<RunSheet.Entry> waiting = new ArrayList<>();
    for (RunLane.Run run : workspace.lanes().run().queue()) {
      if (run.what() instanceof RunSheet.Entry entry) {
        waiting.add(new RunSheet.Entry(
            "waiting-" + (waiting.size() + 1),
            entry.title(),
            entry.step(),
            entry.inputs(),
            entry.settings(),
            false));
      }
    }
    return waiting;
  }

  private void open(ProjectJson json) {
    workspace.display().ownLooks().setAll(LookJson.read(json.root().path(LOOKS)));
    workspace.display().objectStyleProperty().set(LookJson.style(json.root().path(OBJECTS)));
    shownBefore = json.root().path(SHOWN) instanceof ObjectNode shown ? shown : null;
    before.putAll(json.made());
    workspace.titleProperty().set(json.title());
    unopened.addAll(json.entries());
    unread.addAll(json.unread());
    json.entries().forEach(entry -> workspace.reserve(entry.name()));
    for (ProjectJson.Unread each : unread) {
      workspace.reserve(each.node().path("name").asText());
      workspace
          .notOpen()
          .add(new NotOpen(
              each.node().path("name").asText(each.title()),
              each.title(),
              each.stage(),
              each.why(),
              Optional.empty()));
    }
    keepSaved();
    if (lock == null) {
      workspace
          .messages()
          .tell("This project has been open with " + ProjectLock.holder(folder)
              + ". You are looking on: nothing that you do here is kept.");
    }
    json.entries().forEach(this::queue);
    workspace.lanes().run().afterAll(() -> opened(json.waiting()));
  }

  private void queue(RunSheet.Entry entry) {
    workspace
        .lanes()
        .run()
        .run(
            entry.title(),
            job -> {
              Given given = Given.of(entry.inputs(), workspace.maker()::current, file -> file);
              return workspace
                  .maker()
                  .bringBack(entry, given, Optional.ofNullable(before.get(entry.name())), job)
                  .as(
                      entry.name(),
                      entry.title(),
                      StepCatalogue.get(entry.step()),
                      given,
                      entry.settings());
            },
            result -> broughtBack(entry, result),
            failure -> notOpened(entry, failure.getMessage()));
  }

  private void notOpened(RunSheet.Entry entry, String why) {
    workspace.notOpen().removeIf(each -> each.name().equals(entry.name()));
    workspace
        .notOpen()
        .add(new NotOpen(
            entry.name(),
            entry.title(),
            StepCatalogue.get(entry.step()).stage(),
            why,
            Optional.of(() -> queue(entry))));
    workspace
        .messages()
        .tell(entry.title() + " could not be opened: " + why + " It stays in the project.");
  }

  private void broughtBack(RunSheet.Entry entry, Result result) {
    unopened.remove(entry);
    workspace.notOpen().removeIf(each -> each.name().equals(entry.name()));
    workspace.suggestions().remember(result.step(), result.files(), entry.settings());
    workspace.results().add(result);
    workspace.maker().keep(result);
    // whoever has chosen something to look at meanwhile is left alone
    boolean untouched = workspace.display().paneAProperty().get() == shownMeanwhile;
    if (untouched && shownBefore != null && ShownJson.restore(workspace, shownBefore, result)) {
      shownMeanwhile = result;
      shownAgain = true;
    } else if (shownMeanwhile == null && untouched && result.backdrop() != null) {
      shownMeanwhile = result;
      workspace.display().show(result);
    }
  }

  /** Shows the newest result where what was shown is gone; clears away what nothing refers to any more. */
  private void opened(List<RunSheet.Entry> waited) {
    if (!shownAgain && workspace.display().paneAProperty().get() == shownMeanwhile) {
      showNewest();
    }
    shownBefore = null;
    Set<String> referred = before.entrySet().stream()
        .filter(each -> unopened.stream().anyMatch(entry -> entry.name().equals(each.getKey()))
            || unread.stream()
                .anyMatch(entry -> entry.node().path("name").asText().equals(each.getKey())))
        .map(each -> each.getValue().file())
        .collect(Collectors.toSet());
    workspace.maker().prune(workspace.results(), referred);
    if (!waited.isEmpty() && lock != null) {
      workspace
          .messages()
          .tell(
              (waited.size() == 1 ? "A run" : waited.size() + " runs")
                  + " had not ended when the window was closed: "
                  + waited.stream().map(RunSheet.Entry::title).collect(Collectors.joining(", "))
                  + ".",
              "Run now",
              () -> waited.forEach(workspace::run));
    }
  }

  /** Where there is more than raw scenes. */
  private void showNewest() {
    workspace.results().reversed().stream()
        .filter(r -> r.backdrop() != null && r.stage() != Stage.GATHER)
        .findFirst()
        .ifPresent(result -> {
          workspace.display().show(result);
          workspace.display().stageProperty().set(result.stage());
        });
  }
}
