package sharpkestrel.io;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.NumberRaster;
import sharpkestrel.raster.Pixels;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;

/** Pixels without data are without data when they were written and read back, whatever the samples. */
class HolesTest {

  private static final int WIDTH = 700;
  private static final int HEIGHT = 530;

  @TempDir
  Path folder;

  /** Zero is a valid number everywhere; a disc has no data, in the second band a larger one where holes differ. */
  private static MemoryRaster holed(SampleType type, double[] noData, boolean differ) {
    float[][] planes = new float[noData.length][WIDTH * HEIGHT];
    for (int b = 0; b < planes.length; b++) {
      double radius = differ && b == 1 ? 150 : 100;
      for (int i = 0; i < planes[b].length; i++) {
        double away = Math.hypot(i % WIDTH - 300, (double) (i / WIDTH) - 250);
        planes[b][i] = away < radius ? Float.NaN : (i * 7 + b) % 100;
      }
    }
    List<Band> bands = IntStream.range(0, noData.length)
        .mapToObj(b -> new Band("b" + b, BandRole.OTHER, "", type, noData[b]))
        .toList();
    Grid grid =
        new Grid(WIDTH, HEIGHT, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630));
    return new MemoryRaster(grid, bands, Attachments.NONE, planes);
  }

  @ParameterizedTest
  @CsvSource({
    "UINT8, NaN, NaN, false",
    "UINT8, NaN, NaN, true",
    "UINT16, NaN, NaN, false",
    "UINT16, 65535, 65535, true",
    "UINT16, 65535, NaN, true",
    "UINT16, 1000, 2000, true",
    "INT16, NaN, NaN, true",
    "INT32, NaN, NaN, true",
    "UINT32, NaN, NaN, false",
    "FLOAT32, NaN, NaN, true",
    "FLOAT32, -9999, NaN, true",
    "FLOAT32, -3.4028234663852886e38, -3.4028234663852886e38, true"
  })
  void holesAreHolesWhenReadBack(SampleType type, double first, double second, boolean differ) {
    MemoryRaster raster = holed(type, new double[] {first, second}, differ);
    for (boolean overviews : new boolean[] {true, false}) {
      Path file = folder.resolve(overviews + ".tif");

      GeoTiffWriter.write(raster, file, Compression.DEFLATE, overviews, Job.QUIET);

      Raster back = RasterFiles.open(file);
      Pixels.assertSame(Made.samples(back), Made.samples(raster));
      float[][] half = back.read(1, back.grid().atLevel(1).window(), Request.BACKGROUND);
      float[][] expected = raster.read(1, raster.grid().atLevel(1).window(), Request.BACKGROUND);
      for (int b = 0; b < 2; b++) {
        if (type.isWhole()) {
          raster.bands().get(b).quantise(expected[b], 0, expected[b].length);
        }
      }
      Pixels.assertSame(half, expected);
    }
  }

  @Test
  void nothingIsAddedToAFileWithoutHoles() {
    Path file = folder.resolve("whole.tif");

    GeoTiffWriter.write(
        Made.on(Grid.ofPixels(20, 20), SampleType.UINT8, (b, x, y) -> x, BandRole.PAN),
        file,
        Compression.NONE,
        Job.QUIET);

    assertThat(TiffFile.open(file).directories()).hasSize(1);
  }

  /** Its other reader is asked what it sees of a pixel inside of the hole and of one outside. */
  @ParameterizedTest
  @CsvSource({"false, PER_DATASET", "true, band"})
  void otherSoftwareSeesTheHoles(boolean differ, String flags) throws IOException {
    MemoryRaster raster = holed(SampleType.UINT8, new double[] {Double.NaN, Double.NaN}, differ);
    Path file = folder.resolve("masked.tif");

    GeoTiffWriter.write(raster, file, Compression.DEFLATE, Job.QUIET);

    assumeThat(Files.isExecutable(Path.of("/usr/bin/gdalinfo"))).isTrue();
    Process info = new ProcessBuilder("gdalinfo", file.toString()).start();
    String text = new String(info.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(text).contains("Mask Flags:").contains("Overviews of mask band: 350x265");
    assertThat(text.contains("PER_DATASET")).isEqualTo(flags.equals("PER_DATASET"));
  }

  @Test
  void numbersAboveWhatFloatsHoldAreWrittenExactly() {
    Grid grid = Grid.ofPixels(600, 30);
    LabelRaster large = new LabelRaster() {
      @Override
      public Grid grid() {
        return grid;
      }

      @Override
      public void read(Window window, int[] target) {
        for (int i = 0; i < target.length; i++) {
          int x = window.x() + i % window.width();
          int y = window.y() + i / window.width();
          boolean inside = grid.window().intersect(new Window(x, y, 1, 1)).area() == 1;
          target[i] = inside ? (1 << 24) + 1 + x + 600 * y : 0;
        }
      }

      @Override
      public int maxLabel() {
        return (1 << 24) + 600 * 30;
      }
    };
    Path file = folder.resolve("numbers.tif");

    GeoTiffWriter.write(
        new NumberRaster(large, "object", large.maxLabel(), label -> label),
        file,
        Compression.ZSTD,
        false,
        Job.QUIET);

    int[] back = new int[600 * 30];
    GeoTiff.open(file).labels().read(grid.window(), back);
    int[] expected = new int[back.length];
    large.read(grid.window(), expected);
    assertThat(back).isEqualTo(expected);
  }
}
