package sharpkestrel.app.work;

import java.io.IOException;
import java.time.Duration;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import javafx.application.Platform;

/**
 * Small writes of what a person did and of what there is. They never wait behind other work; of several writes to one file
 * that wait, the last is done. The window does not close before all is written.
 */
public final class SaveLane {

  /** A write. */
  public interface Write {
    void run() throws IOException;
  }

  private final ExecutorService thread = Background.pool(
      Thread.ofPlatform().daemon().name("kestrel-save").factory(), 1, new LinkedBlockingQueue<>());
  private final Consumer<String> notSaved;

  /** The newest write to each file, in order; guarded by itself. */
  private final Map<Object, Write> waiting = new LinkedHashMap<>();

  private int open;

  /** One for all, as it only says when. */
  private static final ScheduledExecutorService CLOCK = Executors.newSingleThreadScheduledExecutor(
      Thread.ofPlatform().daemon().name("kestrel-save-clock").factory());

  private final Map<Object, ScheduledFuture<?>> resting = new HashMap<>();

  SaveLane(Consumer<String> notSaved) {
    this.notSaved = notSaved;
  }

  /**
   * Writes something; a write to the same file that has not begun is replaced by this one.
   *
   * @param file what is written to
   */
  public void write(Object file, Write write) {
    synchronized (waiting) {
      waiting.remove(file);
      waiting.put(file, write);
      open++;
    }
    thread.execute(this::next);
  }

  private void next() {
    Write write;
    Object file;
    synchronized (waiting) {
      file = waiting.isEmpty() ? null : waiting.keySet().iterator().next();
      write = file == null ? null : waiting.remove(file);
    }
    try {
      if (write != null) {
        write.run();
      }
    } catch (IOException | RuntimeException failed) {
      String what = file + " could not be written: " + failed.getMessage();
      Platform.runLater(() -> notSaved.accept(what));
    } finally {
      synchronized (waiting) {
        open--;
        waiting.notifyAll();
      }
    }
  }

  /**
   * Does something on the interface thread once nobody has asked for it again for a while, as after the last step of a slider.
   *
   * @param what is asked for
   */
  public void atRest(Object what, Duration rest, Runnable act) {
    synchronized (resting) {
      ScheduledFuture<?> before = resting.put(
          what,
          CLOCK.schedule(
              () -> Platform.runLater(() -> {
                synchronized (resting) {
                  resting.remove(what);
                }
                act.run();
              }),
              rest.toMillis(),
              TimeUnit.MILLISECONDS));
      if (before != null) {
        before.cancel(false);
      }
    }
  }

  /** Whether nothing waits to come to rest. */
  public boolean isAtRest() {
    synchronized (resting) {
      return resting.isEmpty();
    }
  }

  /** Does not wait any more for what has not come to rest. */
  public void dropResting() {
    synchronized (resting) {
      resting.values().forEach(each -> each.cancel(false));
      resting.clear();
    }
  }

  /** Does something when all that was asked for so far is written. */
  public void whenWritten(Runnable act) {
    write(new Object(), act::run);
  }

  /**
   * Waits until all is written.
   *
   * @return whether it was within that time
   */
  public boolean flush(Duration atMost) {
    long end = System.nanoTime() + atMost.toNanos();
    synchronized (waiting) {
      while (open > 0) {
        long left = (end - System.nanoTime()) / 1_000_000;
        if (left <= 0) {
          return false;
        }
        try {
          waiting.wait(left);
        } catch (InterruptedException stopped) {
          Thread.currentThread().interrupt();
          return false;
        }
      }
    }
    return true;
  }
}
