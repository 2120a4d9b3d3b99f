package sharpkestrel.place.mosaic;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static sharpkestrel.place.mosaic.TwoScenes.HEIGHT;
import static sharpkestrel.place.mosaic.TwoScenes.ONE;
import static sharpkestrel.place.mosaic.TwoScenes.TWO;
import static sharpkestrel.place.mosaic.TwoScenes.UTM;
import static sharpkestrel.place.mosaic.TwoScenes.WIDTH;
import static sharpkestrel.place.mosaic.TwoScenes.areas;
import static sharpkestrel.place.mosaic.TwoScenes.block;
import static sharpkestrel.place.mosaic.TwoScenes.box;
import static sharpkestrel.place.mosaic.TwoScenes.ground;
import static sharpkestrel.place.mosaic.TwoScenes.scene;
import static sharpkestrel.place.mosaic.TwoScenes.taken;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Jobs;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Pixels;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;

/** Rules, balance and bounds of mosaics of {@link TwoScenes}. */
class MosaicTest {

  private static Raster mosaic(Overlap overlap, Block block) {
    return BalancedBlock.of(block, Job.QUIET)
        .mosaic(overlap, Optional.empty(), Optional.empty(), 0, 0, Attachments.NONE);
  }

  @Test
  void coversAllScenes() {
    Raster mosaic = mosaic(
        Overlap.FIRST,
        block(Balance.NONE, 0, scene(ONE, (v, x, y) -> v), scene(TWO, (v, x, y) -> v)));
    assertThat(mosaic.grid())
        .isEqualTo(new Grid(480, HEIGHT, Affine.northUp(512_000, 6_702_000, 1), UTM));
    assertThat(mosaic.bands().getFirst().type()).isEqualTo(SampleType.UINT16);
  }

  @ParameterizedTest
  @CsvSource({
    "FIRST, 100",
    "LAST, 130",
    "MEAN, 115",
    "MINIMUM, 100",
    "MAXIMUM, 130",
    "MOST_NADIR, 130"
  })
  void showsWhatTheRuleSays(Overlap overlap, double expected) {
    Raster one = taken(scene(ONE, (v, x, y) -> 100), 20, 90);
    Raster two = taken(scene(TWO, (v, x, y) -> 130), 5, 90);
    float[][] pixels = mosaic(overlap, block(Balance.NONE, 0, one, two))
        .read(0, new Window(0, 40, 480, 1), Request.BACKGROUND);
    assertThat(pixels[0][60]).isEqualTo(100);
    assertThat(pixels[0][240]).isEqualTo((float) expected);
    assertThat(pixels[0][440]).isEqualTo(130);
  }

  @Test
  void feathersFromOneEdgeToTheOther() {
    Block block =
        block(Balance.NONE, 0, scene(ONE, (v, x, y) -> 100), scene(TWO, (v, x, y) -> 300));
    Raster mosaic = BalancedBlock.of(block, Job.QUIET)
        .mosaic(Overlap.FEATHERED, Optional.empty(), Optional.empty(), 100, 0, Attachments.NONE);
    float[] row = mosaic.read(0, new Window(0, 130, 480, 1), Request.BACKGROUND)[0];
    assertThat(row[119]).isEqualTo(100);
    assertThat(row[360]).isEqualTo(300);
    // 50 m inside of scene two, 190 m inside of scene one
    assertThat(row[170]).isCloseTo((100 + 0.51f * 300) / 1.51f, within(1.5f));
    for (int x = 121; x < 240; x++) {
      assertThat(row[x]).isGreaterThanOrEqualTo(row[x - 1]);
    }
  }

  @ParameterizedTest
  @EnumSource(Overlap.class)
  void isTheSameThroughAnyWindowAndLeavesNoHole(Overlap overlap) {
    Block block = block(
        Balance.HISTOGRAM,
        1,
        taken(scene(ONE, (v, x, y) -> v), 3, 90),
        taken(scene(TWO, (v, x, y) -> 0.8 * v + 40), 9, 90));
    BalancedBlock balanced = BalancedBlock.of(block, Job.QUIET);
    OutlineSet seam =
        areas(new double[] {1, 2}, box(0, -HEIGHT, 250, 0), box(250, -HEIGHT, 480, 0));
    Raster mosaic =
        balanced.mosaic(overlap, Optional.of(seam), Optional.empty(), 12, 50, Attachments.NONE);
    float[][] whole = mosaic.read(0, mosaic.grid().window(), Request.BACKGROUND);
    Window part = new Window(203, 71, 97, 88);
    float[][] some = mosaic.read(0, part, Request.BACKGROUND);
    float[][] cut = new float[2][part.area()];
    for (int b = 0; b < 2; b++) {
      for (int i = 0; i < part.area(); i++) {
        cut[b][i] = whole[b][(part.y() + i / 97) * 480 + part.x() + i % 97];
      }
      for (float v : whole[b]) {
        assertThat(v).isFinite();
      }
    }
    Pixels.assertSame(some, cut);
  }

