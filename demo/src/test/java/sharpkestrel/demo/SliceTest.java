package sharpkestrel.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import sharpkestrel.gather.Assemble;
import sharpkestrel.gather.Calibrate;
import sharpkestrel.geo.Rpc;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.Json;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.place.Ortho;
import sharpkestrel.place.Relief;
import sharpkestrel.place.ResultGrid;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Resampling;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;
import sharpkestrel.sharpen.PanInputs;
import sharpkestrel.sharpen.Pansharpen;
import sharpkestrel.sharpen.pan.Method;

/** Steps on a small survey against its truth. */
class SliceTest {

  @TempDir
  static Path folder;

  private static Survey survey;
  private static Raster ortho;

  @BeforeAll
  static void makeSurvey() {
    survey = SurveyMaker.make(folder, new Survey.Order(102, 768), Job.QUIET);
    ortho = ortho("pan", 0.5);
  }

  private static Raster assembled(String image) {
    return new Assemble(survey.item(), image).run(Job.QUIET);
  }

  private static Raster ortho(String image, double size) {
    return ortho(image, size, Optional.empty(), World.UNDULATION);
  }

  private static Raster ortho(
      String image, double size, Optional<Raster> undulationGrid, double undulation) {
    return new Ortho(
            assembled(image),
            new Relief(Optional.of(RasterFiles.open(survey.heights())), undulationGrid, undulation),
            Optional.empty(),
            Double.NaN,
            new ResultGrid(CrsName.NONE, Optional.empty(), size, Resampling.CUBIC))
        .run(Job.QUIET);
  }

  @Test
  void sixPartsMakeOneSceneWithItsModelAndRoles() {
    Raster pan = assembled("pan");
    Raster ms = assembled("ms");

    assertThat(pan.grid().width()).isEqualTo(768);
    assertThat(pan.bands().get(0).role()).isEqualTo(BandRole.PAN);
    assertThat(ms.grid().width()).isEqualTo(192);
    assertThat(ms.bandOf(BandRole.NEAR_INFRARED)).hasValue(5);
    assertThat(pan.attachments().get(Rpc.class)).isPresent();
  }

  /** Marks are found in the ortho's own pixels, as the centre of brightness above their surroundings. */
  @Test
  void surveyedMarksLieWithinAPixelOfTheirPlacesInTheOrtho() {
    var marks = Json.read(survey.checkPoints()).path("marks");
    var toPixel = ortho.grid().affine().inverse();
    double squares = 0;
    int count = 0;
    for (var mark : marks) {
      double col = toPixel.x(mark.path("east").asDouble(), mark.path("north").asDouble());
      double row = toPixel.y(mark.path("east").asDouble(), mark.path("north").asDouble());
      Window window = new Window((int) col - 9, (int) row - 9, 19, 19);
      float[] plane = ortho.read(0, window, Request.BACKGROUND)[0];
      float[] sorted = plane.clone();
      java.util.Arrays.sort(sorted);
      float ground = sorted[sorted.length / 2];
      double weight = 0;
      double x = 0;
      double y = 0;
      for (int i = 0; i < plane.length; i++) {
        double w =
            plane[i] - ground > 0.4 * (sorted[sorted.length - 1] - ground) ? plane[i] - ground : 0;
        weight += w;
        x += w * (window.x() + i % 19 + 0.5);
        y += w * (window.y() + i / 19 + 0.5);
      }
      if (weight > 0) {
        squares += Math.pow(x / weight - col, 2) + Math.pow(y / weight - row, 2);
        count++;
      }
    }

    assertThat(count).isGreaterThan(4);
    assertThat(Math.sqrt(squares / count)).isLessThan(1.0);
  }

