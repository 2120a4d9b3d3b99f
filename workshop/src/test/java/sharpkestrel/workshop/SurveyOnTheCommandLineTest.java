package sharpkestrel.workshop;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import picocli.CommandLine;
import sharpkestrel.demo.Scenario;
import sharpkestrel.demo.Survey;
import sharpkestrel.demo.SurveyMaker;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.geo.SeamVisibility;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.BandsOf;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.workshop.quality.MosaicQuality;

/** The examples of the manual on a small held-out survey, one command after the other. */
class SurveyOnTheCommandLineTest {

  private static final Path SHEET = Path.of("../docs/examples/metal-roofs.json");

  @TempDir
  static Path folder;

  private static Survey survey;

  private final StringWriter out = new StringWriter();
  private final StringWriter err = new StringWriter();

  @BeforeAll
  static void makeSurvey() {
    survey = SurveyMaker.make(
        folder, new Survey.Order(103, 1024, Scenario.WHOLE, 0, Survey.Holds.ALL_FILES), Job.QUIET);
  }

  private int run(Object... arguments) {
    CommandLine line = Main.commandLine();
    line.setOut(new PrintWriter(out));
    line.setErr(new PrintWriter(err));
    String[] texts = new String[arguments.length];
    for (int i = 0; i < texts.length; i++) {
      texts[i] = arguments[i].toString();
    }
    return line.execute(texts);
  }

  private int ortho(Path raw, Path placed, Object... more) {
    List<Object> arguments = new ArrayList<>(
        List.of("step", "ortho", "--scene", raw, "--heights", survey.heights(), "--out", placed));
    arguments.addAll(List.of(more));
    return run(arguments.toArray());
  }

  private JsonNode lastLine() throws IOException {
    return new ObjectMapper()
        .readTree(out.toString().strip().lines().reduce((a, b) -> b).orElseThrow());
  }

  @Test
  void theShippedSheetFindsMoreThanHalfOfTheMetalRoofsOfASmallSurvey() throws IOException {
    int code = run(
        "run",
        SHEET,
        "--set",
        "survey=" + survey.folder(),
        "--work",
        folder.resolve("work"),
        "--json");

    assertThat(code).as(err.toString()).isZero();
    JsonNode scores = lastLine().path("scores").path("check");
    assertThat(scores.path("f1").asDouble()).isGreaterThan(0.5);
    assertThat(err.toString()).doesNotContain("no report");
    assertThat(out.toString()).contains("Sheet-metal roofs").contains("precision");
    assertThat(GeoPackage.read(folder.resolve("work/metal-roofs.gpkg"), "metal_roofs")
            .size())
        .isPositive();
  }

  private int runExample(String name) {
    return run(
        "run",
        "../docs/examples/" + name + ".json",
        "--set",
        "survey=" + survey.folder(),
        "--work",
        folder.resolve(name));
  }

  @Test
  void theSheetOfSharpeningRatesMethodsAndTellsRoofsApart() {
    int code = runExample("sharpen-and-look");

    assertThat(code).as(err.toString()).isZero();
    assertThat(out.toString())
        .contains("Laplacian pyramid in context")
        .contains("Bilinear interpolation")
        .contains("Jeffries-Matusita")
        .contains("Best three bands");
  }

  @Test
  void theSheetOfSegmentingMendsMeasuresRanksAndSumsUp() {
    int code = runExample("segment-and-measure");

    assertThat(code).as(err.toString()).isZero();
    assertThat(out.toString())
        .contains("features, the best first")
        .contains("8 outlines")
        .doesNotContain("FeatureRanking");
    // each line tells one result in a few words
    assertThat(out.toString().lines()).allMatch(line -> line.length() < 150);
    List<String> kept = out.toString()
        .lines()
        .filter(line -> line.contains("  largest  "))
        .map(line -> line.replaceAll(".*largest +", ""))
        .toList();
    assertThat(kept).singleElement().asString().contains("objects");
  }

  @Test
  void bandsInFilesOfTheirOwnAreStacked() {
    Path bands = folder.resolve("bands");
    Raster golden = RasterFiles.open(Path.of("../core/src/test/resources/golden/tiled-lzw-2.tif"));
    for (String name : new String[] {"x_red", "x_nir"}) {
      GeoTiffWriter.write(
          new BandsOf(golden, 0), bands.resolve(name + ".tif"), Compression.NONE, Job.QUIET);
    }

    int code = run(
        "step",
        "stack",
        "--files",
        bands.resolve("x_red.tif") + "," + bands.resolve("x_nir.tif"),
        "--roles",
        "red,near_infrared",
        "--out",
        folder.resolve("stack.tif"));

    assertThat(code).as(err.toString()).isZero();
    assertThat(RasterFiles.open(folder.resolve("stack.tif")).bands())
        .extracting(Band::role)
        .containsExactly(BandRole.RED, BandRole.NEAR_INFRARED);
  }

