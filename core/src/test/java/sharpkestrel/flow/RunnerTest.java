package sharpkestrel.flow;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.check.Scores;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.Layer;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.kinds.ResultKinds;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.segment.Cut;

/** A field with one bright square roof, from a file to scores and a GeoPackage. */
class RunnerTest {

  private static final String SHEET = """
      {"title": "One roof", "variables": {"scene": "%s", "truth": "%s", "out": "%s"},
       "steps": [
        {"name": "ndvi", "step": "index", "scene": "${scene}", "keep": true},
        {"name": "objects", "step": "segment", "scene": "${scene}", "grain": 40},
        {"name": "measured", "step": "measure", "objects": "@objects", "scene": "${scene}"},
        {"name": "bright", "step": "winnow", "objects": "@measured", "tests": "red_mean > 0.4"},
        {"name": "roof", "step": "outline", "objects": "@bright", "tests": "area >= 20"},
        {"name": "check", "step": "compare", "outlines": "@roof", "truth": "${truth}"},
        {"name": "file", "step": "export", "result": "@roof", "file": "${out}/roof.gpkg"}]}""";

  @TempDir
  Path folder;

  private Path sheet(String text) throws IOException {
    Path scene = folder.resolve("scene.tif");
    if (!Files.exists(scene)) {
      Raster field = Made.placed(
          160,
          120,
          0.5,
          (b, col, row) -> {
            boolean roof = col >= 60 && col < 84 && row >= 40 && row < 60;
            double light = 1 + 0.02 * ((7 * col + 13 * row) % 5 - 2);
            return light * (roof ? 0.5 : b == 0 ? 0.05 : 0.4);
          },
          BandRole.RED,
          BandRole.NEAR_INFRARED);
      GeoTiffWriter.write(field, scene, Compression.DEFLATE, Job.QUIET);
      Envelope roof = new Envelope(512_030, 512_042, 6_702_000 - 30, 6_702_000 - 20);
      OutlineSet truth = new OutlineSet(
          CrsName.epsg(32630),
          List.of(new GeometryFactory().toGeometry(roof)),
          new Table(1, List.of(new Table.Column("area", "Area", "m²", new double[] {120}))));
      GeoPackage.write(Layer.of("roofs", truth), folder.resolve("truth.gpkg"));
    }
    Path sheet = folder.resolve("sheet.json");
    Files.writeString(
        sheet, text.formatted(scene, folder.resolve("truth.gpkg"), folder.resolve("out")));
    return sheet;
  }

  private Map<String, Object> run(Path sheet, List<String> done) {
    return new Runner(new KeptResults(folder), List.of(folder))
        .run(RunSheet.read(sheet), Map.of(), Job.QUIET, (entry, value) -> done.add(entry.name()));
  }

  @Test
  void aSheetRunsFromTheSceneToScoresAndAFile() throws IOException {
    List<String> done = new ArrayList<>();

    Map<String, Object> results = run(sheet(SHEET), done);

    assertThat(done)
        .containsExactly("ndvi", "objects", "measured", "bright", "roof", "check", "file");
    assertThat(results.get("objects")).isInstanceOf(Cut.class);
    assertThat(((ObjectSet) results.get("bright")).count()).isPositive();
    Scores scores = (Scores) results.get("check");
    assertThat(scores.f1()).isEqualTo(1);
    assertThat(scores.meanIou()).isGreaterThan(0.9);
    assertThat(GeoPackage.read(folder.resolve("out/roof.gpkg"), "").size()).isEqualTo(1);
  }

  @Test
  void aKeptRasterIsFoundAgainAndMadeAnewWhenItsInputChanges() throws IOException {
    Path sheet = sheet(SHEET);
    run(sheet, new ArrayList<>());
    Path kept = onlyKept();
    FileTime before = Files.getLastModifiedTime(kept);

    run(sheet, new ArrayList<>());

    assertThat(Files.getLastModifiedTime(kept)).isEqualTo(before);
    Files.setLastModifiedTime(folder.resolve("scene.tif"), FileTime.fromMillis(1_900_000_000_000L));
    run(sheet, new ArrayList<>());
    try (Stream<Path> files = Files.list(folder.resolve("rasters"))) {
      assertThat(files).hasSize(2);
    }
  }

  private Path onlyKept() throws IOException {
    try (Stream<Path> files = Files.list(folder.resolve("rasters"))) {
      List<Path> all = files.toList();
      assertThat(all).hasSize(1);
      return all.get(0);
    }
  }

