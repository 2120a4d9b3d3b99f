package sharpkestrel.demo.survey;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import java.util.zip.CRC32;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Point;
import sharpkestrel.demo.Scenario;
import sharpkestrel.demo.Survey;
import sharpkestrel.demo.SurveyMaker;
import sharpkestrel.geo.Rpc;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.Json;
import sharpkestrel.io.Layer;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.io.RpcText;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/** The files of a small survey with all of its truth. */
class SurveyTest {

  private static final Survey.Order ORDER =
      new Survey.Order(7, 320, Scenario.WHOLE, 3, Survey.Holds.TRUTH_RASTERS);

  @TempDir
  static Path folder;

  private static Survey survey;

  @BeforeAll
  static void make() {
    survey = SurveyMaker.make(folder.resolve("one"), ORDER, Job.QUIET);
  }

  private static float[] all(Raster raster) {
    return raster.read(0, raster.grid().window(), Request.BACKGROUND)[0];
  }

  @Test
  void eachSceneComesInSixPartsWithAnItemThatHasItsFootprint() throws IOException {
    for (String scene : new String[] {"scene-one", "scene-two"}) {
      JsonNode item = Json.read(survey.item(scene));
      assertThat(item.path("assets")).hasSize(12);
      assertThat(item.path("geometry").path("coordinates").path(0)).hasSize(5);
      for (JsonNode asset : item.path("assets")) {
        Path file = survey.item(scene).getParent().resolve(asset.path("href").asText());
        assertThat(Files.size(file)).isPositive();
      }
      double west = item.path("bbox").path(0).asDouble();
      assertThat(west).isBetween(-3.5, -2.0);
    }
    assertThat(Json.read(survey.item("scene-one"))
            .path("properties")
            .path("datetime")
            .asText())
        .isNotEqualTo(Json.read(survey.item("scene-two"))
            .path("properties")
            .path("datetime")
            .asText());
  }

  @Test
  void theSameOrderMakesTheSamePixelsWhateverTheThreads() throws IOException {
    Survey again = SurveyMaker.make(folder.resolve("two"), ORDER, Job.of(1, 256));

    assertThat(sums(again)).isEqualTo(sums(survey));
  }

  private static Map<String, Long> sums(Survey survey) throws IOException {
    Map<String, Long> sums = new TreeMap<>();
    try (Stream<Path> files = Files.walk(survey.folder())) {
      for (Path file : files.filter(Files::isRegularFile).toList()) {
        String name = survey.folder().relativize(file).toString();
        if (name.endsWith(".tif") || name.endsWith(".json") || name.endsWith(".TXT")) {
          CRC32 sum = new CRC32();
          sum.update(Files.readAllBytes(file));
          sums.put(name, sum.getValue());
        }
      }
    }
    assertThat(sums).hasSizeGreaterThan(40);
    return sums;
  }

  /** What is there already is left as it is; what is asked for beyond it is added. */
  @Test
  void aSurveyIsMadeInPartsAsTheyAreWanted() throws IOException {
    Path parent = folder.resolve("parts");
    Survey first = SurveyMaker.make(parent, new Survey.Order(5, 256), Job.QUIET);
    assertThat(first.has(Survey.Holds.FIRST_SCENE)).isTrue();
    assertThat(first.has(Survey.Holds.ALL_FILES)).isFalse();
    assertThat(first.item("scene-two")).doesNotExist();
    Path part = first.item().getParent().resolve("pan-R1C1.tif");
    var written = Files.getLastModifiedTime(part);

    Survey whole = SurveyMaker.make(
        parent, new Survey.Order(5, 256, Scenario.WHOLE, 0, Survey.Holds.ALL_FILES), Job.QUIET);

    assertThat(whole).isEqualTo(first);
    assertThat(Files.getLastModifiedTime(part)).isEqualTo(written);
    assertThat(whole.item("scene-two")).exists();
    assertThat(whole.photo()).exists();
    assertThat(whole.has(Survey.Holds.TRUTH_RASTERS)).isFalse();
    assertThat(SurveyMaker.find(parent, new Survey.Order(5, 256))).contains(whole);
    assertThat(SurveyMaker.find(parent, new Survey.Order(5, 512))).isEmpty();
  }

