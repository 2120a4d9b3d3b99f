package sharpkestrel.app.viewer;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

class TilesTest {

  /** Tiles that take what a test lets them. */
  private static class Made extends Tiles<int[]> {
    final AtomicInteger count = new AtomicInteger();
    volatile boolean broken;

    Made(TileNews news) {
      super(news);
    }

    @Override
    int[] make(int level, int x, int y, Request request) {
      count.incrementAndGet();
      if (broken) {
        throw new RasterException("the disk cannot be read");
      }
      return new int[SIZE * SIZE];
    }

    @Override
    int bytes(int[] tile) {
      return 4 * tile.length;
    }
  }

  private static void until(BooleanSupplier holds) throws Exception {
    WaitForAsyncUtils.waitFor(20, TimeUnit.SECONDS, holds::getAsBoolean);
  }

  @Test
  void aTileThatCannotBeMadeIsAskedForOnceSaidOnceAndMadeWhenTriedAgain() throws Exception {
    AtomicInteger said = new AtomicInteger();
    AtomicReference<String> why = new AtomicReference<>();
    Made tiles = new Made(new TileNews() {
      @Override
      public void arrived() {}

      @Override
      public void failed(Tiles<?> layer, String reason) {
        said.incrementAndGet();
        why.set(reason);
      }
    });
    tiles.broken = true;
    tiles.look(0, new Window(0, 0, 4, 4));
    for (int round = 0; round < 50; round++) {
      tiles.ask(0, 1, 1);
      tiles.ask(0, 2, 1);
      Thread.sleep(2);
    }
    until(tiles::isComplete);

    assertThat(tiles.isFailed(0, 1, 1)).isTrue();
    assertThat(tiles.count.get()).isEqualTo(2);
    assertThat(said.get()).isEqualTo(1);
    assertThat(why.get()).isEqualTo("the disk cannot be read");

    tiles.broken = false;
    tiles.tryAgain();
    assertThat(tiles.isFailed(0, 1, 1)).isFalse();
    tiles.ask(0, 1, 1);
    until(() -> tiles.find(0, 1, 1) != null);
  }

  @Test
  void whatIsNotLookedAtAnyMoreIsNotMadeAndAClosedLayerLetsItsTilesGo() throws Exception {
    CountDownLatch go = new CountDownLatch(1);
    AtomicInteger made = new AtomicInteger();
    Tiles<int[]> slow = new Tiles<>(() -> {}) {
      @Override
      int[] make(int level, int x, int y, Request request) {
        made.incrementAndGet();
        try {
          go.await(20, TimeUnit.SECONDS);
        } catch (InterruptedException stop) {
          throw new AssertionError(stop);
        }
        return new int[SIZE * SIZE];
      }

      @Override
      int bytes(int[] tile) {
        return 4 * tile.length;
      }
    };
    slow.look(0, new Window(0, 0, 100, 1));
    for (int x = 0; x < 100; x++) {
      slow.ask(0, x, 0);
    }
    int threads = Runtime.getRuntime().availableProcessors();
    until(() -> made.get() >= Math.min(2, threads));
    slow.look(0, new Window(500, 0, 2, 1));
    int begun = made.get();
    go.countDown();
    until(slow::isComplete);

    assertThat(made.get()).isLessThanOrEqualTo(begun + threads);
    slow.ask(0, 500, 0);
    until(() -> slow.find(0, 500, 0) != null);
    slow.close();
    assertThat(slow.find(0, 500, 0)).isNull();
    slow.ask(0, 501, 0);
    assertThat(slow.isComplete()).isTrue();
  }

  @Test
  void allLayersTogetherStayWithinOneBudget() throws Exception {
    int perTile = 4 * Tiles.SIZE * Tiles.SIZE;
    int most = (int) (Tiles.BUDGET / perTile);
    Made[] layers = {new Made(() -> {}), new Made(() -> {}), new Made(() -> {})};
    for (Made layer : layers) {
      for (int i = 0; i < most / 2; i++) {
        layer.keep(0, i, 0, new int[Tiles.SIZE * Tiles.SIZE]);
      }
    }
    assertThat(Tiles.bytesKept()).isLessThanOrEqualTo(Tiles.BUDGET);
    for (Made layer : layers) {
      layer.close();
    }
    assertThat(Tiles.bytesKept()).isLessThan(Tiles.BUDGET / 2);
  }

  /** While labels of the right half are on their way, no border is drawn along where they will begin. */
  @Test
  void whatIsOnItsWayHasNoBorders() throws Exception {
    AtomicBoolean open = new AtomicBoolean();
    LabelRaster one = new LabelRaster() {
      @Override
      public Grid grid() {
        return Grid.ofPixels(512, 256);
      }

      @Override
      public int maxLabel() {
        return 1;
      }

      @Override
      public void read(Window window, int[] target) {
        while (window.x() > 0 && !open.get()) {
          Thread.onSpinWait();
        }
        java.util.Arrays.fill(target, 1);
      }
    };
    LabelTiles labels = new LabelTiles(one, () -> {});
    ObjectPaint paint = new ObjectPaint(
        new int[] {-1, 0},
        new int[] {-1, 0},
        new int[1],
        new boolean[] {true},
        new float[] {200},
        -1,
        new int[0]);
    Compositor compositor = new Compositor();
    until(() -> {
      compositor.begin(512, 256);
      compositor.drawObjects(labels, paint, Affine.IDENTITY, 0, 0, 512, 256);
      return labels.find(0, 0, 0) != null;
    });
    compositor.begin(512, 256);
    boolean complete = compositor.drawObjects(labels, paint, Affine.IDENTITY, 0, 0, 512, 256);

    assertThat(complete).isFalse();
    for (int x = 250; x < 262; x++) {
      assertThat(compositor.pixels()[128 * 512 + x]).as("column " + x).isEqualTo(Compositor.WELL);
    }
    open.set(true);
  }
}
