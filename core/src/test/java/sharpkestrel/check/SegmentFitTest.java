package sharpkestrel.check;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Window;
import sharpkestrel.segment.Branch;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.Segments;

class SegmentFitTest {

  /** A square of 20 x 20 pixels, its right half much lighter, on dark ground. */
  private static final Raster SCENE = Made.placed(
      80,
      80,
      0.5,
      (b, col, row) -> col < 30 || col >= 50 || row < 30 || row >= 50 ? 10 : col < 40 ? 100 : 500,
      BandRole.PAN);

  private static Geometry square(double fromCol, double toCol, double fromRow, double toRow) {
    return new GeometryFactory()
        .toGeometry(new Envelope(
            512_000 + fromCol / 2,
            512_000 + toCol / 2,
            6_702_000 - toRow / 2,
            6_702_000 - fromRow / 2));
  }

  @Test
  void halvesAreHalfRightAndAnyNodeFindsTheWhole() {
    Cut cut = Segments.of(SCENE, 20).run(Job.QUIET);
    SegmentFit fit = SegmentFit.of(cut, List.of(square(30, 50, 30, 50)), Job.QUIET);

    SegmentFit.Fit halves = fit.atHeight(cut.withGrain(80 * 80 / 4.0 / 3).height());
    SegmentFit.Fit any = fit.ofAnyNode();

    assertThat(halves.outlines()).isEqualTo(1);
    assertThat(halves.meanIou()).isCloseTo(0.5, within(0.03));
    assertThat(halves.over()).isCloseTo(0.5, within(0.03));
    assertThat(halves.under()).isLessThan(0.03);
    assertThat(halves.recall()).isZero();
    assertThat(any.meanIou()).isGreaterThan(0.97);
    assertThat(any.recall()).isEqualTo(1);
  }

  @Test
  void whatIsPickedIsComparedAsItIs() {
    Cut cut = Segments.of(SCENE, 20).run(Job.QUIET);
    SegmentFit fit = SegmentFit.of(cut, List.of(square(30, 50, 30, 50)), Job.QUIET);
    int[] label = new int[1];
    cut.superpixels().read(new Window(35, 35, 1, 1), label);
    int[] pixels = Branch.pixelsOf(cut.tree());
    int whole = label[0] - 1;
    while (pixels[whole] < 390) {
      whole = cut.tree().parent(whole);
    }

    assertThat(fit.ofPicked(new int[] {whole}).meanIou()).isGreaterThan(0.97);
    assertThat(fit.ofPicked(new int[] {cut.tree().nodes() - 1}).meanIou())
        .isCloseTo(20 * 20 / (80.0 * 80), within(1e-9));
    assertThat(fit.ofPicked(new int[] {-1}).meanIou()).isZero();
    // a superpixel far from the square
    assertThat(fit.ofPicked(new int[] {0}).meanIou()).isZero();
  }

  @Test
  void outlinesOutsideOfTheSceneDoNotCount() {
    Cut cut = Segments.of(SCENE, 20).run(Job.QUIET);

    SegmentFit.Fit fit = SegmentFit.of(
            cut, List.of(square(30, 50, 30, 50), square(500, 520, 0, 20)), Job.QUIET)
        .ofAnyNode();

    assertThat(fit.outlines()).isEqualTo(1);
  }
}
