package sharpkestrel.app.viewer;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.Test;
import sharpkestrel.app.model.Look;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/** What is seen in the trial patch while a slider is dragged. */
class TrialPatchTest {

  private static final int SIDE = 1400;
  private static final int SCREEN = 80;

  private final Compositor compositor = new Compositor();

  /** Ones, once the gate is open; notes which levels it was read on. */
  private static final class Gated extends DerivedRaster {

    private final CountDownLatch gate;
    private final List<Integer> levels = new CopyOnWriteArrayList<>();

    Gated(CountDownLatch gate) {
      super(
          Grid.ofPixels(SIDE, SIDE),
          List.of(Band.of(BandRole.PAN, SampleType.FLOAT32)),
          Attachments.NONE,
          Zoom.POINTWISE);
      this.gate = gate;
    }

    @Override
    protected void compute(int level, Window window, float[][] target, Request request) {
      levels.add(level);
      try {
        gate.await();
      } catch (InterruptedException interrupted) {
        Thread.currentThread().interrupt();
      }
      Arrays.fill(target[0], 1);
    }
  }

  private static PaneLayer layer(Gated raster) {
    return PaneLayer.ofTrial(raster, raster, Look.GREY, new Window(0, 0, 9, 9), () -> {});
  }

  private static PaneLayer layer(Gated raster, PaneLayer like) {
    return PaneLayer.ofTrial(raster, raster, Look.GREY, like, () -> {});
  }

  private boolean draw(TrialPatch patch, PaneLayer under) {
    compositor.begin(SCREEN, SCREEN);
    return patch.draw(compositor, new Viewport(0, 0, under.rawScale), under, SCREEN, SCREEN, true);
  }

  private int middle() {
    return compositor.pixels()[SCREEN / 2 * SCREEN + SCREEN / 2];
  }

  private void drawWhole(TrialPatch patch, PaneLayer under) throws InterruptedException {
    for (int k = 0; k < 1000 && !draw(patch, under); k++) {
      Thread.sleep(10);
    }
  }

  @Test
  void theLastOneThatWasWholeIsSeenUntilTheNextIsAndNothingElseIsWorkedOut() throws Exception {
    CountDownLatch open = new CountDownLatch(0);
    CountDownLatch shut = new CountDownLatch(1);
    Gated whole = new Gated(open);
    PaneLayer first = layer(whole);
    TrialPatch patch = new TrialPatch();
    double s = first.rawScale;
    patch.between(10 * s, 10 * s, 70 * s, 70 * s);
    draw(patch, first);
    int empty = middle();

    patch.show(first);
    drawWhole(patch, first);
    int seen = middle();
    assertThat(seen).isNotEqualTo(empty);
    assertThat(whole.levels).containsOnly(0);

    try {
      patch.show(layer(new Gated(shut), first));
      assertThat(draw(patch, first)).isFalse();
      assertThat(middle()).isEqualTo(seen);
      patch.show(layer(new Gated(shut), first));
      assertThat(draw(patch, first)).isFalse();
      assertThat(middle()).isEqualTo(seen);
    } finally {
      shut.countDown();
    }
  }
}
