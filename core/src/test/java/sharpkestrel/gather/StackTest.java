package sharpkestrel.gather;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.SampleType;

class StackTest {

  @TempDir
  Path folder;

  /** Writes a band whose samples are ten times the ground's column plus its row, in units of a metre. */
  private Path write(String file, int size, double pixel, CrsName crs, int add) {
    Grid grid = new Grid(size, size, Affine.northUp(512_000, 6_702_000, pixel), crs);
    float[] plane = new float[size * size];
    for (int i = 0; i < plane.length; i++) {
      plane[i] = (float) (add + 10 * (i % size + 0.5) * pixel + (i / size + 0.5) * pixel);
    }
    Band band = new Band("band 1", BandRole.OTHER, "", SampleType.UINT16, 0);
    Path path = folder.resolve(file);
    GeoTiffWriter.write(
        new MemoryRaster(grid, List.of(band), Attachments.NONE, new float[][] {plane}),
        path,
        Compression.NONE,
        Job.QUIET);
    return path;
  }

  @ParameterizedTest
  @CsvSource({
    "sound_blue.tif, BLUE",
    "sound-B4-red.tif, RED",
    "sound_near_infrared.tif, NEAR_INFRARED",
    "sound_rededge_1.tif, RED_EDGE",
    "NIR.tif, NEAR_INFRARED",
    "scene_B4.tif, OTHER",
    "scene_B_4.tif, OTHER",
    "scene_swir_2.tif, SHORT_WAVE_INFRARED_2",
    "harbour.tif, OTHER"
  })
  void aFilesNameSaysWhatItsBandStandsFor(String name, BandRole role) {
    assertThat(BandRole.inText(name.replace(".tif", ""))).isEqualTo(role);
  }

  @Test
  void bandsStandInTheOrderOfTheFilesWithTheirSamples() {
    CrsName crs = CrsName.epsg(32630);
    List<Path> files =
        List.of(write("a_red.tif", 20, 1, crs, 100), write("a_green.tif", 20, 1, crs, 500));

    Raster stack = new Stack(files, List.of()).run(Job.QUIET);

    assertThat(stack.bands()).extracting(Band::role).containsExactly(BandRole.RED, BandRole.GREEN);
    float[][] found = Made.samples(stack);
    assertThat(found[1][45] - found[0][45]).isEqualTo(400);
    assertThat(stack.bands().get(0).type()).isEqualTo(SampleType.UINT16);
  }

  @Test
  void aCoarserBandIsBroughtOntoTheFinestGridWhereItBelongs() {
    CrsName crs = CrsName.epsg(32630);
    List<Path> files =
        List.of(write("a_red.tif", 20, 2, crs, 0), write("a_green.tif", 40, 1, crs, 0));

    Raster stack = new Stack(files, List.of()).run(Job.QUIET);

    assertThat(stack.grid().width()).isEqualTo(40);
    float[][] found = Made.samples(stack);
    for (int i = 5 * 40 + 5; i < 34 * 40; i++) {
      if (i % 40 >= 5 && i % 40 < 35) {
        // both are the same slope of the ground, rounded
        assertThat(found[0][i]).isCloseTo(found[1][i], within(1.01f));
      }
    }
  }

  @Test
  void rolesThatAreGivenGoBeforeGuesses() {
    CrsName crs = CrsName.epsg(32630);
    List<Path> files =
        List.of(write("a_red.tif", 20, 1, crs, 0), write("a_green.tif", 20, 1, crs, 0));

    Raster stack = new Stack(files, List.of("near_infrared", "other")).run(Job.QUIET);

    assertThat(stack.bands())
        .extracting(Band::role)
        .containsExactly(BandRole.NEAR_INFRARED, BandRole.OTHER);
  }

  @Test
  void whatCannotBeGuessedAndWhatIsTakenTwiceIsTold() {
    CrsName crs = CrsName.epsg(32630);
    List<String> warned = new ArrayList<>();
    Job job = new Job() {
      @Override
      public int threads() {
        return 1;
      }

      @Override
      public void warn(String message) {
        warned.add(message);
      }
    };

    new Stack(
            List.of(
                write("harbour.tif", 20, 1, crs, 0),
                write("a_red.tif", 20, 1, crs, 0),
                write("b_red.tif", 20, 1, crs, 0)),
            List.of())
        .run(job);

    assertThat(warned).hasSize(2);
    assertThat(warned.get(0)).contains("harbour.tif");
    assertThat(warned.get(1)).contains("red");
  }

  @Test
  void filesOfTwoSystemsOrOfTwoPlacesAreRefusedByName() {
    Path one = write("one_red.tif", 20, 1, CrsName.epsg(32630), 0);
    Path other = write("other_green.tif", 20, 1, CrsName.epsg(32631), 0);
    Path far = folder.resolve("far_blue.tif");
    GeoTiffWriter.write(
        Made.on(
            new Grid(20, 20, Affine.northUp(600_000, 6_702_000, 2), CrsName.epsg(32630)),
            SampleType.UINT16,
            (b, x, y) -> 1,
            BandRole.BLUE),
        far,
        Compression.NONE,
        Job.QUIET);

    assertThatThrownBy(() -> new Stack(List.of(one, other), List.of()).run(Job.QUIET))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("EPSG:32631");
    assertThatThrownBy(() -> new Stack(List.of(one, far), List.of()).run(Job.QUIET))
        .hasMessageContaining("far_blue.tif")
        .hasMessageContaining("overlap");
  }

  @Test
  void aRoleForEveryBandIsAskedForAndUnknownOnesAreNamed() {
    Path file = write("a_red.tif", 20, 1, CrsName.epsg(32630), 0);

    assertThatThrownBy(() -> new Stack(List.of(file), List.of("red", "blue")).run(Job.QUIET))
        .hasMessageContaining("2 roles for 1");
    assertThatThrownBy(() -> new Stack(List.of(file), List.of("scarlet")).run(Job.QUIET))
        .hasMessageContaining("scarlet");
  }
}