  /** A geoid in degrees that stands at one height is that height, wherever it is sampled. */
  @Test
  void anUndulationGridOfOneHeightIsThatHeight() {
    float[] plane = new float[9 * 9];
    java.util.Arrays.fill(plane, (float) World.UNDULATION);
    Raster geoid = new MemoryRaster(
        new Grid(9, 9, Affine.northUp(-4, 61.5, 0.3), CrsName.epsg(4326)),
        List.of(new Band("undulation", BandRole.HEIGHT, "m", SampleType.FLOAT32, Double.NaN)),
        Attachments.NONE,
        new float[][] {plane});

    Raster placed = ortho("pan", 0.5, Optional.of(geoid), Double.NaN);

    Window window = new Window(200, 150, 64, 64);
    float[] expected = ortho.read(0, window, Request.BACKGROUND)[0];
    float[] found = placed.read(0, window, Request.BACKGROUND)[0];
    int other = 0;
    for (int i = 0; i < found.length; i++) {
      // the last digit of an interpolated height may turn a half up or down
      assertThat(found[i]).isCloseTo(expected[i], within(1f));
      other += found[i] != expected[i] ? 1 : 0;
    }
    assertThat(other).isLessThan(found.length / 200);
  }

  @Test
  void anUndulationGridElsewhereIsRefused() {
    Raster elsewhere = new MemoryRaster(
        new Grid(2, 2, Affine.northUp(40, 10, 1), CrsName.epsg(4326)),
        List.of(new Band("undulation", BandRole.HEIGHT, "m", SampleType.FLOAT32, Double.NaN)),
        Attachments.NONE,
        new float[1][4]);

    assertThatThrownBy(() -> ortho("pan", 0.5, Optional.of(elsewhere), Double.NaN))
        .hasMessageContaining("undulation grid");
  }

  @ParameterizedTest
  @EnumSource(
      value = Method.class,
      names = {"ADAPTIVE", "LAPLACIAN", "SMOOTHING"})
  void lazyEqualsWrittenWhateverTilesAndThreads(Method method) {
    Raster sharp =
        new Pansharpen(method, List.of(), PanInputs.of(ortho, ortho("ms", 2))).run(Job.QUIET);
    Path one = folder.resolve("one.tif");
    Path two = folder.resolve("two.tif");
    GeoTiffWriter.write(sharp, one, Compression.ZSTD, Job.of(1, 512));
    GeoTiffWriter.write(sharp, two, Compression.LZW, Job.of(2, 256));

    float[][] lazy = sharp.read(0, sharp.grid().window(), Request.BACKGROUND);

    for (Path file : List.of(one, two)) {
      float[][] written = RasterFiles.open(file).read(0, sharp.grid().window(), Request.BACKGROUND);
      for (int b = 0; b < lazy.length; b++) {
        assertThat(written[b]).isEqualTo(lazy[b]);
      }
    }
  }

  @Test
  void reflectanceOfTheSeaIsDarkAndOfMarksBright() {
    Raster toa = new Calibrate(assembled("pan"), Calibrate.Haze.NONE).run(Job.QUIET);
    var mark = Json.read(survey.checkPoints()).path("marks").get(0);
    int col = (int) mark.path("column").asDouble();
    int row = (int) mark.path("row").asDouble();

    float bright = toa.read(0, new Window(col, row, 1, 1), Request.BACKGROUND)[0][0];

    assertThat(bright).isBetween(0.4f, 0.95f);
  }

  @Test
  void aMissingPartIsNamedAndLeftWithoutData() throws java.io.IOException {
    Path copy = folder.resolve("incomplete");
    java.nio.file.Files.createDirectories(copy);
    try (var files = java.nio.file.Files.list(survey.item().getParent())) {
      for (Path file : files.filter(f -> !f.endsWith("pan-R2C2.tif")).toList()) {
        java.nio.file.Files.copy(file, copy.resolve(file.getFileName()));
      }
    }
    java.util.List<String> warnings = new java.util.ArrayList<>();
    Job job = warning(warnings);

    Raster pan = new Assemble(copy, "pan").run(job);

    assertThat(warnings).anyMatch(w -> w.contains("R2C2"));
    float[] middle = pan.read(0, new Window(384, 600, 1, 1), Request.BACKGROUND)[0];
    assertThat(middle[0]).isNaN();
  }

  private static Job warning(List<String> warnings) {
    return new Job() {
      @Override
      public int threads() {
        return 1;
      }

      @Override
      public void warn(String message) {
        warnings.add(message);
      }
    };
  }
}
