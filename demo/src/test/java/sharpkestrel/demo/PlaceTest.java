package sharpkestrel.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sharpkestrel.demo.sensor.Sensor;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.FrameCamera;
import sharpkestrel.geo.InSystem;
import sharpkestrel.geo.Placement;
import sharpkestrel.geo.Rpc;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.place.Bases;
import sharpkestrel.place.fit.Fit;
import sharpkestrel.place.fit.Fitter;
import sharpkestrel.place.fit.ModelKind;
import sharpkestrel.place.fit.TiePoint;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;

/** Scenes of a survey placed on each other, against the sensors that took them. */
class PlaceTest {

  private static final int SIZE = 1024;
  private static final double BIAS = 3;

  @TempDir
  static Path folder;

  private static World world;
  private static Survey survey;
  private static Raster ortho;
  private static Raster two;
  private static TiePoints ofTwo;

  @BeforeAll
  static void survey() {
    Survey.Order order = new Survey.Order(2, SIZE, Scenario.WHOLE, BIAS, Survey.Holds.ALL_FILES);
    survey = SurveyMaker.make(folder, order, Job.QUIET);
    world = new World(2, SIZE, Scenario.WHOLE);
    Raster one = assembled("scene-one");
    // the reference is exact: placed by its true RPC
    Raster exact =
        (Raster) run("refine", Map.of("scene", one, "points", truePoints(one)), Map.of());
    Raster lazy = (Raster)
        run("ortho", with("scene", exact), Map.of("undulation", "47", "pixel-size", "0.5"));
    Path file = folder.resolve("ortho.tif");
    GeoTiffWriter.write(lazy, file, Compression.NONE, Job.QUIET);
    ortho = RasterFiles.open(file);
    two = assembled("scene-two");
    ofTwo = found(two);
  }

  private static Raster assembled(String scene) {
    return (Raster) run(
        "assemble", Map.of(), Map.of("delivery", survey.item(scene).toString(), "image", "pan"));
  }

  private static Object run(String step, Map<String, Object> inputs, Map<String, String> settings) {
    return StepCatalogue.get(step).make(inputs, settings).run(Job.QUIET);
  }

  private static Map<String, Object> with(String name, Object value) {
    Map<String, Object> inputs = new HashMap<>();
    inputs.put("heights", RasterFiles.open(survey.heights()));
    inputs.put(name, value);
    return inputs;
  }

  private static TiePoints found(Raster scene) {
    Map<String, Object> inputs = with("scene", scene);
    inputs.put("reference", ortho);
    return (TiePoints) run("tiepoints", inputs, Map.of("undulation", "47", "check", "0.2"));
  }

  /** A handful of points of the ground where the sensor of scene one truly saw them. */
  private static TiePoints truePoints(Raster one) {
    var points = new java.util.ArrayList<TiePoint>();
    double[] ray = new double[4];
    double[] image = new double[2];
    for (int k = 0; k < 9; k++) {
      world.one().sensor().ray(SIZE * (0.1 + 0.4 * (k % 3)), SIZE * (0.1 + 0.4 * (k / 3)), ray);
      double h = 60 + World.UNDULATION;
      double e = ray[0] + h * ray[2];
      double n = ray[1] + h * ray[3];
      world.one().sensor().toImage(e, n, h, image);
      points.add(new TiePoint(k, image[0], image[1], e, n, h, TiePoint.Use.CONTROL, Double.NaN));
    }
    return new TiePoints(World.CRS, one.grid().width(), one.grid().height(), points);
  }

  private static double rms(TiePoints points, Sensor truth, double[] worst) {
    double squares = 0;
    double[] image = new double[2];
    for (TiePoint point : points.points()) {
      truth.toImage(point.x(), point.y(), point.height(), image);
      double off = Math.hypot(image[0] - point.col(), image[1] - point.row());
      squares += off * off / points.points().size();
      worst[0] = Math.max(worst[0], off);
    }
    return Math.sqrt(squares);
  }

  @Test
  void pointsOfTheSecondSceneAreWhereItsSensorSawThem() {
    double[] worst = new double[1];
    double rms = rms(ofTwo, world.two().sensor(), worst);

    // both see 200 m by 500 m of it, most of that roofs, which are no ground
    assertThat(ofTwo.points()).hasSizeGreaterThanOrEqualTo(6);
    assertThat(rms).isLessThan(0.35);
    assertThat(worst[0]).as("no gross error").isLessThan(1.5);
    assertThat(ofTwo.of(TiePoint.Use.CHECK)).hasSize(ofTwo.points().size() / 5);
  }

  @Test
  void aBiasedRpcIsMendedToAFractionOfAPixel() {
    Raster mended = (Raster)
        run("refine", Map.of("scene", two, "points", ofTwo), Map.of("correction", "shift"));

    assertThat(error(two)).isCloseTo(BIAS, within(0.2));
    assertThat(error(mended)).isLessThan(0.15);
    Placement placement = mended.attachments().get(Placement.class).orElseThrow();
    assertThat(placement.check()).isLessThan(0.4);
    assertThat(placement.points()).isEqualTo(ofTwo.of(TiePoint.Use.CONTROL).size());
  }

