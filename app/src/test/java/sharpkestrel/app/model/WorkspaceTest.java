package sharpkestrel.app.model;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sharpkestrel.app.project.ProjectFile;
import sharpkestrel.flow.Origin;
import sharpkestrel.flow.RunSheet;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.SampleType;

class WorkspaceTest {

  @TempDir
  Path folder;

  private static Raster raster(BandRole... roles) {
    List<Band> bands = java.util.Arrays.stream(roles)
        .map(role -> Band.of(role, SampleType.UINT8))
        .toList();
    return new MemoryRaster(
        Grid.ofPixels(4, 4), bands, Attachments.NONE, new float[roles.length][16]);
  }

  private static Result result(String name, String step, Object value, Map<String, Result> inputs) {
    StepSpec spec = StepCatalogue.get(step);
    return new Result(
        name,
        name + " title",
        spec,
        inputs,
        Map.of(),
        Map.of(),
        value,
        new Lineage().originOf(spec, inputs, Map.of(), Map.of()).fingerprint());
  }

  private static Workspace twoResults() {
    Workspace workspace = new Workspace();
    Result ms = result("ms", "assemble", raster(BandRole.RED, BandRole.NEAR_INFRARED), Map.of());
    workspace.add(ms);
    workspace.add(result("ndvi", "index", raster(BandRole.OTHER), Map.of("scene", ms)));
    return workspace;
  }

  @Test
  void aNewResultIsShownOverTheOneBefore() {
    Workspace workspace = twoResults();

    assertThat(workspace.display().paneAProperty().get().name()).isEqualTo("ndvi");
    assertThat(workspace.display().paneBProperty().get().name()).isEqualTo("ms");
  }

  @Test
  void undoTakesAResultBackAndRedoBringsIt() {
    Workspace workspace = twoResults();

    workspace.undo().undo();

    assertThat(workspace.results()).extracting(Result::name).containsExactly("ms");
    assertThat(workspace.display().paneAProperty().get().name()).isEqualTo("ms");
    workspace.undo().redo();
    assertThat(workspace.results()).extracting(Result::name).containsExactly("ms", "ndvi");
  }

  @Test
  void anInputIsOfferedTheNewestOfWhatSuitsIt() {
    Workspace workspace = twoResults();
    StepSpec.Input severalBands = StepCatalogue.get("index").inputs().get(0);

    assertThat(workspace.fitting(severalBands)).extracting(Result::name).containsExactly("ms");
  }

  @Test
  void theSheetOfAResultHoldsItsAncestorsFirst() {
    Workspace workspace = twoResults();

    RunSheet sheet = workspace.sheetOf(workspace.results().get(1));

    assertThat(sheet.steps()).extracting(RunSheet.Entry::name).containsExactly("ms", "ndvi");
    assertThat(sheet.steps().get(1).inputs()).containsEntry("scene", "@ms");
  }

  @Test
  void filesAndFiltersGivenToAStepAreOfferedToItAgainButNotItsNumbers() {
    Workspace workspace = new Workspace();

    workspace
        .suggestions()
        .remember(
            StepCatalogue.get("compare"),
            Map.of("truth", "/data/roofs.gpkg"),
            Map.of("wanted", "area >= 25", "overlap", "0.7"));

    assertThat(workspace.suggestions().all())
        .containsOnly(
            Map.entry("compare:truth", "/data/roofs.gpkg"),
            Map.entry("compare:wanted", "area >= 25"));
  }

