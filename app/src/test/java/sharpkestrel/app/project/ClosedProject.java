package sharpkestrel.app.project;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import javafx.application.Platform;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;
import sharpkestrel.app.SmallScene;
import sharpkestrel.app.Waiting;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.tools.pick.PickModel;
import sharpkestrel.app.work.RunLane;
import sharpkestrel.flow.SettingValues;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.io.Json;
import sharpkestrel.segment.Cut;

/** A project of a small scene with some results, to be closed and opened again. */
abstract class ClosedProject {

  @TempDir
  Path folder;

  Path scene;
  Path project;

  @BeforeAll
  static void toolkit() throws Exception {
    FxToolkit.registerPrimaryStage();
  }

  @BeforeEach
  void aScene() {
    scene = folder.resolve("scene.tif");
    project = folder.resolve("project");
    SmallScene.write(scene, 0.5, 1);
  }

  static void pickAndAccept(Workspace workspace, PickModel picks, int col, int row)
      throws Exception {
    Waiting waiting = new Waiting(workspace, 30);
    waiting.until("the tree", picks::hasTree);
    WaitForAsyncUtils.asyncFx(() -> picks.pick(col, row)).get();
    waiting.until("a pick", () -> picks.pickedProperty().get() != null);
    WaitForAsyncUtils.asyncFx(picks::accept).get();
  }

  static void keepGrain(Workspace workspace, Result segment, Cut cut) {
    Map<String, String> settings = new HashMap<>(segment.settings());
    settings.put("grain", SettingValues.plain(cut.grain()));
    workspace.change("grain", segment, settings, cut);
  }

  /** Waits until neither work nor keeping nor saving is under way. */
  static void settle(Workspace workspace) {
    for (int i = 0; i < 3; i++) {
      for (RunLane lane : List.of(workspace.lanes().run(), workspace.lanes().keeping())) {
        boolean[] done = new boolean[1];
        lane.afterAll(() -> done[0] = true);
        new Waiting(workspace, 30).until("the end of the work", () -> done[0]);
      }
      new Waiting(workspace, 30).until("rest", () -> workspace.lanes().save().isAtRest());
      assertThat(workspace.lanes().save().flush(Duration.ofSeconds(30))).isTrue();
    }
    WaitForAsyncUtils.waitForFxEvents();
  }

  /** Waits until the project's file holds a text, and nothing is being written to it. */
  void untilSaved(Workspace workspace, String text) {
    Path file = project.resolve("project.json");
    new Waiting(workspace, 30).until("the project's file", () -> {
      try {
        return Files.isRegularFile(file) && Files.readString(file).contains(text);
      } catch (java.io.IOException notYet) {
        return false;
      }
    });
    settle(workspace);
  }

  static void run(
      Workspace workspace,
      String step,
      Map<String, String> inputs,
      Map<String, String> files,
      Map<String, String> settings) {
    Map<String, Result> results = new java.util.LinkedHashMap<>();
    inputs.forEach((name, from) -> results.put(name, workspace.named(from).orElseThrow()));
    int before = workspace.results().size();
    Platform.runLater(() -> workspace.run(StepCatalogue.get(step), step, results, files, settings));
    new Waiting(workspace, 30).until(step, () -> workspace.results().size() > before);
    settle(workspace);
  }

  /** Segments, measured and bright ones, their outlines, and a delivered file. */
  Workspace made() {
    Workspace workspace = new Workspace();
    Platform.runLater(() -> ProjectFile.begin(workspace, project));
    WaitForAsyncUtils.waitForFxEvents();
    run(workspace, "segment", Map.of(), Map.of("scene", scene.toString()), Map.of("grain", "40"));
    run(
        workspace,
        "measure",
        Map.of("objects", "segment"),
        Map.of("scene", scene.toString()),
        Map.of());
    run(
        workspace,
        "winnow",
        Map.of("objects", "measure"),
        Map.of(),
        Map.of("tests", "red_mean > 0.3"));
    run(workspace, "outline", Map.of("objects", "winnow"), Map.of(), Map.of());
    run(
        workspace,
        "export",
        Map.of("result", "outline"),
        Map.of(),
        Map.of("file", folder.resolve("roofs.gpkg").toString()));
    return workspace;
  }

  Workspace opened() {
    Workspace workspace = new Workspace();
    Platform.runLater(() -> ProjectFile.open(workspace, project));
    WaitForAsyncUtils.waitForFxEvents();
    settle(workspace);
    return workspace;
  }

  static <T> T value(Workspace workspace, String name, Class<T> type) {
    return type.cast(workspace.named(name).orElseThrow().value());
  }

  Set<String> names(String of) throws Exception {
    try (Stream<Path> files = Files.list(project.resolve(of))) {
      return files
          .map(f -> f.getFileName().toString())
          .collect(java.util.stream.Collectors.toSet());
    }
  }

  void close(Workspace workspace) throws Exception {
    WaitForAsyncUtils.asyncFx(workspace::close).get();
    settle(workspace);
  }

  ObjectNode json() {
    return (ObjectNode) Json.read(project.resolve("project.json"));
  }
}