  @Test
  void anAffineCorrectionIsFoldedIntoTheRpc() {
    Raster mended = (Raster)
        run("refine", Map.of("scene", two, "points", ofTwo), Map.of("correction", "affine"));

    assertThat(error(mended)).isLessThan(0.3);
  }

  /** RMS between an RPC of scene two and its sensor, over the scene and 300 m of height. */
  private static double error(Raster scene) {
    var model = InSystem.of(scene.attachments().get(Rpc.class).orElseThrow(), World.CRS);
    double[] ray = new double[4];
    double[] image = new double[2];
    double squares = 0;
    for (int k = 0; k < 50; k++) {
      double col = SIZE * (k % 5 + 0.5) / 5;
      double row = SIZE * (k / 5 % 5 + 0.5) / 5;
      double h = World.UNDULATION + (k < 25 ? 0 : 300);
      world.two().sensor().ray(col, row, ray);
      model.toImage(ray[0] + h * ray[2], ray[1] + h * ray[3], h, image);
      squares += (Math.pow(image[0] - col, 2) + Math.pow(image[1] - row, 2)) / 50;
    }
    return Math.sqrt(squares);
  }

  @Test
  void anOldPhotoWithoutAPlaceIsTiedByFeaturesAndPlacedByACamera() {
    Raster photo = RasterFiles.open(survey.photo());
    TiePoints points = found(photo);
    double[] worst = new double[1];

    assertThat(points.points()).hasSizeGreaterThan(20);
    // over a town alone roofs pull at the camera; larger scenes are measured by place-quality
    assertThat(rms(points, world.photo(), worst)).isLessThan(1.6);
    assertThat(worst[0]).isLessThan(5);
    Map<String, Object> inputs = with("scene", photo);
    inputs.put("points", points);
    inputs.put("reference", ortho);
    Raster placed = (Raster) run("warp", inputs, Map.of("undulation", "47", "model", "camera"));
    // its pixels coincide with those of the reference
    double offX = (placed.grid().affine().c() - ortho.grid().affine().c()) / 0.5;
    double offY = (placed.grid().affine().f() - ortho.grid().affine().f()) / 0.5;
    assertThat(offX - Math.rint(offX)).isCloseTo(0, within(1e-6));
    assertThat(offY - Math.rint(offY)).isCloseTo(0, within(1e-6));
    Fit fit = new Fitter(points, Bases.of(ortho, World.CRS).orElseThrow()).fit(ModelKind.CAMERA);
    FrameCamera camera = (FrameCamera) fit.model();
    assertThat(Math.toDegrees(camera.kappa())).isBetween(-70.0, -15.0);
  }

  @Test
  void aSceneOfOtherGroundIsRefused() {
    Raster elsewhere =
        (Raster) run("clip", Map.of("scene", ortho), Map.of("extent", corner(ortho)));
    Map<String, Object> inputs = with("scene", far());
    inputs.put("reference", elsewhere);

    assertThatThrownBy(() -> run("tiepoints", inputs, Map.of("undulation", "47")))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("no ground in common");
  }

  private static String corner(Raster raster) {
    var all = raster.grid().extent();
    return all.west() + "," + (all.north() - 100) + "," + (all.west() + 100) + "," + all.north();
  }

  /** A placed raster far away. */
  private static Raster far() {
    var grid = new sharpkestrel.raster.Grid(
        200, 200, sharpkestrel.raster.Affine.northUp(700_000, 6_900_000, 0.5), World.CRS);
    return new sharpkestrel.raster.MemoryRaster(
        grid,
        java.util.List.of(sharpkestrel.raster.Band.of(
            sharpkestrel.raster.BandRole.PAN, sharpkestrel.raster.SampleType.UINT16)),
        sharpkestrel.raster.Attachments.NONE,
        new float[][] {new float[200 * 200]});
  }

  @Test
  void aRawSceneWithoutHeightsIsRefused() {
    assertThatThrownBy(() -> run("tiepoints", Map.of("scene", two, "reference", ortho), Map.of()))
        .hasMessageContaining("its sensor model needs heights");
  }

  @Test
  void twoPointsAreTooFewForAnAffineWarp() {
    TiePoints few = ofTwo.with(ofTwo.of(TiePoint.Use.CONTROL).subList(0, 2));
    Map<String, Object> inputs = with("scene", two);
    inputs.put("points", few);

    assertThatThrownBy(() -> run("warp", inputs, Map.of("undulation", "47", "model", "affine")))
        .hasMessageContaining("needs 3 points that are on; there are 2");
  }

  @Test
  void aDemoNameMayAskForAllFiles() {
    assertThatThrownBy(() -> DemoData.resolve("demo:4:512:whole:most", Job.QUIET))
        .hasMessageContaining("'most' is no word for a demo survey")
        .hasMessageContaining("all, for all files");
  }
}
