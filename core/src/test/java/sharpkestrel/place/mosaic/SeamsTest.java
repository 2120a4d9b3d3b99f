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
import static sharpkestrel.place.mosaic.TwoScenes.scene;
import static sharpkestrel.place.mosaic.TwoScenes.taken;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.coverage.CoverageValidator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.geo.SeamVisibility;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.SampleType;

/** Where seams of {@link TwoScenes} run, and what becomes of their areas when they are changed. */
class SeamsTest {

  @Test
  void cutsWhereScenesAgree() {
    // the scenes differ but for a channel that wanders about x = 240
    Raster one = scene(ONE, (v, x, y) -> v);
    Raster two = scene(TWO, (v, x, y) -> Math.abs(x - channel(y)) < 8 ? v : v + 250);
    BalancedBlock block = BalancedBlock.of(block(Balance.NONE, 0, one, two), Job.QUIET);
    OutlineSet seams = block.seams(
        new Seamlines(Optional.empty(), Optional.empty(), Optional.empty(), 0, 0), Job.QUIET);
    for (SeamEdits.Side side : SeamEdits.sides(seams)) {
      double y = 6_702_000 - side.from().y;
      if (side.seam() && y > 5 && y < HEIGHT - 5) {
        assertThat(side.from().x - 512_000).isCloseTo(channel(y), within(11.0));
      }
    }
    SeamVisibility visibility = block.visibility(seams, 0, Job.QUIET);
    assertThat(visibility.before()).isGreaterThan(20);
    assertThat(visibility.after()).isLessThan(visibility.before() / 3);
  }

  @Test
  void threeScenesMeetAlongTwoSeams() {
    Grid three = new Grid(WIDTH, HEIGHT, Affine.northUp(512_240, 6_702_000, 1), UTM);
    Raster one = scene(ONE, (v, x, y) -> v);
    Raster two = scene(TWO, (v, x, y) -> Math.abs(x - 180) < 8 ? v : v + 150);
    Raster last = scene(three, (v, x, y) -> Math.abs(x - 420) < 8 ? v + 150 : v + 300);
    OutlineSet seams = BalancedBlock.of(block(Balance.NONE, 0, one, two, last), Job.QUIET)
        .seams(
            new Seamlines(Optional.empty(), Optional.empty(), Optional.empty(), 0, 0), Job.QUIET);
    assertThat(seams.table().values("scene")).containsExactly(1, 2, 3);
    assertThat(CoverageValidator.isValid(seams.outlines().toArray(Geometry[]::new)))
        .isTrue();
    assertThat(seams.outlines().get(0).getArea()).isCloseTo(180.0 * HEIGHT, within(3000.0));
    assertThat(seams.outlines().get(1).getArea()).isCloseTo(240.0 * HEIGHT, within(5000.0));
    assertThat(seams.outlines().get(2).getArea()).isCloseTo(180.0 * HEIGHT, within(3000.0));
  }

  private static double channel(double y) {
    return 240 + 40 * Math.sin(y / 60);
  }

  @Test
  void keepsWhatItShouldWhole() {
    Raster one = scene(ONE, (v, x, y) -> v);
    Raster two = scene(TWO, (v, x, y) -> v + (Math.abs(x - 240) < 60 ? 0 : 200));
    Geometry tall = box(232, -HEIGHT + 40, 252, -30);
    OutlineSet whole = areas(new double[] {0}, tall);
    OutlineSet seams = BalancedBlock.of(block(Balance.NONE, 0, one, two), Job.QUIET)
        .seams(
            new Seamlines(Optional.of(whole), Optional.empty(), Optional.empty(), 4, 0), Job.QUIET);
    Geometry first = seams.outlines().getFirst();
    double share = first.intersection(tall).getArea() / tall.getArea();
    assertThat(Math.min(share, 1 - share)).isLessThan(0.001);
    assertThat(first.getBoundary().distance(tall)).isGreaterThan(2);
  }

  @Test
  void keepsTallThingsWholeWhereTheyLeanInEachScene() {
    // scene one looks from the west and scene two from the east: tops of 20 m lean by 20 m either
    // way
    Raster one = taken(scene(ONE, (v, x, y) -> v), 45, 270);
    Raster two = taken(scene(TWO, (v, x, y) -> v + (Math.abs(x - 240) < 70 ? 0 : 250)), 45, 90);
    Raster terrain = heights((x, y) -> 30);
    Raster surface = heights((x, y) -> x > 236 && x < 246 && y > 50 && y < 210 ? 50 : 30);
    OutlineSet seams = BalancedBlock.of(block(Balance.NONE, 0, one, two), Job.QUIET)
        .seams(
            new Seamlines(Optional.empty(), Optional.of(surface), Optional.of(terrain), 0, 0),
            Job.QUIET);
    Geometry first = seams.outlines().getFirst();
    Geometry leaning = box(218, -208, 264, -52);
    double share = first.intersection(leaning).getArea() / leaning.getArea();
    assertThat(Math.min(share, 1 - share)).isLessThan(0.005);
  }

