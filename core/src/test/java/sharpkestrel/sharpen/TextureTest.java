package sharpkestrel.sharpen;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Jobs;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Statistics;
import sharpkestrel.sharpen.texture.Binning;
import sharpkestrel.sharpen.texture.Direction;
import sharpkestrel.sharpen.texture.Levels;
import sharpkestrel.sharpen.texture.WindowSize;

class TextureTest {

  private static Raster numbers(int most) {
    Random random = new Random(2);
    int[] values = random.ints(60 * 60, 0, most + 1).toArray();
    return Made.on(
        new Grid(60, 60, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630)),
        SampleType.UINT16,
        (b, x, y) -> 1 + values[y * 60 + x],
        BandRole.PAN);
  }

  private static Texture.Pairs pairs(int levels, Binning binning, List<Double> cuts) {
    return new Texture.Pairs(1, Direction.MEAN, levels, binning, cuts, 0);
  }

  private static Texture texture(Raster scene, String window, Texture.Pairs pairs) {
    return new Texture(
        new TextureSource(scene, Optional.empty()), List.of("contrast"), window, pairs);
  }

  @ParameterizedTest
  @CsvSource({"9, 9", "4.5 m, 9", "4.4m, 9", "5.1 m, 11", "3, 3"})
  void aWindowIsAnOddNumberOfPixelsOrTheMetresNearestToOne(String text, int pixels) {
    assertThat(WindowSize.parse(text, 0.5)).isEqualTo(pixels);
  }

  /** 20 m are 40 pixels of half a metre, and less than one of 30 m. */
  @Test
  void theUsualWindowIsTwentyMetresAsFarAsPixelsAllow() {
    assertThat(WindowSize.usual(0.5)).isBetween(39, 41);
    assertThat(WindowSize.usual(30)).isEqualTo(9);
    assertThat(WindowSize.usual(0.05)).isEqualTo(101);
  }

  @Test
  void anEvenWindowIsRefusedWithItsOddNeighbours() {
    Texture.Pairs pairs = pairs(32, Binning.EQUAL_WIDTH, List.of());

    assertThatThrownBy(() -> texture(numbers(500), "8", pairs).run(Job.QUIET))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("7 or 9");
  }

  @Test
  void aDistanceBeyondTheWindowIsRefused() {
    Texture.Pairs far = new Texture.Pairs(5, Direction.EAST, 32, Binning.EQUAL_WIDTH, List.of(), 0);

    assertThatThrownBy(() -> texture(numbers(500), "5", far).run(Job.QUIET))
        .hasMessageContaining("lie 5");
  }

  @Test
  void moreLevelsThanValuesAreToldAndMadeFewer() {
    List<String> warned = new ArrayList<>();
    Raster scene = numbers(9);

    Raster found =
        texture(scene, "5", pairs(64, Binning.EQUAL_WIDTH, List.of())).run(Jobs.warning(warned));

    assertThat(warned).singleElement().asString().contains("10 grey levels");
    assertThat(Made.samples(found)[0][30 * 60 + 30]).isPositive();
  }

  @Test
  void levelsOfEqualPopulationHoldAboutAsManyPixelsEach() {
    Raster scene =
        Made.placed(80, 80, 0.5, (b, x, y) -> Math.pow((x + y * 80) / 6400.0, 3), BandRole.PAN);
    Statistics statistics = Statistics.of(scene, 0, Job.QUIET)[0];

    Levels levels = Levels.ofPopulation(statistics, 8);

    int[] counts = new int[8];
    for (float v : Made.samples(scene)[0]) {
      int level = 0;
      while (level < levels.edges().length && v >= levels.edges()[level]) {
        level++;
      }
      counts[level]++;
    }
    for (int count : counts) {
      assertThat(count).isBetween(700, 900);
    }
  }

  @Test
  void cutsThatDoNotAscendAreRefused() {
    Texture.Pairs pairs = pairs(32, Binning.CUTS, List.of(100.0, 50.0));

    assertThatThrownBy(() -> texture(numbers(500), "5", pairs).run(Job.QUIET))
        .hasMessageContaining("ascend");
  }

  @Test
  void cutsAreAskedForWhereTheyAreToMakeTheLevels() {
    assertThatThrownBy(() -> pairs(32, Binning.CUTS, List.of()))
        .hasMessageContaining("needs the values");
  }

  @Test
  void anUnknownMeasureBringsThoseThereAre() {
    Texture unknown = new Texture(
        new TextureSource(numbers(500), Optional.empty()),
        List.of("roughness"),
        "5",
        pairs(32, Binning.EQUAL_WIDTH, List.of()));

    assertThatThrownBy(() -> unknown.run(Job.QUIET))
        .hasMessageContaining("roughness")
        .hasMessageContaining("homogeneity");
  }

  @Test
  void aBandWithoutDataIsRefusedAndOneOfOneValueHasNoContrast() {
    Texture.Pairs pairs = pairs(32, Binning.EQUAL_WIDTH, List.of());
    Raster nothing = Made.placed(30, 30, 0.5, (b, x, y) -> Double.NaN, BandRole.PAN);
    Raster flat = Made.placed(30, 30, 0.5, (b, x, y) -> 3, BandRole.PAN);

    assertThatThrownBy(() -> texture(nothing, "5", pairs).run(Job.QUIET))
        .hasMessageContaining("no data");
    assertThat(Made.samples(texture(flat, "5", pairs).run(Job.QUIET))[0]).containsOnly(0);
  }
}
