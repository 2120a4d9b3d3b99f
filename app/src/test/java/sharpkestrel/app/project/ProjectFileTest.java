package sharpkestrel.app.project;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import javafx.application.Platform;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;
import sharpkestrel.app.SmallScene;
import sharpkestrel.app.Waiting;
import sharpkestrel.app.model.Display;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.NotOpen;
import sharpkestrel.app.model.ObjectStyle;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.ViewPlace;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.app.tools.pick.PickModel;
import sharpkestrel.app.work.RunLane;
import sharpkestrel.expr.Table;
import sharpkestrel.flow.SettingValues;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.Json;
import sharpkestrel.io.Layer;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.SampleType;
import sharpkestrel.segment.Cut;
import sharpkestrel.step.Stage;

/** A project is closed and opened again: what is kept, what is stale, what is never lost. */
class ProjectFileTest {

  @TempDir
  Path folder;

  private Path scene;
  private Path project;

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

  private static void pickAndAccept(Workspace workspace, PickModel picks, int col, int row)
      throws Exception {
    Waiting waiting = new Waiting(workspace, 30);
    waiting.until("the tree", picks::hasTree);
    WaitForAsyncUtils.asyncFx(() -> picks.pick(col, row)).get();
    waiting.until("a pick", () -> picks.pickedProperty().get() != null);
    WaitForAsyncUtils.asyncFx(picks::accept).get();
  }

  private static void keepGrain(Workspace workspace, Result segment, Cut cut) {
    Map<String, String> settings = new HashMap<>(segment.settings());
    settings.put("grain", SettingValues.plain(cut.grain()));
    workspace.change("grain", segment, settings, cut);
  }