  @ParameterizedTest
  @CsvSource({"LINEAR, 0.7, 90", "LINEAR, 1.6, -120", "HISTOGRAM, 0.7, 90"})
  void undoesGainAndOffset(Balance balance, double gain, double offset) {
    Raster two = scene(TWO, (v, x, y) -> gain * v + offset);
    Raster mosaic = mosaic(Overlap.LAST, block(balance, 0, scene(ONE, (v, x, y) -> v), two));
    float[][] pixels = Made.samples(mosaic);
    double worst = 0;
    for (int i = 0; i < pixels[0].length; i++) {
      double truth = ground(i % 480 + 0.5, i / 480 + 0.5);
      worst = Math.max(worst, Math.abs(pixels[0][i] - truth));
    }
    // of a range of 400; a curve is held to what its knots can tell
    assertThat(worst).isLessThan(balance == Balance.LINEAR ? 2.5 : 8);
  }

  @Test
  void undoesACurve() {
    Raster two = scene(TWO, (v, x, y) -> 40 * Math.sqrt(v));
    Raster mosaic =
        mosaic(Overlap.LAST, block(Balance.HISTOGRAM, 0, scene(ONE, (v, x, y) -> v), two));
    float[][] pixels = mosaic.read(0, new Window(380, 0, 100, HEIGHT), Request.BACKGROUND);
    double sum = 0;
    for (int i = 0; i < pixels[0].length; i++) {
      sum += Math.abs(pixels[0][i] - ground(380 + i % 100 + 0.5, i / 100 + 0.5));
    }
    assertThat(sum / pixels[0].length).isLessThan(4);
  }

  @Test
  void evensOutATrend() {
    Raster two = scene(TWO, (v, x, y) -> v * (1 + 0.15 * (y / HEIGHT - 0.5)));
    Block without = block(Balance.LINEAR, 0, scene(ONE, (v, x, y) -> v), two);
    Block with = block(Balance.LINEAR, 1, scene(ONE, (v, x, y) -> v), two);
    assertThat(off(mosaic(Overlap.LAST, without))).isGreaterThan(10);
    assertThat(off(mosaic(Overlap.LAST, with))).isLessThan(2.5);
  }

  /** Mean error of the first band. */
  private static double off(Raster mosaic) {
    float[][] pixels = Made.samples(mosaic);
    double sum = 0;
    for (int i = 0; i < pixels[0].length; i++) {
      sum += Math.abs(pixels[0][i] - ground(i % 480 + 0.5, i / 480 + 0.5));
    }
    return sum / pixels[0].length;
  }

  @Test
  void balancesAChainThroughScenesThatDoNotMeet() {
    Grid three = new Grid(WIDTH, HEIGHT, Affine.northUp(512_380, 6_702_000, 1), UTM);
    Raster mosaic = mosaic(
        Overlap.LAST,
        block(
            Balance.LINEAR,
            0,
            scene(ONE, (v, x, y) -> v),
            scene(TWO, (v, x, y) -> 0.6 * v + 100),
            scene(three, (v, x, y) -> 1.3 * v - 80)));
    float[] row = mosaic.read(0, new Window(0, 99, 740, 1), Request.BACKGROUND)[0];
    for (int x = 0; x < row.length; x++) {
      assertThat(row[x]).as("column " + x).isCloseTo((float) ground(x + 0.5, 99.5), within(4f));
    }
  }

