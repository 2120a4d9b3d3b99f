package sharpkestrel.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import sharpkestrel.geo.GridModel;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.place.fit.Advice;
import sharpkestrel.place.fit.Fitter;
import sharpkestrel.place.fit.ModelKind;
import sharpkestrel.place.fit.TiePoint;
import sharpkestrel.place.fit.TiePoint.Use;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.SampleType;

/** A placed scene of half-metre pixels that lies 3 m too far east and 1 m too far south. */
class FindOffsetsTest {

  private static final Raster SCENE = Made.placed(200, 160, 0.5, (b, c, r) -> c, BandRole.PAN);

  private static TiePoints points(double noise, Use... uses) {
    List<TiePoint> points = new ArrayList<>();
    Random random = new Random(8);
    for (int i = 0; i < 12; i++) {
      double col = 10 + 15 * i;
      double row = 20 + 37 * i % 120;
      double x = SCENE.grid().affine().x(col, row) - 3;
      double y = SCENE.grid().affine().y(col, row) + 1;
      double off = noise * random.nextGaussian();
      points.add(new TiePoint(
          i + 1,
          col + off,
          row + noise * random.nextGaussian(),
          x,
          y,
          Double.NaN,
          uses[i % uses.length],
          Double.NaN));
    }
    return new TiePoints(SCENE.grid().crs(), 200, 160, points);
  }

  @Test
  void isFromWhereThingsLieToWhereTheSceneShowsThem() {
    OutlineSet offsets = new FindOffsets(SCENE, points(0, Use.CONTROL)).run(Job.QUIET);
    assertThat(offsets.count()).isEqualTo(12);
    for (int i = 0; i < 12; i++) {
      assertThat(offsets.table().values("off_east")[i]).isCloseTo(3, within(1e-3));
      assertThat(offsets.table().values("off_north")[i]).isCloseTo(-1, within(1e-3));
      assertThat(offsets.outlines().get(i).getLength()).isCloseTo(Math.sqrt(10), within(1e-3));
    }
  }

  @Test
  void asksCheckPointsOnlyWhereThereAreAnyAndNeverThoseThatAreOff() {
    assertThat(new FindOffsets(SCENE, points(0, Use.CONTROL, Use.CHECK, Use.OFF))
            .run(Job.QUIET)
            .table()
            .values("point"))
        .containsExactly(2, 5, 8, 11);
    assertThatThrownBy(() -> new FindOffsets(SCENE, points(0, Use.OFF)).run(Job.QUIET))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("all are off");
  }

  @Test
  void aSceneWithoutAPlaceCannotBeChecked() {
    Raster nowhere =
        Made.on(Grid.ofPixels(200, 160), SampleType.FLOAT32, (b, c, r) -> 1, BandRole.PAN);
    assertThatThrownBy(() -> new FindOffsets(nowhere, points(0, Use.CONTROL)).run(Job.QUIET))
        .hasMessageContaining("does not say where it lies");
  }

  @Test
  void asItLiesStandsBesideTheModelsAndIsAdvisedWhereNothingIsBetter() {
    GridModel base = GridModel.of(SCENE.grid());
    Advice off = Advice.of(new Fitter(points(0.1, Use.CONTROL), base, true), false);
    assertThat(off.fits().getFirst().kind()).isEqualTo(ModelKind.UNCHANGED);
    // 3 m and 1 m are 6 and 2 pixels
    assertThat(off.fits().getFirst().rms()).isCloseTo(Math.sqrt(40), within(0.1));
    assertThat(off.fit().kind()).isEqualTo(ModelKind.SHIFT);

    List<TiePoint> right = points(0.1, Use.CONTROL).points().stream()
        .map(p -> p.on(p.x() + 3, p.y() - 1, Double.NaN))
        .toList();
    Advice fine = Advice.of(new Fitter(points(0, Use.CONTROL).with(right), base, true), false);
    assertThat(fine.fit().kind()).isEqualTo(ModelKind.UNCHANGED);
    assertThat(fine.reason()).startsWith("It lies as well as any model");

    assertThat(Advice.of(new Fitter(points(0.1, Use.CONTROL), base), false).fits())
        .noneMatch(f -> f.kind() == ModelKind.UNCHANGED);
  }

  @Test
  void onePointAdvisesNothingAboutAsItLies() {
    TiePoints one = points(0, Use.CONTROL).with(points(0, Use.CONTROL).points().subList(0, 1));
    Advice advice = Advice.of(new Fitter(one, GridModel.of(SCENE.grid()), true), false);
    assertThat(advice.fit().kind()).isEqualTo(ModelKind.SHIFT);
  }
}
