package sharpkestrel.flow;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.extract.RangeTest;
import sharpkestrel.objects.FeatureCatalogue;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;

class FlowTest {

  @TempDir
  Path folder;

  @Test
  void theReferencePageIsTrue() throws IOException {
    assertThat(Files.readString(Path.of("../docs/steps.md"))).isEqualTo(StepReference.markdown());
  }

  @Test
  void thePageOfFeaturesIsTrue() throws IOException {
    assertThat(Files.readString(Path.of("../docs/features.md")))
        .isEqualTo(FeatureCatalogue.markdown());
  }

  @Test
  void everySettingSaysWhatItIs() {
    for (StepSpec step : StepCatalogue.all()) {
      assertThat(step.does()).as(step.id()).isNotBlank();
      assertThat(step.options()).allSatisfy(o -> assertThat(o.does()).isNotBlank());
      assertThat(step.inputs()).allSatisfy(i -> assertThat(i.does()).isNotBlank());
    }
  }

  @Test
  void noStepUsesAWordThatRunSheetsKeepForThemselves() {
    for (StepSpec step : StepCatalogue.all()) {
      assertThat(step.options())
          .as(step.id())
          .noneMatch(option -> RunSheet.OWN_WORDS.contains(option.name()));
      assertThat(step.inputs())
          .as(step.id())
          .noneMatch(input -> RunSheet.OWN_WORDS.contains(input.name()));
    }
  }

  @Test
  void whatChangesTonesIsNotToBeSeenAsLightAsWhatItIsMadeFrom() {
    assertThat(StepCatalogue.get("local-contrast").keepsTones()).isFalse();
    assertThat(StepCatalogue.get("dehaze").keepsTones()).isFalse();
    assertThat(StepCatalogue.get("pansharpen").keepsTones()).isTrue();
  }

  @Test
  void aSettingOutOfRangeIsNamedWithItsRange() {
    StepSpec segment = StepCatalogue.get("segment");

    assertThatThrownBy(() -> segment.make(Map.of("scene", FlowTest.scene()), Map.of("grain", "-3")))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("--grain")
        .hasMessageContaining("0.01 to");
  }

  private static sharpkestrel.raster.Raster scene() {
    return new sharpkestrel.raster.MemoryRaster(
        sharpkestrel.raster.Grid.ofPixels(2, 2),
        java.util.List.of(sharpkestrel.raster.Band.of(
            sharpkestrel.raster.BandRole.PAN, sharpkestrel.raster.SampleType.UINT8)),
        sharpkestrel.raster.Attachments.NONE,
        new float[1][4]);
  }

  @Test
  void anUnknownSettingBringsThoseThereAre() {
    assertThatThrownBy(
            () -> StepCatalogue.get("index").make(Map.of("scene", scene()), Map.of("frist", "red")))
        .hasMessageContaining("'frist'")
        .hasMessageContaining("first, second");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "metal-roofs",
        "mosaic",
        "true-ortho",
        "place-air-photo",
        "refine-second-scene",
        "sharpen-and-look"
      })
  void theShippedSheetsReadBackAsThemselves(String name) throws IOException {
    RunSheet sheet = RunSheet.read(Path.of("../docs/examples/" + name + ".json"));
    Path copy = folder.resolve("copy.json");
    Files.writeString(copy, sheet.toJson().toString());

    assertThat(RunSheet.read(copy)).isEqualTo(sheet);
  }

  @Test
  void severalInputsAreGivenInTheirOrder() throws IOException {
    RunSheet sheet = RunSheet.read(Path.of("../docs/examples/mosaic.json"));
    RunSheet.Entry seams = sheet.steps().stream()
        .filter(entry -> entry.name().equals("seams"))
        .findFirst()
        .orElseThrow();
    assertThat(seams.inputs())
        .containsEntry("scenes:1", "@ortho")
        .containsEntry("scenes:2", "@ortho-two");
    StepSpec.Input scenes = StepCatalogue.get("seams").inputCalled("scenes:2");
    assertThat(scenes.several()).isTrue();
    assertThat(scenes.isCalled("scenes:0")).isFalse();
    assertThat(scenes.isCalled("scenes")).isFalse();
    assertThatThrownBy(() -> StepCatalogue.get("seams").make(Map.of("scenes:2", scene()), Map.of()))
        .hasMessageContaining("needs the inputs 'scenes'");
  }

  @Test
  void aListWhereOneIsTakenIsRefused() throws IOException {
    Path bad = folder.resolve("bad.json");
    Files.writeString(
        bad, "{\"steps\":[{\"step\":\"calibrate\",\"scene\":[\"a.tif\",\"b.tif\"]}]}");

    assertThatThrownBy(() -> RunSheet.read(bad)).hasMessageContaining("takes one only");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "\"extent\": {\"west\": 1}",
        "\"extent\": [[1, 2], 3]",
        "\"extent\": null",
        "\"scene\": {\"file\": \"a.tif\"}",
        "\"name\": [\"a\"]",
        "\"keep\": \"yes\""
      })
  void whatIsNoTextIsNotTakenForAnEmptyOne(String field) throws IOException {
    Path sheet = folder.resolve("sheet.json");
    Files.writeString(
        sheet,
        "{\"steps\": [{\"step\": \"open\", \"name\": \"x\", \"file\": \"a.tif\"}, {\"step\": \"clip\", "
            + field + "}]}");

    assertThatThrownBy(() -> RunSheet.read(sheet))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining(sheet.toString())
        .hasMessageContaining("step 2")
        .hasMessageContaining("should be");
  }

  @Test
  void aListOfNumbersIsASettingOfSeveralValues() throws IOException {
    Path sheet = folder.resolve("sheet.json");
    Files.writeString(
        sheet,
        "{\"steps\": [{\"step\": \"clip\", \"scene\": \"a.tif\", \"extent\": [0, 1, 20, 30.5]}]}");

    assertThat(RunSheet.read(sheet).steps().getFirst().settings())
        .containsEntry("extent", "0,1,20,30.5");
  }

  @Test
  void aSheetThatRefersAheadIsRefusedWithTheStepsNumber() throws IOException {
    Path bad = folder.resolve("bad.json");
    Files.writeString(bad, "{\"steps\":[{\"step\":\"calibrate\",\"scene\":\"@later\"}]}");

    assertThatThrownBy(() -> RunSheet.read(bad))
        .hasMessageContaining("step 1")
        .hasMessageContaining("@later");
  }

  @Test
  void aFileWithoutStepsIsNoRunSheetAndASheetWithNoneYetHasNothingToRun() throws IOException {
    Path none = Files.writeString(folder.resolve("none.json"), "{\"title\": \"x\"}");
    Path empty = Files.writeString(folder.resolve("empty.json"), "{\"steps\": []}");

    assertThatThrownBy(() -> RunSheet.read(none)).hasMessageContaining("no \"steps\"");
    RunSheet sheet = RunSheet.read(empty);
    assertThat(sheet.steps()).isEmpty();
    Runner runner = new Runner(new KeptResults(folder), List.of(folder));
    assertThatThrownBy(() -> runner.run(sheet, Map.of(), Job.QUIET, (entry, result) -> {}))
        .hasMessageContaining("nothing to run");
  }

  @Test
  void testsReadBackAsTheSameText() {
    var tests = RangeTest.parse("area BETWEEN 25 AND 900 AND ndvi <= 0.2 AND 3 < elongation");

    assertThat(RangeTest.parse(RangeTest.toText(tests))).isEqualTo(tests);
    assertThat(tests.get(2).passes(3)).isFalse();
    assertThat(tests.get(2).passes(3.0001)).isTrue();
  }
}
