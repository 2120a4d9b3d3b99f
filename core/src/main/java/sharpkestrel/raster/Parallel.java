package sharpkestrel.raster;

import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.IntConsumer;

/** Runs numbered pieces of work on a few threads; the first failure stops the rest and is thrown. */
public final class Parallel {

  private Parallel() {}

  /** Runs {@code work} for 0 to count-1; looks at the job's cancellation before each piece. */
  public static void run(int count, Job job, IntConsumer work) {
    AtomicInteger next = new AtomicInteger();
    AtomicReference<Throwable> failure = new AtomicReference<>();
    Runnable loop = () -> {
      try {
        for (int i = next.getAndIncrement();
            i < count && failure.get() == null;
            i = next.getAndIncrement()) {
          job.cancellation().check();
          work.accept(i);
        }
      } catch (Throwable thrown) {
        failure.compareAndSet(null, thrown);
      }
    };
    int extra = Math.min(job.threads(), count) - 1;
    Thread[] helpers = new Thread[Math.max(0, extra)];
    for (int i = 0; i < helpers.length; i++) {
      helpers[i] = Thread.ofPlatform().daemon().name("kestrel-work-" + i).start(loop);
    }
    loop.run();
    join(helpers, failure);
    Throwable thrown = failure.get();
    switch (thrown) {
      case null -> {}
      case RuntimeException runtime -> throw runtime;
      case Error error -> throw error;
      default -> throw new RasterException("A tile failed: " + thrown.getMessage(), thrown);
    }
  }

  private static void join(Thread[] helpers, AtomicReference<Throwable> failure) {
    boolean interrupted = false;
    for (Thread helper : helpers) {
      while (true) {
        try {
          helper.join();
          break;
        } catch (InterruptedException again) {
          interrupted = true;
          failure.compareAndSet(null, new CancellationException("interrupted"));
        }
      }
    }
    if (interrupted) {
      Thread.currentThread().interrupt();
    }
  }

  /** Receives one tile of a run over a raster. */
  public interface TileTask {
    void accept(Window tile, float[][] planes);
  }

  /** Reads a raster's level tile by tile and hands each to the task, in no order; reports progress in tiles. */
  public static void overTiles(Raster raster, int level, String what, Job job, TileTask task) {
    Window whole = raster.grid().atLevel(level).window();
    int size = job.tileSize();
    int across = Math.ceilDiv(whole.width(), size);
    int down = Math.ceilDiv(whole.height(), size);
    AtomicInteger done = new AtomicInteger();
    run(across * down, job, i -> {
      Window tile = new Window(i % across * size, i / across * size, size, size).intersect(whole);
      task.accept(tile, raster.read(level, tile, job.request()));
      job.progress(what, done.incrementAndGet(), (long) across * down);
    });
  }
}