  @Test
  void footprintsTellHowHighAndForWhatBuildingsAre() {
    Layer plans = GeoPackage.read(survey.truth("scene-one", "footprints.gpkg"), "");
    Layer roofs = GeoPackage.read(survey.truth("scene-one", "roofs-true-ortho.gpkg"), "");

    assertThat(plans.size()).isEqualTo(roofs.size());
    for (int i = 0; i < plans.size(); i++) {
      // walls stand upright and roofs do not overhang: from above, a roof is its plan
      assertThat(
              plans.geometries().get(i).symDifference(roofs.geometries().get(i)).getArea())
          .isLessThan(0.05);
      assertThat(plans.table().values("height")[i]).isBetween(3.0, 45.0);
      assertThat(plans.table().column("use").text(i)).isNotEmpty();
    }
  }

  /** The RPC is off by three pixels in a direction the truth tells. */
  @Test
  void aBiasThatWasAskedForIsInTheRpcAndInTheTruth() {
    Rpc rpc = RpcText.read(survey.item().getParent().resolve("pan_RPC.TXT"));
    JsonNode told = Json.read(survey.truth("scene-one", "scene.json")).path("rpc_bias_pixels");
    double[] bias = {told.path(0).asDouble(), told.path(1).asDouble()};
    assertThat(Math.hypot(bias[0], bias[1])).isCloseTo(3, within(1e-9));
    var toDegrees = sharpkestrel.geo.Crs.of(CrsName.epsg(32630))
        .to(sharpkestrel.geo.Crs.of(sharpkestrel.geo.Crs.WGS84));
    double[] image = new double[2];
    for (JsonNode mark : Json.read(survey.checkPoints()).path("marks")) {
      double[] point = {mark.path("east").asDouble(), mark.path("north").asDouble()};
      toDegrees.apply(point, 1);
      rpc.toImage(point[0], point[1], mark.path("ellipsoidal_height").asDouble(), image);
      assertThat(image[0] - mark.path("column").asDouble()).isCloseTo(bias[0], within(0.12));
      assertThat(image[1] - mark.path("row").asDouble()).isCloseTo(bias[1], within(0.12));
    }
  }

  @Test
  void theAirPhotoSaysNothingAboutWhereItIs() {
    Raster photo = RasterFiles.open(survey.photo());

    assertThat(photo.grid().crs()).isEqualTo(CrsName.NONE);
    assertThat(photo.bands()).hasSize(1);
    float[] tones = all(photo);
    double mean = 0;
    int bright = 0;
    for (float v : tones) {
      assertThat(v).isBetween(0f, 255f);
      mean += v / tones.length;
      bright += v > 240 ? 1 : 0;
    }
    assertThat(mean).isBetween(40.0, 200.0);
    assertThat(bright).as("dust and bright things").isPositive();
  }

  @Test
  void theSurfaceStandsOnTheTerrainAndTheCoarseModelIsMetresOff() {
    Raster terrain = RasterFiles.open(survey.heights());
    Raster surface = RasterFiles.open(survey.surface());
    Raster coarse = RasterFiles.open(survey.coarseHeights());
    assertThat(surface.grid()).isEqualTo(terrain.grid());
    assertThat(coarse.grid().pixelSize()).isCloseTo(30, within(1e-9));
    float[] low = all(terrain);
    float[] high = all(surface);
    double tallest = 0;
    int raised = 0;
    for (int i = 0; i < low.length; i++) {
      assertThat(high[i]).isGreaterThan(low[i] - 0.6f);
      tallest = Math.max(tallest, high[i] - low[i]);
      raised += high[i] > low[i] + 2 ? 1 : 0;
    }
    assertThat(tallest).isGreaterThan(6);
    assertThat((double) raised / low.length).isBetween(0.02, 0.6);
    double squares = 0;
    int count = 0;
    var toFine = terrain.grid().affine().inverse();
    float[] rough = all(coarse);
    for (int i = 0; i < rough.length; i++) {
      double e = coarse
          .grid()
          .affine()
          .x(i % coarse.grid().width() + 0.5, i / coarse.grid().width() + 0.5);
      double n = coarse
          .grid()
          .affine()
          .y(i % coarse.grid().width() + 0.5, i / coarse.grid().width() + 0.5);
      int col = (int) toFine.x(e, n);
      int row = (int) toFine.y(e, n);
      if (col >= 0
          && row >= 0
          && col < terrain.grid().width()
          && row < terrain.grid().height()) {
        squares += Math.pow(rough[i] - low[row * terrain.grid().width() + col], 2);
        count++;
      }
    }
    assertThat(Math.sqrt(squares / count)).isBetween(0.5, 12.0);
  }

