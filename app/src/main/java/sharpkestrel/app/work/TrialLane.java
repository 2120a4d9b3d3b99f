package sharpkestrel.app.work;

import java.util.HashMap;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.application.Platform;
import sharpkestrel.raster.Cancellation;
import sharpkestrel.raster.Job;

/**
 * Questions asked while one looks: trials, plots, picks. The newest of a kind cancels the one before at once, and its answer
 * is the only one that is told; different kinds do not wait for runs nor, a few at a time, for each other.
 */
public final class TrialLane {

  /** Enough that one that is slow to stop does not keep the newest waiting. */
  private static final int THREADS = 3;

  private final ExecutorService threads = Background.pool("kestrel-trial", THREADS);
  private final Consumer<String> warned;
  private final int cores;
  private final Shown shown = new Shown();

  /** The newest question of each kind that is not answered yet; of the interface thread. */
  private final Map<Object, Cancellation> asked = new HashMap<>();

  private Cancellation latest = new Cancellation();

  TrialLane(Consumer<String> warned, int cores) {
    this.warned = warned;
    this.cores = cores;
  }

  /**
   * Asks something; to be called on the interface thread, on which the answer is told.
   *
   * @param kind whose question before this lapses
   * @param title what is shown meanwhile; empty for what is too short to be shown
   */
  public <T> void ask(
      Object kind,
      String title,
      Function<Job, T> work,
      Consumer<T> done,
      Consumer<Throwable> failed) {
    drop(kind);
    Cancellation mine = new Cancellation();
    asked.put(kind, mine);
    if (!title.isEmpty()) {
      latest = mine;
      shown.begin(title);
    }
    Consumer<Runnable> ifWanted = told -> {
      if (!mine.isCancelled()) {
        told.run();
      }
    };
    Work<T> question = new Work<>(
        work,
        answer -> ifWanted.accept(() -> done.accept(answer)),
        failure -> ifWanted.accept(() -> failed.accept(failure)));
    // what is not the latest any more tells nothing of how far it is
    Shown seen = title.isEmpty() ? new Shown() : shown;
    threads.execute(() -> {
      if (!mine.isCancelled()) {
        question.perform(new ShownJob(mine, cores, seen, warned), () -> ended(kind, mine));
      } else {
        Platform.runLater(() -> ended(kind, mine));
      }
    });
  }

  private void ended(Object kind, Cancellation which) {
    asked.remove(kind, which);
    if (latest == which) {
      shown.end();
    }
  }

  /** Nobody waits for the answer of this kind any more. */
  public void drop(Object kind) {
    Cancellation before = asked.remove(kind);
    if (before != null) {
      before.cancel();
      if (latest == before) {
        shown.end();
      }
    }
  }

  /** Stops what is shown. */
  public void cancel() {
    latest.cancel();
    shown.end();
  }

  /** Whether nobody waits for an answer, shown or not; of the interface thread. */
  public boolean isAnswered() {
    return asked.isEmpty();
  }

  /** The newest question that is worth to be shown. */
  public Shown shown() {
    return shown;
  }
}