  @Test
  void whatGoesWithThePlaceIsOfferedToEveryStep() {
    Workspace workspace = new Workspace();
    StepSpec ortho = StepCatalogue.get("ortho");
    StepSpec warp = StepCatalogue.get("warp");

    workspace
        .suggestions()
        .remember(
            ortho,
            Map.of("heights", "/data/terrain.tif"),
            Map.of("undulation", "47", "pixel-size", "0.5"));

    assertThat(workspace
            .suggestions()
            .offered(warp, named(warp.inputs(), StepSpec.Input::name, "heights")))
        .isEqualTo("/data/terrain.tif");
    assertThat(workspace
            .suggestions()
            .offered(warp, named(warp.options(), StepSpec.Option::name, "undulation")))
        .isEqualTo("47");
    assertThat(workspace
            .suggestions()
            .offered(warp, named(warp.options(), StepSpec.Option::name, "pixel-size")))
        .isEmpty();
    // a step that leaves it open says nothing about the place
    workspace.suggestions().remember(ortho, Map.of(), Map.of("undulation", "auto"));
    assertThat(workspace.suggestions().all()).containsEntry("undulation", "47");
  }

  private static <T> T named(List<T> all, Function<T, String> name, String wanted) {
    return all.stream().filter(a -> name.apply(a).equals(wanted)).findFirst().orElseThrow();
  }

  @Test
  void aFolderWithoutAProjectIsRefused() {
    assertThatThrownBy(() -> ProjectFile.open(new Workspace(), folder))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("no project.json");
    assertThat(Files.exists(folder.resolve("project.json"))).isFalse();
  }

  @Test
  void aResultDescendsFromAllItWasMadeOf() {
    Workspace workspace = twoResults();
    Result ms = workspace.results().get(0);
    Result ndvi = workspace.results().get(1);

    assertThat(ndvi.descendsFrom(ms)).isTrue();
    assertThat(ms.descendsFrom(ndvi)).isFalse();
    assertThat(ndvi.backdrop()).isSameAs(ndvi.value());
  }

  @Test
  void undoneChangesAreForgottenWhenSomethingElseIsDone() {
    UndoStack stack = new UndoStack();
    List<String> log = new ArrayList<>();
    stack.change("one", () -> log.add("+1"), () -> log.add("-1"));
    stack.undo();

    stack.change("two", () -> log.add("+2"), () -> log.add("-2"));
    stack.redo();

    assertThat(log).containsExactly("+1", "-1", "+2");
    assertThat(stack.nextProperty().get()).isEqualTo("two");
  }

  @Test
  void aLookFindsItsBandsByRoleAndFallsBackOnGrey() {
    Raster colour = raster(
        BandRole.BLUE, BandRole.GREEN, BandRole.RED, BandRole.RED_EDGE, BandRole.NEAR_INFRARED);

    assertThat(Look.NATURAL.bandsOf(colour)).containsExactly(2, 1, 0);
    assertThat(Look.INFRARED.bandsOf(colour)).containsExactly(4, 2, 1);
    assertThat(Look.NATURAL.bandsOf(raster(BandRole.PAN))).containsExactly(0, 0, 0);
  }

  @Test
  void aReplacedResultIsShownWhereTheOldOneWasAndUndoBringsThatBack() {
    Workspace workspace = twoResults();
    Result before = workspace.named("ms").orElseThrow();
    Result after =
        before.remade(Map.of(), raster(BandRole.RED), new Origin.Fingerprint("new", "new"));
    workspace.display().show(before);

    workspace.replace("make ms again", before, after);

    assertThat(workspace.display().paneAProperty().get()).isSameAs(after);
    assertThat(workspace.results()).extracting(Result::name).containsExactly("ms", "ndvi");
    assertThat(workspace.maker().stale()).contains("ndvi");
    workspace.undo().undo();
    assertThat(workspace.display().paneAProperty().get()).isSameAs(before);
    assertThat(workspace.maker().stale()).isEmpty();
  }

  @Test
  void aResultHangsFromAnotherByItsNameAlsoWhenThatWasMadeAgain() {
    Workspace workspace = twoResults();
    Result ms = workspace.named("ms").orElseThrow();
    Result ndvi = workspace.named("ndvi").orElseThrow();
    Result again = ms.remade(Map.of(), ms.value(), new Origin.Fingerprint("new", "new"));

    assertThat(ndvi.descendsFrom(again)).isTrue();
    assertThat(again.descendsFrom(ndvi)).isFalse();
  }
}