  @Test
  void aLazyAndAWrittenSceneGiveTheSameObjects() throws IOException {
    sheet(SHEET);
    Raster written = RasterFiles.open(folder.resolve("scene.tif"));
    Raster lazy = new sharpkestrel.gather.Clip(written, java.util.Optional.empty()).run(Job.QUIET);
    StepSpec segment = StepCatalogue.get("segment");

    Cut one =
        (Cut) segment.make(Map.of("scene", written), Map.of("grain", "10")).run(Job.QUIET);
    Cut two = (Cut) segment.make(Map.of("scene", lazy), Map.of("grain", "10")).run(Job.of(2, 256));

    assertThat(two.objectOf()).isEqualTo(one.objectOf());
    assertThat(two.ids()).isEqualTo(one.ids());
  }

  @Test
  void aSheetWritesNowhereElseThanItIsLet() throws IOException {
    Path elsewhere = folder.resolveSibling("elsewhere-" + folder.getFileName());
    Path sheet = sheet(SHEET.replace(
        "${out}/roof.gpkg", "${out}/../../" + elsewhere.getFileName() + "/roof.gpkg"));

    assertThatThrownBy(() -> run(sheet, new ArrayList<>()))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("outside of")
        .hasMessageContaining("--to");
    assertThat(elsewhere).doesNotExist();

    new Runner(new KeptResults(folder), List.of(folder, elsewhere))
        .run(RunSheet.read(sheet), Map.of(), Job.QUIET, (entry, value) -> {});
    assertThat(elsewhere.resolve("roof.gpkg")).exists();
  }

  @Test
  void aKeptRasterWhosePixelsAreDamagedIsMadeAgain() throws IOException {
    Path sheet = sheet(SHEET);
    Object whole = run(sheet, new ArrayList<>()).get("measured");
    Path kept = onlyKept();
    byte[] bytes = Files.readAllBytes(kept);
    java.util.Arrays.fill(bytes, bytes.length / 2, bytes.length, (byte) 0x55);
    Files.write(kept, bytes);

    Object again = run(sheet, new ArrayList<>()).get("measured");

    assertThat(ResultKinds.digest(again, Job.QUIET))
        .isEqualTo(ResultKinds.digest(whole, Job.QUIET));
  }

  @Test
  void aFileThatIsNotThereStopsTheSheetWithItsName() throws IOException {
    Path sheet = sheet(SHEET.replace("\"scene\": \"%s\"", "\"scene\": \"/nowhere%s\""));

    assertThatThrownBy(() -> run(sheet, new ArrayList<>()))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("/nowhere");
  }

  @Test
  void whatAResultCannotBeWrittenToIsSaidWithWhatItCan() throws IOException {
    Path sheet = sheet(SHEET.replace("roof.gpkg", "roof.tif"));

    assertThatThrownBy(() -> run(sheet, new ArrayList<>()))
        .hasMessageContaining("outlines")
        .hasMessageContaining(".gpkg or .geojson");
  }

  @Test
  void resultsServeWhereTheirKindIsWanted() throws IOException {
    Map<String, Object> results = run(sheet(SHEET), new ArrayList<>());
    StepSpec.Input objects = StepCatalogue.get("measure").inputs().get(0);
    StepSpec.Input any = StepCatalogue.get("export").inputs().get(0);
    StepSpec.Input raw = StepCatalogue.get("ortho").inputs().get(0);

    assertThat(ResultKinds.suits(results.get("objects"), objects.type(), objects.suits()))
        .isTrue();
    assertThat(ResultKinds.suits(results.get("ndvi"), objects.type(), objects.suits()))
        .isFalse();
    assertThat(ResultKinds.suits(results.get("ndvi"), any.type(), any.suits())).isTrue();
    // objects serve as zones and as things to learn from, not as what is compared with a truth
    StepSpec.Input zones = StepCatalogue.get("zones").inputCalled("zones");
    StepSpec.Input learned = StepCatalogue.get("learn-merging").inputCalled("outlines");
    StepSpec.Input compared = StepCatalogue.get("compare").inputCalled("outlines");
    assertThat(ResultKinds.suits(results.get("objects"), zones.type(), zones.suits()))
        .isTrue();
    assertThat(ResultKinds.suits(results.get("objects"), learned.type(), learned.suits()))
        .isTrue();
    assertThat(ResultKinds.suits(results.get("objects"), compared.type(), compared.suits()))
        .isFalse();
    assertThat(ResultKinds.suits(results.get("check"), any.type(), any.suits())).isFalse();
    assertThat(ResultKinds.suits(results.get("ndvi"), raw.type(), raw.suits())).isFalse();
    assertThat(ResultKinds.as(results.get("objects"), OutlineSet.class))
        .isInstanceOf(OutlineSet.class);
    assertThatThrownBy(() -> ResultKinds.as(results.get("ndvi"), ObjectSet.class))
        .hasMessageContaining("an object set")
        .hasMessageContaining("a raster");
  }
}