  @Test
  void theMosaicSheetLaysTwoScenesTogetherAndCutsNoRoof() throws IOException {
    int code = runExample("mosaic");

    assertThat(code).as(err.toString()).isZero();
    Raster mosaic = RasterFiles.open(folder.resolve("mosaic/mosaic.tif"));
    SeamVisibility seams = mosaic.attachments().get(SeamVisibility.class).orElseThrow();
    assertThat(seams.after()).isBetween(0.0, seams.before());
    OutlineSet areas = GeoPackage.read(folder.resolve("mosaic/seams.gpkg"), "").outlines();
    MosaicQuality.Roofs roofs = MosaicQuality.roofs(survey, areas);
    assertThat(roofs.all()).isPositive();
    assertThat(roofs.cut() + roofs.doubled() + roofs.lost()).isZero();

    List<Path> orthos = kept("mosaic");
    Path again = folder.resolve("again.tif");
    code = run(
        "step",
        "mosaic",
        "--scenes",
        orthos.get(0),
        orthos.get(1),
        "--overlap",
        "last",
        "--balance",
        "none",
        "--trend",
        0,
        "--out",
        again);
    assertThat(code).as(err.toString()).isZero();
    assertThat(RasterFiles.open(again).grid()).isEqualTo(mosaic.grid());
  }

  /** The two orthos that a sheet kept. */
  private static List<Path> kept(String name) throws IOException {
    try (var files = Files.list(folder.resolve(name + "/rasters"))) {
      List<Path> kept =
          files.filter(f -> f.getFileName().toString().startsWith("ortho")).toList();
      assertThat(kept).hasSize(2);
      return kept;
    }
  }

  @Test
  void theTrueOrthoIsFilledFromTheSecondScene() throws IOException {
    int code = runExample("true-ortho");

    assertThat(code).as(err.toString()).isZero();
    long filled = known(RasterFiles.open(folder.resolve("true-ortho/true-ortho.tif")));
    for (Path one : kept("true-ortho")) {
      assertThat(known(RasterFiles.open(one))).isLessThan(filled);
    }
    Path whole = folder.resolve("terrain.tif");
    Path raw = folder.resolve("pan.tif");
    run("step", "assemble", "--delivery", survey.item(), "--image", "pan", "--out", raw);
    code = ortho(raw, whole, "--undulation", 47, "--pixel-size", 0.5);
    assertThat(code).as(err.toString()).isZero();
    // in a town a hundredth of the ground and more stands behind walls
    long shown = known(RasterFiles.open(whole));
    long seen = 0;
    for (Path one : kept("true-ortho")) {
      Raster ortho = RasterFiles.open(one);
      if (ortho.grid().equals(RasterFiles.open(whole).grid())) {
        seen = known(ortho);
      }
    }
    assertThat(seen).isBetween(shown / 2, shown - shown / 100);
  }

  private static long known(Raster raster) {
    long count = 0;
    for (float v : samples(raster)) {
      count += Float.isNaN(v) ? 0 : 1;
    }
    return count;
  }

  private static float[] samples(Raster raster) {
    return raster.read(0, raster.grid().window(), Request.BACKGROUND)[0];
  }

  @Test
  void stepsChainThroughFiles() throws IOException {
    Path raw = folder.resolve("raw.tif");
    Path placed = folder.resolve("ortho.tif");
    Path objects = folder.resolve("objects.gpkg");
    Path measured = folder.resolve("measured.gpkg");
    Path part = folder.resolve("part.tif");
    int code = run("step", "assemble", "--delivery", survey.item(), "--image", "ms", "--out", raw)
        + ortho(
            raw,
            placed,
            "--undulation",
            47,
            "--pixel-size",
            2,
            "--resampling",
            "bilinear",
            "--compression",
            "none",
            "--no-overviews")
        + run("step", "segment", "--scene", placed, "--grain", 400, "--out", objects)
        + run("step", "measure", "--objects", objects, "--scene", placed, "--out", measured)
        + run("step", "clip", "--scene", placed, "--out", part);

    assertThat(code).as(err.toString()).isZero();
    assertThat(GeoPackage.read(measured, "").table().has("ndvi")).isTrue();
    assertThat(Files.size(part)).isPositive();
    run("info", placed, "--json");
    assertThat(lastLine().path("width").asInt()).isGreaterThan(200);
    assertThat(out.toString()).contains("EPSG:32630").contains("near infrared");
  }