  @Test
  void theCoverMapShowsRoofsWhereTheOrthoShowsThem() {
    Raster cover = RasterFiles.open(survey.truth("scene-one", "cover.tif"));
    Layer roofs = GeoPackage.read(survey.roofsInOrtho(), "");
    var toPixel = cover.grid().affine().inverse();
    int right = 0;
    int seen = 0;
    for (Geometry roof : roofs.geometries()) {
      Point inside = roof.getInteriorPoint();
      int col = (int) toPixel.x(inside.getX(), inside.getY());
      int row = (int) toPixel.y(inside.getX(), inside.getY());
      if (!cover.grid().window().contains(new Window(col, row, 1, 1))) {
        continue;
      }
      float number = cover.read(0, new Window(col, row, 1, 1), Request.BACKGROUND)[0][0];
      seen++;
      right += number >= 20 && number < 30 ? 1 : 0;
    }
    assertThat(seen).isGreaterThan(15);
    assertThat((double) right / seen).isGreaterThan(0.85);
    assertThat(Json.read(survey.folder().resolve("truth/cover-legend.json"))
            .path("21")
            .asText())
        .isEqualTo("slate roof");
  }

  @Test
  void theRadiometryWithoutNoiseIsTheOrthoWithoutItsBlur() {
    Raster ideal = RasterFiles.open(survey.truth("scene-one", "radiometry.tif"));
    assertThat(ideal.bands()).hasSize(7);
    assertThat(ideal.grid().pixelSize()).isCloseTo(0.5, within(1e-9));
    Raster cover = RasterFiles.open(survey.truth("scene-one", "cover.tif"));
    assertThat(cover.grid()).isEqualTo(ideal.grid());
    float[][] planes = ideal.read(0, ideal.grid().window(), Request.BACKGROUND);
    float[] kinds = all(cover);
    double[] sea = new double[7];
    double[] land = new double[7];
    int wet = 0;
    int dry = 0;
    for (int i = 0; i < kinds.length; i++) {
      boolean water = kinds[i] == 1;
      boolean grass = kinds[i] == 5;
      wet += water ? 1 : 0;
      dry += grass ? 1 : 0;
      for (int b = 0; b < 7; b++) {
        sea[b] += water ? planes[b][i] : 0;
        land[b] += grass ? planes[b][i] : 0;
      }
    }
    assertThat(wet).isPositive();
    assertThat(dry).isPositive();
    // near infrared tells grass from water more than anything
    assertThat(land[6] / dry).isGreaterThan(3 * sea[6] / wet);
  }

  @Test
  void theRegisterIsMetresOffAndPartlyOutOfDate() {
    Layer register = GeoPackage.read(survey.register(), "");
    Layer truth = GeoPackage.read(survey.truth("scene-one", "roofs-true-ortho.gpkg"), "");
    double[] numbers = register.table().values("register");
    double[] ids = truth.table().values("building");
    double sum = 0;
    int found = 0;
    int far = 0;
    for (int i = 0; i < ids.length; i++) {
      for (int k = 0; k < numbers.length; k++) {
        if (numbers[k] == 10_000 + ids[i]) {
          double off = register
              .geometries()
              .get(k)
              .getCentroid()
              .distance(truth.geometries().get(i).getCentroid());
          found++;
          far += off > 15 ? 1 : 0;
          sum += off > 15 ? 0 : off;
        }
      }
    }
    assertThat(found).isBetween(ids.length * 3 / 4, ids.length);
    assertThat(sum / (found - far)).isBetween(0.8, 5.0);
    assertThat(GeoPackage.read(survey.parishes(), "").size()).isPositive();
  }

  @Test
  void theQuestionsHaveTheirTrueAnswers() {
    JsonNode answers = Json.read(survey.truth("scene-one", "answers.json"));
    Layer roofs = GeoPackage.read(survey.roofsInRaw(), "");
    int slate = 0;
    for (int i = 0; i < roofs.size(); i++) {
      if (roofs.table().column("material").text(i).equals("slate")
          && roofs.table().values("whole")[i] == 1) {
        slate++;
      }
    }

    assertThat(slate).isPositive();
    assertThat(answers.path("roofs_by_material").path("slate").path("count").asInt())
        .isEqualTo(slate);
    assertThat(answers.path("tallest_building_by_parish")).isNotEmpty();
    assertThat(answers.path("vessels_by_place")).isNotEmpty();
  }
}
