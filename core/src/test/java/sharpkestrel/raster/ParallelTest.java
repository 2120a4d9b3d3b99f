package sharpkestrel.raster;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicIntegerArray;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class ParallelTest {

  @ParameterizedTest
  @ValueSource(ints = {1, 2, 7})
  void everyPieceIsDoneOnce(int threads) {
    AtomicIntegerArray done = new AtomicIntegerArray(500);

    Parallel.run(500, Job.of(threads, 256), done::incrementAndGet);

    for (int i = 0; i < 500; i++) {
      assertThat(done.get(i)).isEqualTo(1);
    }
  }

  @Test
  void noPiecesAreNoWork() {
    AtomicInteger done = new AtomicInteger();

    Parallel.run(0, Job.QUIET, i -> done.incrementAndGet());

    assertThat(done.get()).isZero();
  }

  @ParameterizedTest
  @ValueSource(ints = {1, 3})
  void aFailureIsThrownAndTheRestIsLeft(int threads) {
    // so many that a thread held up between counting and throwing cannot see the others through all
    // of them
    int pieces = 1_000_000_000;
    AtomicInteger done = new AtomicInteger();

    assertThatThrownBy(() -> Parallel.run(pieces, Job.of(threads, 256), i -> {
          if (done.incrementAndGet() == 5) {
            throw new RasterException("the fifth is damaged");
          }
        }))
        .isInstanceOf(RasterException.class)
        .hasMessage("the fifth is damaged");
    assertThat(done.get()).isLessThan(pieces);
  }

  @Test
  void aCancelledJobStopsBetweenPieces() {
    Cancellation cancellation = new Cancellation();
    AtomicInteger done = new AtomicInteger();
    Job job = Jobs.stoppedBy(cancellation);

    assertThatThrownBy(() -> Parallel.run(100_000, job, i -> {
          if (done.incrementAndGet() == 10) {
            cancellation.cancel();
          }
        }))
        .isInstanceOf(CancellationException.class);
    // A piece each that was under way may still end.
    assertThat(done.get()).isBetween(10, 12);
  }

  @ParameterizedTest
  @CsvSource({"100,70,16,1", "257,255,64,2", "33,1,512,2"})
  void tilesCoverARasterOnceAndProgressIsTold(int width, int height, int tile, int threads) {
    MemoryRaster raster = Made.on(
        Grid.ofPixels(width, height),
        SampleType.FLOAT32,
        (b, col, row) -> row * width + col,
        BandRole.PAN);
    AtomicIntegerArray seen = new AtomicIntegerArray(width * height);
    List<Long> progress = Collections.synchronizedList(new ArrayList<>());
    Job job = new Job() {
      @Override
      public int threads() {
        return threads;
      }

      @Override
      public int tileSize() {
        return tile;
      }

      @Override
      public void progress(String what, long done, long total) {
        progress.add(done * 1000 + total);
      }
    };

    Parallel.overTiles(raster, 0, "Reading", job, (window, planes) -> {
      for (float v : planes[0]) {
        seen.incrementAndGet((int) v);
      }
    });

    for (int i = 0; i < width * height; i++) {
      assertThat(seen.get(i)).isEqualTo(1);
    }
    long total = (long) Math.ceilDiv(width, tile) * Math.ceilDiv(height, tile);
    assertThat(progress)
        .hasSize((int) total)
        .contains(total * 1000 + total)
        .doesNotHaveDuplicates();
  }
}
