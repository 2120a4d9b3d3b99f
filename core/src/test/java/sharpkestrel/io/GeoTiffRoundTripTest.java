package sharpkestrel.io;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.VerticalDatum;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Cancellation;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Jobs;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Pixels;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Reattached;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;

class GeoTiffRoundTripTest {

  @TempDir
  Path folder;

  private static MemoryRaster random(SampleType type, int bands, int width, int height) {
    Random random = new Random(type.ordinal() * 31L + bands);
    List<Band> list = new ArrayList<>();
    float[][] planes = new float[bands][width * height];
    BandRole[] roles = {BandRole.BLUE, BandRole.GREEN, BandRole.RED, BandRole.NEAR_INFRARED};
    for (int b = 0; b < bands; b++) {
      list.add(new Band(
          "b" + b,
          b < 4 ? roles[b] : BandRole.OTHER,
          "",
          type,
          type == SampleType.FLOAT32 ? Double.NaN : 0));
      double span = Math.min(type.max(), 1 << 23) - Math.max(type.min(), -(1 << 23));
      for (int i = 0; i < planes[b].length; i++) {
        double v = Math.max(type.min(), -(1 << 23)) + random.nextDouble() * span;
        planes[b][i] = type.isWhole() ? (float) Math.floor(v) : (float) v;
        if (random.nextInt(50) == 0 || planes[b][i] == 0) {
          planes[b][i] = Float.NaN;
        }
      }
    }
    Grid grid =
        new Grid(width, height, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630));
    return new MemoryRaster(grid, list, Attachments.NONE, planes);
  }

  @ParameterizedTest
  @CsvSource({
    "UINT8,1,NONE",
    "UINT8,3,LZW",
    "UINT16,1,DEFLATE",
    "UINT16,7,ZSTD",
    "UINT16,4,LZW",
    "INT16,2,DEFLATE",
    "UINT32,1,ZSTD",
    "UINT32,2,LZW",
    "FLOAT32,1,DEFLATE",
    "FLOAT32,16,ZSTD",
    "FLOAT32,3,NONE"
  })
  void whatIsWrittenIsReadBack(SampleType type, int bands, Compression compression) {
    MemoryRaster raster = random(type, bands, 700, 530);
    Path file = folder.resolve("a.tif");

    GeoTiffWriter.write(raster, file, compression, Job.QUIET);

    Raster back = RasterFiles.open(file);
    assertThat(back.grid()).isEqualTo(raster.grid());
    assertThat(back.bands()).isEqualTo(raster.bands());
    Pixels.assertSame(
        back.read(0, back.grid().window(), Request.BACKGROUND),
        raster.read(0, raster.grid().window(), Request.BACKGROUND));
  }

  @Test
  void overviewsAreMeansRoundedHalfUpOfTheLevelBelow() {
    MemoryRaster raster = random(SampleType.UINT16, 2, 1100, 900);
    Path file = folder.resolve("a.tif");

    GeoTiffWriter.write(raster, file, Compression.DEFLATE, Job.QUIET);

    Raster back = RasterFiles.open(file);
    float[][] expected = raster.read(1, raster.grid().atLevel(1).window(), Request.BACKGROUND);
    for (int b = 0; b < 2; b++) {
      raster.bands().get(b).quantise(expected[b], 0, expected[b].length);
    }
    assertThat(back.attachments().get(FileLayout.class).orElseThrow().overviews())
        .isEqualTo(3);
    Pixels.assertSame(back.read(1, back.grid().atLevel(1).window(), Request.BACKGROUND), expected);
  }

  @Test
  void metadataOfTheSceneSurvives() {
    Acquisition acquisition = new Acquisition(
        Instant.parse("2031-04-03T11:42:00Z"),
        35.5,
        171,
        18.25,
        97,
        Map.of(BandRole.BLUE, new Acquisition.Calibration(0.25, -1, 1950)));
    MemoryRaster plain = random(SampleType.UINT16, 2, 64, 64);
    Raster raster = new Reattached(
        plain,
        Attachments.NONE
            .with(Acquisition.class, acquisition)
            .with(VerticalDatum.class, VerticalDatum.ELLIPSOID));
    Path file = folder.resolve("a.tif");

    GeoTiffWriter.write(raster, file, Compression.NONE, Job.QUIET);

    Raster back = RasterFiles.open(file);
    assertThat(back.attachments().get(Acquisition.class)).contains(acquisition);
    assertThat(back.attachments().get(VerticalDatum.class)).contains(VerticalDatum.ELLIPSOID);
  }

  @Test
  void aCancelledRunLeavesNothingBehind() {
    Cancellation cancellation = new Cancellation();
    cancellation.cancel();
    assertThatThrownBy(() -> GeoTiffWriter.write(
            random(SampleType.UINT8, 1, 600, 600),
            folder.resolve("a.tif"),
            Compression.LZW,
            Jobs.stoppedBy(cancellation)))
        .isInstanceOf(CancellationException.class);

    assertThat(folder).isEmptyDirectory();
  }

  @Test
  void threadsAndComputingTilesDoNotShowInTheFile() throws IOException {
    MemoryRaster raster = random(SampleType.UINT16, 3, 1300, 700);

    GeoTiffWriter.write(raster, folder.resolve("a.tif"), Compression.ZSTD, Job.of(1, 512));
    GeoTiffWriter.write(raster, folder.resolve("b.tif"), Compression.ZSTD, Job.of(2, 256));

    assertThat(Files.readAllBytes(folder.resolve("a.tif")))
        .isEqualTo(Files.readAllBytes(folder.resolve("b.tif")));
  }

  @Test
  void anIndependentReaderAgrees() throws IOException, InterruptedException {
    assumeThat(isInstalled("gdalinfo")).isTrue();
    MemoryRaster raster = random(SampleType.UINT16, 3, 1100, 600);
    Path file = folder.resolve("a.tif");
    GeoTiffWriter.write(raster, file, Compression.ZSTD, Job.QUIET);
    Path plain = folder.resolve("a.pnm");

    run("gdal_translate", "-q", "-of", "PNM", file.toString(), plain.toString());
    String info = run("gdalinfo", file.toString());

    // Samples of a pixel side by side, the high byte first, after three lines of header.
    byte[] bytes = Files.readAllBytes(plain);
    float[][] planes = raster.read(0, raster.grid().window(), Request.BACKGROUND);
    int at = bytes.length - 2 * 3 * 1100 * 600;
    for (int i = 0; i < planes[0].length; i++) {
      for (float[] plane : planes) {
        int number = (bytes[at] & 0xff) << 8 | bytes[at + 1] & 0xff;
        assertThat(number).isEqualTo(Float.isNaN(plane[i]) ? 0 : (int) plane[i]);
        at += 2;
      }
    }
    assertThat(info).contains("32630").contains("Overviews: 550x300").contains("NoData Value=0");
  }

  private static boolean isInstalled(String program) {
    return List.of(System.getenv("PATH").split(":")).stream()
        .anyMatch(p -> Files.isExecutable(Path.of(p, program)));
  }

  private static String run(String... command) throws IOException, InterruptedException {
    Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
    String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(process.waitFor()).as(output).isZero();
    return output;
  }
}