  @Test
  void saysWhichSceneIsNotTiedToTheAnchor() {
    Grid far = new Grid(WIDTH, HEIGHT, Affine.northUp(513_000, 6_702_000, 1), UTM);
    List<String> warnings = new ArrayList<>();
    BalancedBlock.of(
        block(Balance.LINEAR, 0, scene(ONE, (v, x, y) -> v), scene(far, (v, x, y) -> v)),
        Jobs.warning(warnings));
    assertThat(warnings).singleElement().asString().contains("Scene 2").contains("no overlap");
  }

  @Test
  void evensOutSlowDifferencesAlongSeamsOnly() {
    // light on slopes: up to 60 numbers between the scenes, along the seam up and down
    Raster two = scene(TWO, (v, x, y) -> v + 60 * Math.sin(y / 60));
    BalancedBlock block =
        BalancedBlock.of(block(Balance.NONE, 0, scene(ONE, (v, x, y) -> v), two), Job.QUIET);
    Optional<OutlineSet> seam =
        Optional.of(areas(new double[] {1, 2}, box(0, -HEIGHT, 240, 0), box(240, -HEIGHT, 480, 0)));
    float[] sharp = Made.samples(
        block.mosaic(Overlap.SEAMS, seam, Optional.empty(), 0, 0, Attachments.NONE))[0];
    float[] level = Made.samples(
        block.mosaic(Overlap.SEAMS, seam, Optional.empty(), 0, 60, Attachments.NONE))[0];
    assertThat(step(sharp)).isGreaterThan(30);
    assertThat(step(level)).isLessThan(9);
    for (int i = 0; i < level.length; i++) {
      if (i % 480 < 165 || i % 480 > 315) {
        assertThat(level[i]).as("pixel " + i).isEqualTo(sharp[i]);
      }
    }
    assertThat(block.visibility(seam.get(), 60, Job.QUIET).after())
        .isLessThan(block.visibility(seam.get(), 0, Job.QUIET).after() / 3);
  }

  /** Mean change across the seam at column 240 beyond that of the ground. */
  private static double step(float[] pixels) {
    double sum = 0;
    for (int y = 0; y < HEIGHT; y++) {
      double change = pixels[y * 480 + 240] - pixels[y * 480 + 239];
      sum += Math.abs(change - (ground(240.5, y + 0.5) - ground(239.5, y + 0.5)));
    }
    return sum / HEIGHT;
  }

  @Test
  void whatIsLeftOutComesFromTheOther() {
    OutlineSet cloud = areas(new double[] {1}, box(200, -100, 260, -40));
    Raster mosaic = mosaic(
        Overlap.FIRST,
        block(
            Balance.NONE,
            0,
            Optional.of(cloud),
            scene(ONE, (v, x, y) -> 100),
            scene(TWO, (v, x, y) -> 200)));
    float[] row = mosaic.read(0, new Window(0, 70, 480, 1), Request.BACKGROUND)[0];
    assertThat(row[199]).isEqualTo(100);
    assertThat(row[200]).isEqualTo(200);
    assertThat(row[259]).isEqualTo(200);
    assertThat(row[260]).isEqualTo(100);
  }

  @Test
  void blackCollarsAreNotShownButBlackInsideIs() {
    MemoryRaster one = (MemoryRaster) scene(ONE, (v, x, y) -> 100);
    float[][] planes = Made.samples(one);
    for (float[] plane : planes) {
      for (int i = 0; i < plane.length; i++) {
        int x = i % WIDTH;
        int y = i / WIDTH;
        boolean collar = x + y < 150 || x > 340 - y / 4;
        boolean pond = Math.hypot(x - 250, y - 130) < 9;
        plane[i] = collar || pond ? 0 : plane[i];
      }
    }
    List<Band> plain =
        one.bands().stream().map(b -> b.withType(b.type(), Double.NaN)).toList();
    Raster framed = new MemoryRaster(ONE, plain, Attachments.NONE, planes);
    Raster bare = Collar.without(framed, Job.QUIET);
    float[][] pixels = Made.samples(bare);
    for (int i = 0; i < pixels[0].length; i++) {
      int x = i % WIDTH;
      int y = i / WIDTH;
      boolean collar = x + y < 150 || x > 340 - y / 4;
      assertThat(Float.isNaN(pixels[0][i])).as(x + ", " + y).isEqualTo(collar);
    }
    assertThat(pixels[0][130 * WIDTH + 250]).isZero();
  }

