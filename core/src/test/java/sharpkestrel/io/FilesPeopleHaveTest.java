package sharpkestrel.io;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.geo.ControlPoints;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Remarks;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;

/** Files of other writers in the many forms that people have; their pixels follow formulas. */
class FilesPeopleHaveTest {

  private static final Path FOLDER = Path.of("src/test/resources/kinds");
  private static final int WIDTH = 150;
  private static final int HEIGHT = 90;

  @TempDir
  Path folder;

  private static Raster open(String name) {
    return RasterFiles.open(FOLDER.resolve(name));
  }

  private static int formula(int band, int x, int y, int modulo) {
    return (x * 31 + y * 7 + band * 13) % modulo;
  }

  private interface Expected {
    double at(int band, int x, int y);
  }

  private static void assertPixels(Raster raster, Expected expected) {
    float[][] planes = Made.samples(raster);
    int width = raster.grid().width();
    for (int b = 0; b < planes.length; b++) {
      for (int i = 0; i < planes[b].length; i++) {
        float wanted = (float) expected.at(b, i % width, i / width);
        assertThat(planes[b][i])
            .as("band %d, column %d, row %d", b, i % width, i / width)
            .isEqualTo(Float.valueOf(wanted));
      }
    }
  }

  @ParameterizedTest
  @CsvSource({
    "bits1.tif, 1, 2, 1, 0, UINT8",
    "bits2.tif, 1, 4, 1, 0, UINT8",
    "bits4.tif, 3, 16, 1, 0, UINT8",
    "bits12.tif, 3, 4096, 1, 0, UINT16",
    "float16.tif, 1, 512, 4, 0, FLOAT32",
    "float64.tif, 2, 4096, 8, 0, FLOAT32",
    "float64-big.tif, 2, 4096, 8, 0, FLOAT32",
    "int32.tif, 1, 4096, 1, -2000, INT32",
    "int8.tif, 1, 100, 1, 0, INT16",
    "lzma.tif, 2, 4096, 1, 0, UINT16",
    "webp.tif, 3, 250, 1, 0, UINT8",
    "strips-100.tif, 1, 4096, 1, 0, UINT16",
    "palette.tif, 1, 5, 1, 0, UINT8",
    "picture.png, 3, 250, 1, 0, UINT8",
    "picture.jp2, 3, 250, 1, 0, UINT8",
    "deep.jp2, 1, 4096, 1, 0, UINT16"
  })
  void everySampleIsReadAsItWasWritten(
      String name, int bands, int modulo, double share, double add, SampleType type) {
    Raster raster = open(name);

    assertThat(raster.bands()).hasSize(bands);
    assertThat(raster.bands().getFirst().type()).isEqualTo(type);
    assertThat(raster.grid().width()).isEqualTo(WIDTH);
    assertThat(raster.grid().height()).isEqualTo(HEIGHT);
    assertPixels(raster, (b, x, y) -> formula(b, x, y, modulo) / share + add);
  }

  @Test
  void runsOfBytesAreUnpacked() {
    assertPixels(open("packbits.tif"), (b, x, y) -> formula(b, x, y, 200) / 9);
  }

  /** Against the other software's own decoding; two readers of one JPEG stream may differ by a rounding. */
  @ParameterizedTest
  @ValueSource(strings = {"jpeg-ycc", "jpeg-rgb", "jpeg-grey"})
  void jpegInsideOfTiffIsReadLikeOtherSoftwareReadsIt(String name) throws IOException {
    byte[] theirs = Files.readAllBytes(FOLDER.resolve(name + ".raw"));

    float[][] ours = Made.samples(open(name + ".tif"));

    for (int b = 0; b < ours.length; b++) {
      for (int i = 0; i < ours[b].length; i++) {
        assertThat((double) ours[b][i])
            .isCloseTo(theirs[b * ours[b].length + i] & 0xff, within(2.0));
      }
    }
  }

  @Test
  void numbersAboveWhatFloatsHoldAreExactAsWholeNumbers() {
    int[] exact = new int[WIDTH * HEIGHT];

    Raster raster = open("large-numbers.tif");
    raster.wholeNumbers().orElseThrow().read(raster.grid().window(), exact);

    for (int i = 0; i < exact.length; i++) {
      assertThat(exact[i]).isEqualTo(16_777_217 + formula(0, i % WIDTH, i / WIDTH, 4096));
    }
  }

