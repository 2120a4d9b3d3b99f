package sharpkestrel.app.work;

import java.util.function.Consumer;
import javafx.application.Platform;
import sharpkestrel.raster.Cancellation;
import sharpkestrel.raster.Job;

/** A job whose progress and warnings are told on the interface thread, ten times a second at most. */
final class ShownJob implements Job {

  private static final long OFTEN = 100_000_000L;

  private final Cancellation cancellation;
  private final int threads;
  private final Shown shown;
  private final Consumer<String> warned;
  private String what = "";
  private long started;
  private long told;

  ShownJob(Cancellation cancellation, int threads, Shown shown, Consumer<String> warned) {
    this.cancellation = cancellation;
    this.threads = threads;
    this.shown = shown;
    this.warned = warned;
  }

  @Override
  public synchronized void progress(String newWhat, long done, long total) {
    long now = System.nanoTime();
    if (!newWhat.equals(what)) {
      what = newWhat;
      started = now;
      told = 0;
    }
    if (now - told < OFTEN && done < total) {
      return;
    }
    told = now;
    double share = total == 0 ? -1 : (double) done / total;
    long left = share > 0.02 ? Math.round((now - started) / 1e9 * (1 - share) / share) : -1;
    String text = newWhat + (left >= 0 && done < total ? ", " + left + " s left" : "");
    Platform.runLater(() -> {
      if (!cancellation.isCancelled()) {
        shown.at(text, share);
      }
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
    Platform.runLater(() -> warned.accept(message));
  }
}