  /** Waits until neither work nor keeping nor saving is under way. */
  private static void settle(Workspace workspace) {
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
  private void untilSaved(Workspace workspace, String text) {
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

  private static void run(
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
  private Workspace made() {
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

  private Workspace opened() {
    Workspace workspace = new Workspace();
    Platform.runLater(() -> ProjectFile.open(workspace, project));
    WaitForAsyncUtils.waitForFxEvents();
    settle(workspace);
    return workspace;
  }

  private static <T> T value(Workspace workspace, String name, Class<T> type) {
    return type.cast(workspace.named(name).orElseThrow().value());
  }

  private Set<String> names(String of) throws Exception {
    try (Stream<Path> files = Files.list(project.resolve(of))) {
      return files
          .map(f -> f.getFileName().toString())
          .collect(java.util.stream.Collectors.toSet());
    }
  }

  @Test
  void aProjectComesBackFromItsFilesAsItWas() throws Exception {
    Workspace before = made();
    Set<String> kept = names("objects");
    // Times in the past tell files that were left alone from those written again.
    FileTime old = FileTime.fromMillis(1_700_000_000_000L);
    for (String name : kept) {
      Files.setLastModifiedTime(project.resolve("objects").resolve(name), old);
    }

    Workspace after = opened();

    // two files each of the tree and of both object sets, one of the outlines
    assertThat(kept).hasSize(7);
    assertThat(after.results())
        .extracting(Result::name)
        .containsExactly("segment", "measure", "winnow", "outline", "export");
    assertThat(after.maker().stale()).isEmpty();
    assertThat(value(after, "segment", Cut.class).ids())
        .isEqualTo(value(before, "segment", Cut.class).ids());
    assertThat(value(after, "measure", ObjectSet.class).table().values("red_mean"))
        .isEqualTo(value(before, "measure", ObjectSet.class).table().values("red_mean"));
    assertThat(value(after, "outline", OutlineSet.class).outlines())
        .isEqualTo(value(before, "outline", OutlineSet.class).outlines());
    for (String name : kept) {
      assertThat(Files.getLastModifiedTime(project.resolve("objects").resolve(name)))
          .isEqualTo(old);
    }
  }

  @Test
  void whatWasPickedAndAcceptedIsKeptAndCanBeTakenBack() throws Exception {
    Workspace before = new Workspace();
    Platform.runLater(() -> ProjectFile.begin(before, project));
    WaitForAsyncUtils.waitForFxEvents();
    run(before, "open", Map.of(), Map.of(), Map.of("file", scene.toString()));
    run(before, "segment", Map.of("scene", "open"), Map.of(), Map.of("grain", "40"));
    PickModel picks =
        WaitForAsyncUtils.asyncFx(() -> new PickModel(before, new Watch())).get();
    pickAndAccept(before, picks, 70, 50);
    pickAndAccept(before, picks, 20, 20);
    WaitForAsyncUtils.asyncFx(() -> before.undo().undo()).get();
    settle(before);
    String places = picks.places();
    assertThat(picks.accepted()).hasSize(1);

    Workspace after = opened();
    PickModel again =
        WaitForAsyncUtils.asyncFx(() -> new PickModel(after, new Watch())).get();
    new Waiting(after, 30).until("what was picked", again::hasTree);

    assertThat(again.places()).isEqualTo(places);
    assertThat(again.accepted().getFirst().outlines().getFirst().getArea())
        .isEqualTo(picks.accepted().getFirst().outlines().getFirst().getArea());
    WaitForAsyncUtils.asyncFx(again::takeBackAll).get();
    settle(after);
    assertThat(new HandLog(after, "picked-segment").read()).isEmpty();
    WaitForAsyncUtils.asyncFx(() -> after.undo().undo()).get();
    assertThat(again.places()).isEqualTo(places);
  }

  @Test
  void aProjectThatIsBegunInPlaceOfAnotherPutsAsideWhatWasDoneByHand() throws Exception {
    Path hand = Files.createDirectories(project.resolve("hand"));
    Files.writeString(project.resolve("project.json"), "{}");
    Files.writeString(hand.resolve("picked-segment.jsonl"), "of the former");

    Platform.runLater(() -> ProjectFile.begin(new Workspace(), project));
    WaitForAsyncUtils.waitForFxEvents();

    assertThat(hand).doesNotExist();
    try (Stream<Path> beside = Files.list(project)) {
      assertThat(beside.filter(path -> path.getFileName().toString().startsWith("hand-until-")))
          .singleElement()
          .satisfies(aside ->
              assertThat(aside.resolve("picked-segment.jsonl")).hasContent("of the former"));
    }
  }

  @Test
  void deletedFilesCostOnlyTime() throws Exception {
    Workspace before = made();
    Set<String> kept = names("objects");
    for (String name : kept) {
      Files.delete(project.resolve("objects").resolve(name));
    }

    Workspace after = opened();

    assertThat(names("objects")).isEqualTo(kept);
    assertThat(value(after, "outline", OutlineSet.class).outlines())
        .isEqualTo(value(before, "outline", OutlineSet.class).outlines());
  }

  @Test
  void anotherGrainMakesWhatHangsFromItStaleUntilItIsMadeAgainOrTakenBack() {
    Workspace workspace = made();
    Result segment = workspace.named("segment").orElseThrow();
    Cut coarse = ((Cut) segment.value()).withGrain(2000);

    Platform.runLater(() -> keepGrain(workspace, segment, coarse));
    WaitForAsyncUtils.waitForFxEvents();
    Set<String> afterChange = workspace.maker().stale();
    Platform.runLater(() -> workspace.undo().undo());
    WaitForAsyncUtils.waitForFxEvents();
    Set<String> afterUndo = workspace.maker().stale();
    Platform.runLater(() -> workspace.undo().redo());
    Platform.runLater(() -> workspace.maker().remakeStale());
    WaitForAsyncUtils.waitForFxEvents();
    settle(workspace);

    assertThat(afterChange).containsExactlyInAnyOrder("measure", "winnow", "outline", "export");
    assertThat(afterUndo).isEmpty();
    // A delivery is never written again unasked.
    assertThat(workspace.maker().stale()).containsExactly("export");
    assertThat(value(workspace, "measure", ObjectSet.class).count()).isEqualTo(coarse.objects());
  }

  @Test
  void aStaleResultIsStillStaleAndStillTheSameAfterClosing() {
    Workspace workspace = made();
    Result segment = workspace.named("segment").orElseThrow();
    Platform.runLater(() -> keepGrain(workspace, segment, ((Cut) segment.value()).withGrain(2000)));
    WaitForAsyncUtils.waitForFxEvents();
    settle(workspace);
    int objects = value(workspace, "measure", ObjectSet.class).count();

    Workspace after = opened();

    assertThat(after.maker().stale())
        .containsExactlyInAnyOrder("measure", "winnow", "outline", "export");
    assertThat(value(after, "measure", ObjectSet.class).count()).isEqualTo(objects);
    assertThat(value(after, "segment", Cut.class).grain()).isEqualTo(2000);
  }

  @Test
  void aChangedSceneMakesAllOfItsResultsStale() {
    made();
    SmallScene.write(scene, 0.6, 1);

    Workspace after = opened();

    assertThat(after.maker().stale()).hasSize(5);
    Platform.runLater(() -> after.maker().remakeStale());
    WaitForAsyncUtils.waitForFxEvents();
    settle(after);
    assertThat(after.maker().stale()).containsExactly("export");
    assertThat(value(after, "winnow", ObjectSet.class).table().values("red_mean")[0])
        .isBetween(0.58, 0.62);
  }

  @Test
  void whatCannotBeOpenedStaysInTheProjectWithItsFiles() throws Exception {
    made();
    Set<String> kept = names("objects");
    Path away = folder.resolve("away.tif");
    Files.move(scene, away);

    Workspace without = opened();
    String message = without.messages().textProperty().get();
    Files.move(away, scene);
    Workspace again = opened();

    assertThat(without.results()).isEmpty();
    assertThat(message).contains("stays in the project");
    assertThat(again.results()).hasSize(5);
    assertThat(names("objects")).isEqualTo(kept);
    assertThat(again.maker().stale()).isEmpty();
  }

  @Test
  void whatWasWarnedOfIsNotToldAgainUnlessTheFileIsAnother() throws Exception {
    Path photo = folder.resolve("photo.tif");
    photo(photo, 1);
    Workspace before = new Workspace();
    Platform.runLater(() -> ProjectFile.begin(before, project));
    WaitForAsyncUtils.waitForFxEvents();
    run(before, "open", Map.of(), Map.of(), Map.of("file", photo.toString()));
    assertThat(before.messages().warningProperty().get()).contains("has no place");

    assertThat(opened().messages().warningProperty().get()).isEmpty();
    photo(photo, 2);
    assertThat(opened().messages().warningProperty().get()).contains("has no place");
  }

  /** A picture without a place. */
  private static void photo(Path file, float value) {
    float[] plane = new float[40 * 30];
    java.util.Arrays.fill(plane, value);
    GeoTiffWriter.write(
        new MemoryRaster(
            Grid.ofPixels(40, 30),
            List.of(Band.of(BandRole.PAN, SampleType.FLOAT32)),
            Attachments.NONE,
            new float[][] {plane}),
        file,
        Compression.DEFLATE,
        Job.QUIET);
  }

  @Test
  void openingNeverWritesADeliveredFileAgain() throws Exception {
    made();
    Path delivered = folder.resolve("roofs.gpkg");
    Files.write(delivered, new byte[] {1, 2, 3});

    opened();

    assertThat(Files.readAllBytes(delivered)).containsExactly(1, 2, 3);
  }

  @Test
  void theProjectsFileIsARunSheetThatSaysWhatIsKept() {
    Workspace workspace = made();

    var json = Json.read(project.resolve("project.json"));

    assertThat(json.path("steps")).hasSize(5);
    assertThat(json.path("made").path("segment").path("file").asText())
        .isEqualTo(workspace.named("segment").orElseThrow().made().file())
        .startsWith("segment-");
  }

  @Test
  void whatWasShownIsShownAgainUnlessItIsGone() throws Exception {
    Workspace before = made();
    Look own = new Look("Own", Look.INFRARED.roles(), Look.GREY.stretch(), false);
    ViewPlace place = new ViewPlace(512_010.5, -6_702_020, 0.25);
    WaitForAsyncUtils.asyncFx(() -> {
          before.display().show(before.named("segment").orElseThrow());
          before.display().paneBProperty().set(before.named("winnow").orElseThrow());
          before.display().compareProperty().set(Display.Compare.SWIPE);
          before.display().stageProperty().set(Stage.EXTRACT);
          before.display().lookProperty().set(own);
          before.display().viewProperty().set(place);
        })
        .get();
    untilSaved(before, "512010.5");

    Workspace after = opened();

    assertThat(after.display().paneAProperty().get().name()).isEqualTo("segment");
    assertThat(after.display().paneBProperty().get().name()).isEqualTo("winnow");
    assertThat(after.display().compareProperty().get()).isEqualTo(Display.Compare.SWIPE);
    assertThat(after.display().stageProperty().get()).isEqualTo(Stage.EXTRACT);
    assertThat(after.display().lookProperty().get()).isEqualTo(own);
    assertThat(after.display().viewWantedProperty().get()).isEqualTo(place);
  }

  @Test
  void whereWhatWasShownIsGoneTheNewestIsShown() throws Exception {
    Path file = project.resolve("project.json");
    Workspace before = new Workspace();
    Platform.runLater(() -> ProjectFile.begin(before, project));
    WaitForAsyncUtils.waitForFxEvents();
    run(before, "open", Map.of(), Map.of(), Map.of("file", scene.toString()));
    run(before, "segment", Map.of("scene", "open"), Map.of(), Map.of("grain", "40"));
    WaitForAsyncUtils.asyncFx(() -> before.display().show(before.named("open").orElseThrow()))
        .get();
    untilSaved(before, "\"pane_a\" : \"open\"");
    Files.writeString(
        file, Files.readString(file).replaceAll("(\"pane_a\" ?: ?)\"[^\"]*\"", "$1\"gone\""));

    assertThat(Json.read(file).path("shown").path("pane_a").asText()).isEqualTo("gone");
    Workspace after = opened();

    assertThat(after.display().paneAProperty().get().name()).isEqualTo("segment");
  }

  @Test
  void howObjectsAreDrawnComesBackToo() throws Exception {
    Workspace workspace = new Workspace();
    Platform.runLater(() -> ProjectFile.begin(workspace, project));
    WaitForAsyncUtils.waitForFxEvents();
    ObjectStyle style = new ObjectStyle(ObjectStyle.Which.PICKED, 3, 0.25, ObjectStyle.Fill.RANDOM);
    Platform.runLater(() -> workspace.display().objectStyleProperty().set(style));
    Path file = project.resolve("project.json");
    untilSaved(workspace, "picked");

    assertThat(opened().display().objectStyleProperty().get()).isEqualTo(style);
    String text = Files.readString(file).replace("\"picked\"", "\"the green ones\"");
    Files.writeString(file, text);
    assertThat(opened().display().objectStyleProperty().get()).isEqualTo(ObjectStyle.INITIAL);
  }

  private void close(Workspace workspace) throws Exception {
    WaitForAsyncUtils.asyncFx(workspace::close).get();
    settle(workspace);
  }

  private ObjectNode json() {
    return (ObjectNode) Json.read(project.resolve("project.json"));
  }

  @Test
  void aProjectThatWasMovedWithItsSceneIsWholeAndNothingIsStale() throws Exception {
    Workspace before = made();
    close(before);
    assertThat(json().toString()).doesNotContain(folder.toString());
    Path elsewhere = Files.createDirectory(folder.resolve("elsewhere"));
    Files.move(scene, elsewhere.resolve("scene.tif"));
    Files.move(project, elsewhere.resolve("project"));
    project = elsewhere.resolve("project");
    Set<String> kept = names("objects");

    Workspace after = opened();

    assertThat(after.results()).hasSize(5);
    assertThat(after.maker().stale()).isEmpty();
    assertThat(names("objects")).isEqualTo(kept);
    assertThat(after.named("segment").orElseThrow().files().get("scene"))
        .isEqualTo(elsewhere.resolve("scene.tif").toString());
  }

  @Test
  void anEntryThatCannotBeReadStaysAndTheOthersOpen() throws Exception {
    close(made());
    ObjectNode json = json();
    ArrayNode steps = (ArrayNode) json.get("steps");
    steps.insertObject(1).put("name", "later").put("title", "Of a later day").put("step", "divine");
    steps.insertObject(2).put("name", "after").put("step", "winnow").put("objects", "@later");
    Json.write(json, project.resolve("project.json"));

    Workspace workspace = opened();
    assertThat(workspace.results()).hasSize(5);
    assertThat(workspace.notOpen())
        .extracting(NotOpen::title, NotOpen::stage)
        .containsExactlyInAnyOrder(
            tuple("Of a later day", Stage.GATHER), tuple("after", Stage.EXTRACT));
    assertThat(workspace.notOpen().getFirst().why()).contains("divine");
    run(workspace, "outline", Map.of("objects", "winnow"), Map.of(), Map.of("form", "exact"));
    close(workspace);

    assertThat(json().get("steps").findValuesAsText("step")).contains("divine").hasSize(8);
    assertThat(json().get("steps").toString()).contains("\"objects\":\"@later\"");
    Workspace again = opened();
    assertThat(again.results()).hasSize(6);
    assertThat(again.notOpen()).hasSize(2);
  }

  /** Files of the first form had no version, and relative paths were of the folder the application was started in. */
  @Test
  void aProjectOfTheFirstFormIsBroughtUpAndOneOfALaterFormIsLeftAlone() throws Exception {
    close(made());
    ObjectNode json = json();
    json.remove(List.of("version", "waiting"));
    Path here = Path.of("").toAbsolutePath();
    ((ObjectNode) json.get("steps").get(0)).put("scene", here.relativize(scene).toString());
    ((ObjectNode) json.get("steps").get(1)).put("scene", scene.toString());
    Json.write(json, project.resolve("project.json"));

    Workspace workspace = opened();
    assertThat(workspace.results()).hasSize(5);
    assertThat(workspace.named("segment").orElseThrow().files())
        .containsEntry("scene", scene.toString());
    close(workspace);
    assertThat(json().get("version").asInt()).isEqualTo(2);
    assertThat(json().get("steps").get(0).get("scene").asText()).isEqualTo("../scene.tif");

    json = json();
    json.put("version", 99);
    Json.write(json, project.resolve("project.json"));
    String later = Files.readString(project.resolve("project.json"));
    assertThatThrownBy(() -> ProjectFile.open(new Workspace(), project))
        .hasMessageContaining("later Sharp Kestrel")
        .hasMessageContaining("99");
    assertThat(project.resolve("project.json")).hasContent(later);
  }

  @Test
  void whileAnotherProcessHasItAProjectIsLookedOnAndNothingIsWritten() throws Exception {
    close(made());
    String before = Files.readString(project.resolve("project.json"));
    Process other = new ProcessBuilder(
            ProcessHandle.current().info().command().orElseThrow(),
            "-cp",
            System.getProperty("java.class.path"),
            LockHolder.class.getName(),
            project.toString())
        .redirectErrorStream(true)
        .start();
    try (java.io.BufferedReader said = other.inputReader()) {
      assertThat(said.readLine()).isEqualTo("held");

      Workspace workspace = opened();
      assertThat(workspace.isLookingOn()).isTrue();
      assertThat(workspace.messages().textProperty().get())
          .contains("has been open")
          .contains(System.getProperty("user.name"));
      assertThat(workspace.results()).hasSize(5);
      run(workspace, "outline", Map.of("objects", "winnow"), Map.of(), Map.of("form", "exact"));
      new HandLog(workspace, "picked-segment")
          .write(new Layer(
              "none",
              sharpkestrel.raster.CrsName.NONE,
              List.of(),
              new Table(0, List.of()),
              Map.of()));
      close(workspace);

      assertThat(project.resolve("project.json")).hasContent(before);
      assertThat(project.resolve("hand")).doesNotExist();
    } finally {
      other.destroyForcibly().waitFor();
    }
    assertThat(opened().isLookingOn()).as("once the other is gone").isFalse();
  }

  @Test
  void aRunThatHadNotEndedIsOfferedAgain() throws Exception {
    Workspace workspace = made();
    java.util.concurrent.CountDownLatch held = new java.util.concurrent.CountDownLatch(1);
    Platform.runLater(() -> {
      workspace
          .lanes()
          .run()
          .run(
              "Something long",
              job -> {
                try {
                  return held.await(30, java.util.concurrent.TimeUnit.SECONDS);
                } catch (InterruptedException stop) {
                  throw new AssertionError(stop);
                }
              },
              done -> {},
              failure -> {});
      workspace.run(
          StepCatalogue.get("outline"),
          "Exact outlines",
          Map.of("objects", workspace.named("winnow").orElseThrow()),
          Map.of(),
          Map.of("form", "exact"));
    });
    WaitForAsyncUtils.waitForFxEvents();
    WaitForAsyncUtils.asyncFx(workspace::close).get();
    held.countDown();
    settle(workspace);

    Workspace after = opened();
    assertThat(after.results()).hasSize(5);
    assertThat(after.messages().textProperty().get()).contains("Exact outlines");
    Platform.runLater(after.messages().remedyProperty().get().act());
    new Waiting(after, 30).until("the run", () -> after.results().size() == 6);
    assertThat(after.results().getLast().title()).isEqualTo("Exact outlines");
    assertThat(after.results().getLast().settings()).containsEntry("form", "exact");
    settle(after);
  }
}