  private interface Height {
    double at(double x, double y);
  }

  private static Raster heights(Height height) {
    Grid grid = new Grid(480, HEIGHT, Affine.northUp(512_000, 6_702_000, 1), UTM);
    return Made.on(
        grid,
        SampleType.FLOAT32,
        (b, col, row) -> height.at(col + 0.5, row + 0.5),
        BandRole.HEIGHT);
  }

  @Test
  void areasMeetWithoutGaps() {
    Raster one = scene(ONE, (v, x, y) -> v);
    Raster two = scene(TWO, (v, x, y) -> Math.abs(x - channel(y)) < 8 ? v : v + 250);
    OutlineSet seams = BalancedBlock.of(block(Balance.NONE, 0, one, two), Job.QUIET)
        .seams(
            new Seamlines(Optional.empty(), Optional.empty(), Optional.empty(), 0, 0), Job.QUIET);
    Geometry union = seams.outlines().get(0).union(seams.outlines().get(1));
    assertThat(union.getArea()).isCloseTo(480.0 * HEIGHT, within(1.0));
    assertThat(CoverageValidator.isValid(seams.outlines().toArray(Geometry[]::new)))
        .isTrue();
    assertThat(seams.outlines().get(0).intersection(seams.outlines().get(1)).getArea())
        .isLessThan(1e-6);
  }

  @Test
  void areasOfScenesThatThereAreNotAreRefused() {
    BalancedBlock block = BalancedBlock.of(
        block(Balance.NONE, 0, scene(ONE, (v, x, y) -> v), scene(TWO, (v, x, y) -> v)), Job.QUIET);
    OutlineSet three = areas(new double[] {3}, box(0, -100, 100, 0));
    assertThatThrownBy(() -> block.mosaic(
            Overlap.SEAMS, Optional.of(three), Optional.empty(), 0, 0, Attachments.NONE))
        .hasMessageContaining("scene 3")
        .hasMessageContaining("2 scenes");
  }

  @Test
  void whatOneAreaGainsTheOtherLoses() {
    OutlineSet before =
        areas(new double[] {1, 2}, box(0, -HEIGHT, 250, 0), box(250, -HEIGHT, 480, 0));
    OutlineSet after = SeamEdits.give(before, 2, box(200, -100, 300, -50));
    assertThat(after.outlines().get(0).getArea()).isCloseTo(250 * HEIGHT - 50 * 50, within(0.1));
    assertThat(after.outlines().get(1).getArea()).isCloseTo(230 * HEIGHT + 50 * 50, within(0.1));
    OutlineSet moved = SeamEdits.move(
        after, new Coordinate(512_250, 6_702_000 - 200), new Coordinate(512_270, 6_702_000 - 200));
    double total = moved.outlines().stream().mapToDouble(Geometry::getArea).sum();
    assertThat(total).isCloseTo(480 * HEIGHT, within(0.1));
    assertThat(moved.outlines().get(0).getArea())
        .isGreaterThan(after.outlines().get(0).getArea());
    assertThat(SeamEdits.sides(moved).stream().filter(SeamEdits.Side::seam))
        .as("sides in common")
        .hasSize(6);
  }

  @Test
  void areasThatWouldCrossAreRefused() {
    OutlineSet before =
        areas(new double[] {1, 2}, box(0, -HEIGHT, 250, 0), box(250, -HEIGHT, 480, 0));
    OutlineSet bent = SeamEdits.move(
        before, new Coordinate(512_250, 6_701_900), new Coordinate(512_300, 6_701_900));
    assertThatThrownBy(() -> SeamEdits.move(
            bent, new Coordinate(512_300, 6_701_900), new Coordinate(512_600, 6_701_000)))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("cross");
  }

  @Test
  void aPlaceOnASeamIsFoundNearIt() {
    OutlineSet areas =
        areas(new double[] {1, 2}, box(0, -HEIGHT, 250, 0), box(250, -HEIGHT, 480, 0));
    List<SeamEdits.Side> sides = SeamEdits.sides(areas);
    assertThat(SeamEdits.onSeam(sides, new Coordinate(512_253, 6_701_900), 5))
        .contains(new Coordinate(512_250, 6_701_900));
    assertThat(SeamEdits.onSeam(sides, new Coordinate(512_253, 6_701_999), 5))
        .contains(new Coordinate(512_250, 6_702_000));
    assertThat(SeamEdits.onSeam(sides, new Coordinate(512_002, 6_701_900), 5)).isEmpty();
  }
}
