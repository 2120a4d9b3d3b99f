package sharpkestrel.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import sharpkestrel.demo.light.Season;
import sharpkestrel.demo.region.Region;
import sharpkestrel.demo.sensor.Instrument;
import sharpkestrel.demo.truth.LandCover;
import sharpkestrel.gather.Assemble;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.io.Json;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/** Surveys of other regions, seasons, instruments and skies, as files. */
class OtherSurveysTest {

  @TempDir
  Path folder;

  private Survey make(
      Region region, Instrument instrument, Season season, Survey.Holds holds, int size) {
    Scheme scheme = new Scheme(region, season, instrument, Sky.CLEAR);
    return SurveyMaker.make(
        folder, new Survey.Order(2, size, Scenario.WHOLE, 0, holds, scheme), Job.QUIET);
  }

  /** What was made before there were other regions is made as it was, to the byte. */
  @Test
  void theArchipelagoIsWhatItWas() throws Exception {
    Survey survey = SurveyMaker.make(folder, new Survey.Order(3, 256), Job.QUIET);
    MessageDigest digest = MessageDigest.getInstance("SHA-256");
    try (Stream<Path> files = Files.list(survey.item().getParent())) {
      for (Path file : files.filter(f -> f.toString().endsWith(".tif")).sorted().toList()) {
        digest.update(Files.readAllBytes(file));
      }
    }

    assertThat(HexFormat.of().formatHex(digest.digest()))
        .isEqualTo("413e93f44d34708cf3119206a33327b5ac5016214addee9f9310d8f67b2f5c89");
  }

  @ParameterizedTest
  @EnumSource(
      value = Instrument.class,
      names = {"EIGHT_BANDS", "FOUR_BANDS", "METRE", "COLOUR"})
  void whatIsDeliveredFromOrbitCanBeAssembled(Instrument instrument) {
    Survey survey = make(Region.PLATEAU, instrument, Season.LEAF_ON, Survey.Holds.FIRST_SCENE, 256);

    List<String> images = Assemble.imagesIn(survey.item());
    Raster bands = new Assemble(survey.item(), "ms").run(Job.QUIET);

    assertThat(images.contains("pan")).isEqualTo(instrument.pan().isPresent());
    assertThat(bands.bands()).hasSameSizeAs(instrument.bands());
    assertThat(bands.bands().getFirst().type()).isEqualTo(instrument.type());
    assertThat(bands.grid().width()).isEqualTo(256 / instrument.ratio());
    Acquisition acquisition = bands.attachments().get(Acquisition.class).orElseThrow();
    assertThat(acquisition.reflectance(BandRole.RED).isPresent()).isEqualTo(instrument.hasGains());
    float[] red = bands.read(0, bands.grid().window(), Request.BACKGROUND)[0];
    for (float number : red) {
      assertThat(number).isBetween(1f, (float) instrument.answer().full());
    }
  }

  /** Surveyed marks are white discs on the ground: an ortho shows them where they are. */
  @ParameterizedTest
  @EnumSource(
      value = Instrument.class,
      names = {"AIR_COLOUR", "AIR_FOUR"})
  void whatAnAircraftTookLiesWhereItShould(Instrument instrument) {
    Survey survey =
        make(Region.FARMLAND, instrument, Season.LEAF_ON, Survey.Holds.FIRST_SCENE, 768);
    Raster ortho = RasterFiles.open(survey.ortho("scene-one"));

    assertThat(ortho.grid().crs()).isEqualTo(Region.FARMLAND.site().crs());
    assertThat(ortho.grid().pixelSize()).isEqualTo(instrument.gsd());
    assertThat(ortho.bands()).hasSameSizeAs(instrument.bands());
    List<Double> off = new ArrayList<>();
    for (var mark : Json.read(survey.checkPoints()).path("marks")) {
      double e = mark.path("east").asDouble();
      double n = mark.path("north").asDouble();
      int col = (int) Math.floor(ortho.grid().affine().inverse().x(e, n));
      int row = (int) Math.floor(ortho.grid().affine().inverse().y(e, n));
      if (col > 20
          && row > 20
          && col < ortho.grid().width() - 20
          && row < ortho.grid().height() - 20) {
        float[] green =
            ortho.read(0, new Window(col - 20, row - 20, 41, 41), Request.BACKGROUND)[1];
        double[] middle = bright(green);
        off.add(Math.hypot(middle[0] - 20, middle[1] - 20));
      }
    }
    // something else that is bright lies beside one or the other
    assertThat(off).hasSizeGreaterThan(3);
    assertThat(off.stream().sorted().toList().get(off.size() / 2)).isLessThan(1);
  }