  @Test
  void anOrthoWithoutUndulationTakesTheShippedGeoidAndSaysSo() {
    Path raw = folder.resolve("raw-pan.tif");
    run("step", "assemble", "--delivery", survey.item(), "--image", "pan", "--out", raw);

    int code = ortho(raw, folder.resolve("x.tif"));

    assertThat(code).isZero();
    assertThat(err.toString()).contains("EGM96").contains("--undulation");
  }

  @Test
  void exportTakesOutlinesAndRasters() {
    Path json = folder.resolve("truth.geojson");
    Path tif = folder.resolve("heights-copy.tif");

    int code = run("step", "export", "--result", survey.roofsInOrtho(), "--file", json)
        + run(
            "step",
            "export",
            "--result",
            survey.heights(),
            "--file",
            tif,
            "--compression",
            "deflate");

    assertThat(code).as(err.toString()).isZero();
    assertThat(json).exists();
    assertThat(tif).exists();
  }

  @Test
  void aSheetOnASurveyThatIsTunedOnSaysThatItIsNoReport() throws IOException {
    Path sheet = folder.resolve("look.json");
    Files.writeString(sheet, """
        { "title": "A look", "variables": { "survey": "demo:1" }, "steps": [
          { "name": "pan", "step": "assemble", "delivery": "${survey}/scene-one.json", "image": "pan" } ] }
        """);

    run("run", sheet, "--set", "survey=" + folder.resolve("fenwrack-sound-3-512-v5"));

    assertThat(err.toString()).contains("no report").contains("101 and up");
  }

  @Test
  void worldsAreMadeAsOrderedAndWrongOrdersRefused() throws IOException {
    Path picture = folder.resolve("scales.png");

    int code = run(
        "world",
        "--seed",
        8,
        "--size",
        256,
        "--scenario",
        "harbour",
        "--bias",
        2.5,
        "--truth",
        "outlines",
        "--picture",
        picture,
        "--out",
        folder);

    assertThat(code).as(err.toString()).isZero();
    Path made = folder.resolve("fenwrack-sound-8-256-harbour-biased-2.5-v5");
    assertThat(made.resolve("survey.json")).exists();
    assertThat(made.resolve("scene-two/scene-two.json")).exists();
    assertThat(made.resolve("truth/scene-one/radiometry.tif")).doesNotExist();
    assertThat(javax.imageio.ImageIO.read(picture.toFile()).getWidth()).isGreaterThan(1500);
    assertThat(run("world", "--seed", 8, "--scenario", "village", "--out", folder))
        .isNotZero();
    assertThat(err.toString()).contains("whole, harbour, town or moor");
    assertThat(run("world", "--seed", 8, "--bias", -1, "--out", folder)).isNotZero();
    assertThat(err.toString()).contains("0 to 50 pixels");
  }

  @Test
  void separabilityIsMeasuredAndWritten() throws IOException {
    Path page = folder.resolve("separability.md");

    int code = run("separability", "--seeds", 104, "--size", 1024, "--out", page);

    assertThat(code).as(err.toString()).isZero();
    String text = Files.readString(page);
    assertThat(text).contains("| 104 |").contains("wet asphalt");
    for (String row : text.lines().filter(line -> line.startsWith("| 104")).toList()) {
      String[] cells = row.split("\\|");
      double last = Double.parseDouble(cells[cells.length - 1].strip());
      if (cells.length == 6) {
        // no single number may tell roofs from what is put there to be taken for them
        assertThat(last).as(row).isBetween(0.5, 0.9);
      } else {
        // nor from all else, though better than calling everything roof
        assertThat(Double.parseDouble(cells[5].strip())).as(row).isBetween(last, 0.85);
      }
    }
  }

  @Test
  void seedsThatAreTunedOnAreNotReportedOn() {
    int code = run("quality", "--seeds", "1", "--size", 1024);

    assertThat(code).isEqualTo(1);
    assertThat(err.toString()).contains("tuned on");
  }

  @Test
  void aWorldThatIsTooSmallSaysWhatSizesThereAre() {
    int code = run("world", "--seed", 1, "--size", 20, "--out", folder);

    assertThat(code).isEqualTo(1);
    assertThat(err.toString()).contains("256 to 40000");
  }
}