  @Test
  void onlyTheAreaOfInterestIsShown() {
    OutlineSet interest = areas(new double[] {0}, box(100, -200, 300, -50));
    Raster mosaic = BalancedBlock.of(
            block(Balance.NONE, 0, scene(ONE, (v, x, y) -> v), scene(TWO, (v, x, y) -> v)),
            Job.QUIET)
        .mosaic(Overlap.FIRST, Optional.empty(), Optional.of(interest), 0, 0, Attachments.NONE);
    float[] all = Made.samples(mosaic)[0];
    long shown = java.util.stream.IntStream.range(0, all.length)
        .filter(i -> !Float.isNaN(all[i]))
        .count();
    assertThat(shown).isEqualTo(200 * 150);
  }

  @Test
  void bringsScenesOfAnotherSystemAlong() {
    Crs other = Crs.of(CrsName.epsg(32631));
    double[] corner = {512_120, 6_702_000};
    Crs.of(UTM).to(other).apply(corner, 1);
    Grid grid = new Grid(500, 420, Affine.northUp(corner[0] - 60, corner[1] + 80, 1), other.name());
    CoordinateMap back = other.to(Crs.of(UTM));
    Raster two = Made.on(
        grid,
        SampleType.UINT16,
        (b, col, row) -> {
          double[] at = {
            grid.affine().x(col + 0.5, row + 0.5), grid.affine().y(col + 0.5, row + 0.5)
          };
          back.apply(at, 1);
          return Math.rint(ground(at[0] - 512_000, 6_702_000 - at[1]) * (b + 1));
        },
        BandRole.RED,
        BandRole.NEAR_INFRARED);
    Raster mosaic = mosaic(Overlap.LAST, block(Balance.NONE, 0, scene(ONE, (v, x, y) -> v), two));
    assertThat(mosaic.grid().crs()).isEqualTo(UTM);
    int shift = (int) Math.round(512_000 - mosaic.grid().affine().c());
    int down = (int) Math.round(mosaic.grid().affine().f() - 6_702_000);
    float[] row = mosaic.read(0, new Window(shift, down + 120, 440, 1), Request.BACKGROUND)[0];
    for (int x = 0; x < row.length; x++) {
      assertThat(row[x]).as("column " + x).isCloseTo((float) ground(x + 0.5, 120.5), within(4f));
    }
  }

  @Test
  void takesBandsByTheirRoles() {
    Raster swapped = Made.on(
        TWO,
        SampleType.UINT16,
        (b, col, row) -> b == 0 ? 700 : 100,
        BandRole.NEAR_INFRARED,
        BandRole.RED);
    Raster mosaic =
        mosaic(Overlap.LAST, block(Balance.NONE, 0, scene(ONE, (v, x, y) -> v), swapped));
    float[][] pixel = mosaic.read(0, new Window(400, 10, 1, 1), Request.BACKGROUND);
    assertThat(pixel[0][0]).isEqualTo(100);
    assertThat(pixel[1][0]).isEqualTo(700);
  }

  @Test
  void otherBandsOtherUnitsAndNoPlaceAreRefused() {
    Raster one = scene(ONE, (v, x, y) -> v);
    Raster pan = Made.on(TWO, SampleType.UINT16, (b, col, row) -> 3, BandRole.PAN);
    assertThatThrownBy(() -> BalancedBlock.of(block(Balance.NONE, 0, one, pan), Job.QUIET))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("Scene 2 has no band 'red'")
        .hasMessageContaining("it has: pan");
    Raster two = scene(TWO, (v, x, y) -> v);
    Raster reflectance = new MemoryRaster(
        TWO,
        two.bands().stream().map(b -> b.withUnit("reflectance")).toList(),
        Attachments.NONE,
        Made.samples(two));
    assertThatThrownBy(() -> BalancedBlock.of(block(Balance.NONE, 0, one, reflectance), Job.QUIET))
        .hasMessageContaining("Scene 2 holds reflectance, the first numbers of the sensor");
    Raster nowhere = Made.on(
        Grid.ofPixels(9, 9),
        SampleType.UINT16,
        (b, c, r) -> 1,
        BandRole.RED,
        BandRole.NEAR_INFRARED);
    assertThatThrownBy(() -> BalancedBlock.of(block(Balance.NONE, 0, one, nowhere), Job.QUIET))
        .hasMessageContaining("Scene 2 does not say where it lies");
  }
}