  /** Middle of what is brighter than nine tenths of the brightest. */
  private static double[] bright(float[] plane) {
    float most = 0;
    for (int y = 14; y < 27; y++) {
      for (int x = 14; x < 27; x++) {
        most = Math.max(most, plane[y * 41 + x]);
      }
    }
    double[] middle = new double[2];
    int count = 0;
    for (int y = 12; y < 29; y++) {
      for (int x = 12; x < 29; x++) {
        if (plane[y * 41 + x] > 0.8 * most) {
          middle[0] += x;
          middle[1] += y;
          count++;
        }
      }
    }
    return new double[] {middle[0] / count, middle[1] / count};
  }

  @Test
  void nineClassesAndShadowsAreToldForEveryRegion() {
    Survey survey =
        make(Region.SUBURB, Instrument.SIX_BANDS, Season.DRY, Survey.Holds.TRUTH_RASTERS, 384);
    Raster truth = RasterFiles.open(survey.truth("scene-one", "land-cover.tif"));
    float[][] planes = truth.read(0, truth.grid().window(), Request.BACKGROUND);

    double[] shares = new double[LandCover.values().length + 1];
    double shadow = 0;
    for (int i = 0; i < planes[0].length; i++) {
      shares[Float.isNaN(planes[0][i]) ? 0 : (int) planes[0][i]] += 1.0 / planes[0].length;
      shadow += planes[1][i] > 50 ? 1.0 / planes[0].length : 0;
    }
    assertThat(shares[LandCover.BUILDING.ordinal() + 1]).isBetween(0.05, 0.5);
    assertThat(shares[LandCover.SEALED.ordinal() + 1]).isBetween(0.05, 0.6);
    assertThat(shares[LandCover.GRASS.ordinal() + 1]).isBetween(0.05, 0.7);
    assertThat(shadow).isBetween(0.01, 0.4);
    assertThat(Json.read(survey.folder().resolve("truth/land-cover-legend.json"))
            .path("8")
            .asText())
        .isEqualTo("building");
  }

  @Test
  void surveysAreNamedByWordsInAnyOrder() {
    Survey.Order order = new Survey.Order(
        7,
        512,
        Scenario.WHOLE,
        0,
        Survey.Holds.FIRST_SCENE,
        new Scheme(Region.OLD_TOWN, Season.WET, Instrument.METRE, Sky.HAZY));

    assertThat(DemoData.text(order)).isEqualTo("demo:7:512:whole:old-town:wet:metre:hazy");
    assertThat(Survey.in(folder, order).folder().getFileName())
        .hasToString("corvane-7-512-wet-metre-hazy-v1");
    assertThat(DemoData.isForTuning(Survey.in(folder, order).folder().toString()))
        .isTrue();
    assertThat(DemoData.isForTuning("x/ansakar-101-512-v1")).isFalse();
    OrderWords words = new OrderWords();
    List.of("hazy", "metre", "old-town", "wet").forEach(words::take);
    assertThat(words.order(7, 512)).isEqualTo(order);
    assertThatThrownBy(() -> new OrderWords().take("village"))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("'village' is no word for a demo survey")
        .hasMessageContaining("plateau");
  }
}