  @Test
  void aTableOfColoursIsClassesOrColoursAsAsked() {
    Raster colours = RasterFiles.open(
        FOLDER.resolve("palette.tif"), 1, Optional.of(RasterFiles.Palette.COLOURS));

    assertThat(Remarks.of(open("palette.tif").attachments()))
        .anyMatch(remark -> remark.contains("table of colours"));
    assertPixels(colours, (b, x, y) -> {
      int entry = formula(0, x, y, 5);
      return b == 0 ? 40 * entry : b == 1 ? 255 - 40 * entry : 7 * entry;
    });
  }

  @ParameterizedTest
  @ValueSource(strings = {"mask-inside.tif", "mask-beside.tif"})
  void whatAMaskHidesIsWithoutDataAtEveryLevel(String name) {
    Raster raster = open(name);

    for (int level = 0; level < 2; level++) {
      int border = 200 >> level;
      float[][] planes =
          raster.read(level, raster.grid().atLevel(level).window(), Request.BACKGROUND);
      int width = raster.grid().atLevel(level).width();
      for (float[] plane : planes) {
        for (int i = 0; i < plane.length; i++) {
          assertThat(Float.isNaN(plane[i])).isEqualTo(i % width < border);
          assertThat(plane[i]).isNotEqualTo(9999);
        }
      }
    }
  }

  @ParameterizedTest
  @CsvSource({"alpha.tif, 3, 200", "alpha-planes.tif, 1, 4000"})
  void opacityIsNoBandButHidesWhatIsClear(String name, int bands, int modulo) {
    Raster raster = open(name);

    assertThat(raster.bands()).hasSize(bands);
    assertPixels(raster, (b, x, y) -> x < 40 ? Double.NaN : formula(b, x, y, modulo));
  }

  @Test
  void scaleAndOffsetAreAppliedAfterNoDataIsHidden() {
    Raster raster = open("scaled.tif");

    assertThat(raster.bands().get(0).role()).isEqualTo(BandRole.BLUE);
    assertThat(raster.bands().get(1).role()).isEqualTo(BandRole.RED);
    assertThat(raster.bands().get(0).type()).isEqualTo(SampleType.FLOAT32);
    float[][] planes = Made.samples(raster);
    for (int b = 0; b < 2; b++) {
      for (int i = 0; i < planes[b].length; i++) {
        int stored = formula(b, i % WIDTH, i / WIDTH, 1000) - 100;
        if (stored == -100) {
          assertThat(planes[b][i]).isNaN();
        } else {
          assertThat(planes[b][i]).isCloseTo(stored * 0.01f * (b + 1) + 5, within(1e-4f));
        }
      }
    }
  }

  @Test
  void aWorldFileBesideATiffPlacesIt() {
    Raster raster = open("plain.tif");

    assertThat(raster.grid().affine().a()).isEqualTo(2);
    assertThat(raster.grid().affine().c()).isEqualTo(1000);
    assertThat(raster.grid().affine().f()).isEqualTo(5000);
  }

  @Test
  void whatAnAuxiliaryFileTellsCounts() {
    Raster raster = open("told.tif");

    assertThat(raster.grid().crs().text()).isEqualTo("EPSG:32630");
    assertThat(raster.grid().affine().c()).isEqualTo(512_000);
    assertThat(raster.bands())
        .extracting(Band::role)
        .containsExactly(BandRole.NEAR_INFRARED, BandRole.RED);
    assertThat(raster.bands().get(0).unit()).isEqualTo("counts");
    assertPixels(raster, (b, x, y) -> {
      int stored = formula(b, x, y, 1000);
      return b == 1 ? stored * 0.5 + 1 : stored == 7 ? Double.NaN : stored;
    });
  }

  @Test
  void theLargestNumberThatMeansNoneAndInfiniteOnesAreNoData() {
    Raster raster = open("extremes.tif");

    assertPixels(
        raster, (b, x, y) -> x < 10 || x == 20 && y == 5 ? Double.NaN : formula(0, x, y, 100));
  }

  @Test
  void aFileOfControlPointsHasNoPlaceButKnowsThem() {
    Raster raster = open("control-points.tif");

    assertThat(raster.grid().crs().isKnown()).isFalse();
    ControlPoints points = raster.attachments().get(ControlPoints.class).orElseThrow();
    assertThat(points.crs().text()).isEqualTo("EPSG:32630");
    assertThat(points.points()).hasSize(5);
    assertThat(points.points().get(3))
        .isEqualTo(new ControlPoints.Point(150, 90, 512_075, 6_701_955, 12));
  }

