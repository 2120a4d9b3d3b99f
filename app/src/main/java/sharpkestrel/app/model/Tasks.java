package sharpkestrel.app.model;

import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.application.Platform;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleDoubleProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import sharpkestrel.raster.Cancellation;
import sharpkestrel.raster.Heap;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;

/** Long work, one piece after the other, away from the interface thread; the one that runs can be watched and stopped. */
public final class Tasks {

  private final ExecutorService thread =
      Executors.newSingleThreadExecutor(Background.threads("kestrel-task"));
  private final StringProperty title = new SimpleStringProperty("");
  private final StringProperty detail = new SimpleStringProperty("");
  private final DoubleProperty share = new SimpleDoubleProperty();
  private final BooleanProperty running = new SimpleBooleanProperty();
  private volatile Cancellation current = new Cancellation();
  private final Consumer<String> warnings;
  private final int threads;

  /**
   * @param warnings told what jobs warn of, on the interface thread
   * @param threads how many a job may use
   */
  public Tasks(Consumer<String> warnings, int threads) {
    this.warnings = warnings;
    this.threads = threads;
  }

  /** Queues work; afterwards, on the interface thread, its result or its failure is handed on. */
  public <T> void run(
      String what, Function<Job, T> work, Consumer<T> done, Consumer<Throwable> failed) {
    Cancellation cancellation = new Cancellation();
    thread.submit(() -> {
      current = cancellation;
      Platform.runLater(() -> {
        title.set(what);
        detail.set("");
        share.set(-1);
        running.set(true);
      });
      try {
        T result = work.apply(new ShownJob(cancellation));
        Platform.runLater(() -> finish(() -> done.accept(result)));
      } catch (CancellationException stopped) {
        Platform.runLater(() -> finish(() -> {}));
      } catch (OutOfMemoryError full) {
        RasterException told = new RasterException(Heap.exhausted(), full);
        Platform.runLater(() -> finish(() -> failed.accept(told)));
      } catch (Throwable failure) {
        Platform.runLater(() -> finish(() -> failed.accept(failure)));
      }
    });
  }

  /** Queues a short piece of work that shows no progress. */
  public void quietly(Runnable work, Consumer<String> failed) {
    thread.submit(() -> {
      try {
        work.run();
      } catch (RuntimeException failure) {
        Platform.runLater(() -> failed.accept(failure.getMessage()));
      }
    });
  }

  /** Does something on the interface thread when all work queued before is done. */
  public void afterAll(Runnable last) {
    thread.submit(() -> Platform.runLater(last));
  }

  private void finish(Runnable last) {
    running.set(false);
    last.run();
  }

  public void cancel() {
    current.cancel();
  }

  public StringProperty titleProperty() {
    return title;
  }

  public StringProperty detailProperty() {
    return detail;
  }

  /** Share done, or below 0 where it is not known. */
  public DoubleProperty shareProperty() {
    return share;
  }

  public BooleanProperty runningProperty() {
    return running;
  }

  private final class ShownJob implements Job {
    private final Cancellation cancellation;
    private String what = "";
    private long started;
    private long shown;

    ShownJob(Cancellation cancellation) {
      this.cancellation = cancellation;
    }

    @Override
    public synchronized void progress(String newWhat, long done, long total) {
      long now = System.nanoTime();
      if (!newWhat.equals(what)) {
        what = newWhat;
        started = now;
        shown = 0;
      }
      if (now - shown < 100_000_000L && done < total) {
        return;
      }
      shown = now;
      double fraction = total == 0 ? -1 : (double) done / total;
      long left =
          fraction > 0.02 ? Math.round((now - started) / 1e9 * (1 - fraction) / fraction) : -1;
      String text = newWhat + (left >= 0 && done < total ? ", " + left + " s left" : "");
      Platform.runLater(() -> {
        detail.set(text);
        share.set(fraction);
      });
    }

    @Override
    public Cancellation cancellation() {
      return cancellation;
    }

    @Override
    public int threads() {
      return threads;
    }

    @Override
    public void warn(String message) {
      Platform.runLater(() -> warnings.accept(message));
    }
  }
}
