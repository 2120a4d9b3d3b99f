package sharpkestrel.gather;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;

class DescribeTest {

  @TempDir
  Path folder;

  private Path file;

  /** Three bands that say nothing of themselves, 99 in the left half, with reduced copies that know nothing of that. */
  @BeforeEach
  void writeABareFile() {
    file = folder.resolve("bare.tif");
    Grid grid = new Grid(600, 400, Affine.northUp(512_000, 6_702_000, 30), CrsName.NONE);
    GeoTiffWriter.write(
        Made.on(
            grid,
            SampleType.UINT16,
            (b, x, y) -> x < 300 ? 99 : 200 + b,
            BandRole.OTHER,
            BandRole.OTHER,
            BandRole.OTHER),
        file,
        Compression.DEFLATE,
        Job.QUIET);
  }

  private Raster describe(String... settings) {
    Map<String, String> all = new HashMap<>(Map.of("file", file.toString()));
    for (int i = 0; i < settings.length; i += 2) {
      all.put(settings[i], settings[i + 1]);
    }
    return (Raster) StepCatalogue.get("describe").make(Map.of(), all).run(Job.QUIET);
  }

  @Test
  void whatIsToldCountsWhereverTheFileIsOpenedAndTheFileStaysAsItWas() throws IOException {
    byte[] before = Files.readAllBytes(file);

    describe(
        "crs", "EPSG:32630",
        "roles", "near_infrared, short_wave_infrared_1, thermal",
        "names", "a,b,c",
        "no-data", "99",
        "time", "2031-04-03",
        "sun-elevation", "40",
        "gains", "0.1,0.2,0.3",
        "irradiances", "1000,200,3");

    Raster opened = RasterFiles.open(file);
    assertThat(Files.readAllBytes(file)).isEqualTo(before);
    assertThat(opened.grid().crs()).isEqualTo(CrsName.epsg(32630));
    assertThat(opened.bands())
        .extracting(Band::role)
        .containsExactly(BandRole.NEAR_INFRARED, BandRole.SHORT_WAVE_INFRARED_1, BandRole.THERMAL);
    assertThat(opened.bands()).extracting(Band::name).containsExactly("a", "b", "c");
    Acquisition acquisition = opened.attachments().get(Acquisition.class).orElseThrow();
    assertThat(acquisition.time()).isEqualTo(Instant.parse("2031-04-03T12:00:00Z"));
    assertThat(acquisition.reflectance(BandRole.THERMAL)).isPresent();
    for (int level = 0; level < 2; level++) {
      Grid at = opened.grid().atLevel(level);
      float[] plane = opened.read(level, at.window(), Request.BACKGROUND)[0];
      for (int x = 0; x < at.width(); x++) {
        assertThat(Float.isNaN(plane[x])).isEqualTo(x < at.width() / 2);
      }
    }
  }

  @Test
  void whatIsToldAnewTakesThePlaceOfWhatWasToldBefore() {
    describe("no-data", "99", "names", "a,b,c");

    Raster again = describe("names", "x,y,z");

    assertThat(again.bands()).extracting(Band::name).containsExactly("x", "y", "z");
    assertThat(Made.samples(again)[0][0]).isEqualTo(99);
  }

  @Test
  void whatCannotBeIsRefusedAndNothingIsWritten() {
    assertThatThrownBy(() -> describe("roles", "red,red,other"))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("stands once");
    assertThatThrownBy(() -> describe("roles", "red,green"))
        .hasMessageContaining("2 roles for 3 bands");
    assertThatThrownBy(() -> describe("roles", "red,green,purple"))
        .hasMessageContaining("'purple' is no role")
        .hasMessageContaining("near_infrared");
    assertThatThrownBy(() -> describe("crs", "EPSG:999999"))
        .hasMessageContaining("no coordinate reference system");
    assertThatThrownBy(() -> describe("time", "last spring")).hasMessageContaining("2031-04-03");
    assertThatThrownBy(() -> describe("offsets", "1,2,3")).hasMessageContaining("gains");
    assertThat(folder.toFile().list()).containsExactly("bare.tif");
  }

  @Test
  void aDescriptionThatIsDamagedIsNamed() throws IOException {
    Files.writeString(
        folder.resolve("bare.tif.about.json"), "{\"bands\": [{\"role\": \"purple\"}]}");

    assertThatThrownBy(() -> RasterFiles.open(file))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("bare.tif.about.json")
        .hasMessageContaining("purple");
  }
}