  @Test
  void anyImageOfAFileIsOpenedByItsNumber() {
    Raster second = RasterFiles.open(FOLDER.resolve("several.tif"), 2, Optional.empty());

    assertPixels(open("several.tif"), (b, x, y) -> formula(b, x, y, 4096));
    assertThat(second.bands()).hasSize(2);
    assertPixels(second, (b, x, y) -> formula(b, x, y, 4096));
    assertThatThrownBy(() -> RasterFiles.open(FOLDER.resolve("several.tif"), 3, Optional.empty()))
        .hasMessageContaining("2 image(s)")
        .hasMessageContaining("from 1 to 2");
  }

  @Test
  void reducedCopiesBesideAFileAreUsed() {
    Raster raster = open("reduced-beside.tif");

    float[] level = raster.read(1, raster.grid().atLevel(1).window(), Request.BACKGROUND)[0];

    assertThat(level[17]).isEqualTo(5017);
  }

  @Test
  void picturesLieWhereTheirOwnBoxesOrTheFileBesideThemSay() {
    for (String name : new String[] {"picture.png", "picture.jp2"}) {
      Raster raster = open(name);
      assertThat(raster.grid().crs().text()).as(name).isEqualTo("EPSG:32630");
      assertThat(raster.grid().affine().c()).as(name).isEqualTo(512_000);
      assertThat(raster.grid().affine().f()).as(name).isEqualTo(6_702_000);
    }
  }

  @Test
  void aVirtualRasterLaysItsFilesSideBySide() {
    Raster raster = open("both.vrt");

    assertThat(raster.grid().width()).isEqualTo(2 * WIDTH);
    assertThat(raster.grid().crs().text()).isEqualTo("EPSG:32630");
    assertPixels(raster, (b, x, y) -> formula(b, x % WIDTH, y, 4096));
  }

  @Test
  void aVirtualRasterThatNamesItselfOrResamplesIsRefused() throws IOException {
    Path own = folder.resolve("own.vrt");
    String band = "<VRTDataset rasterXSize='9' rasterYSize='9'><VRTRasterBand dataType='Byte'>"
        + "<SimpleSource><SourceFilename relativeToVRT='1'>%s</SourceFilename><SourceBand>1</SourceBand>"
        + "%s</SimpleSource></VRTRasterBand></VRTDataset>";
    Files.writeString(own, band.formatted("own.vrt", ""));
    Path half = folder.resolve("half.vrt");
    Files.writeString(
        half,
        band.formatted(
            FOLDER.resolve("palette.tif").toAbsolutePath(),
            "<SrcRect xOff='0' yOff='0' xSize='18' ySize='18'/><DstRect xOff='0' yOff='0' xSize='9' ySize='9'/>"));

    Path less = folder.resolve("less.vrt");
    Files.writeString(
        less,
        band.formatted(
            FOLDER.resolve("palette.tif").toAbsolutePath(),
            "<SrcRect xOff='0' yOff='0' xSize='-1' ySize='9'/><DstRect xOff='0' yOff='0' xSize='-1' ySize='9'/>"));

    assertThatThrownBy(() -> RasterFiles.open(less))
        .isInstanceOf(FileFormatException.class)
        .hasMessageContaining("less.vrt")
        .hasMessageContaining("a piece of it is -1 x 9 pixels");
    assertThatThrownBy(() -> RasterFiles.open(own))
        .isInstanceOf(FileFormatException.class)
        .hasMessageContaining("name itself");
    assertThatThrownBy(() -> RasterFiles.open(half))
        .isInstanceOf(FileFormatException.class)
        .hasMessageContaining("resampled");
  }

  @Test
  void rolesAreGuessedByOrderAndMarkedAsGuesses() {
    Raster raster = open("packbits.tif");

    // the writer marks three bytes a pixel as red, green and blue; 12 bits it leaves open
    assertThat(open("bits12.tif").bands())
        .extracting(Band::role)
        .containsExactly(BandRole.RED, BandRole.GREEN, BandRole.BLUE);
    assertThat(open("bits12.tif").bands()).allMatch(Band::roleGuessed);
    assertThat(raster.bands()).noneMatch(Band::roleGuessed);
  }
}
