package sharpkestrel.app.project;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import javafx.application.Platform;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;
import sharpkestrel.app.SmallScene;
import sharpkestrel.app.Waiting;
import sharpkestrel.app.model.Display;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.ObjectStyle;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.ViewPlace;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.app.tools.pick.PickModel;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.Json;
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

/** A project is closed and opened again: what is kept, what is stale, what is shown. */
class ProjectFileTest extends ClosedProject {

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
    settle(after);
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
    ObjectStyle style =
        new ObjectStyle(ObjectStyle.Which.PICKED, 3, 0.25, ObjectStyle.Fill.RANDOM, 0.5);
    Platform.runLater(() -> workspace.display().objectStyleProperty().set(style));
    Path file = project.resolve("project.json");
    untilSaved(workspace, "picked");

    assertThat(opened().display().objectStyleProperty().get()).isEqualTo(style);
    String text = Files.readString(file).replace("\"picked\"", "\"the green ones\"");
    Files.writeString(file, text);
    assertThat(opened().display().objectStyleProperty().get()).isEqualTo(ObjectStyle.INITIAL);
  }
}
