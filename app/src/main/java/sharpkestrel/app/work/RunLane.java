package sharpkestrel.app.work;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.application.Platform;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import sharpkestrel.raster.Cancellation;
import sharpkestrel.raster.Job;

/**
 * A queue of runs, one at a time. Each can be watched, cancelled, and moved before the one that waits ahead of it.
 */
public final class RunLane {

  /** A run that waits, or runs. Runs are told apart by identity. */
  public static final class Run {
    private final String title;
    private final Object what;
    private final Work<?> work;
    private final Cancellation cancellation = new Cancellation();

    private Run(String title, Object what, Work<?> work) {
      this.title = title;
      this.what = what;
      this.work = work;
    }

    /** What it makes; empty for what is done between runs and not shown. */
    public String title() {
      return title;
    }

    /** What was handed over with it to tell what it is; null for nothing. */
    public Object what() {
      return what;
    }
  }

  private final ExecutorService thread;
  private final Shown shown = new Shown();
  private final Consumer<String> warned;
  private final int threads;

  /** In the order in which they will run, the one that runs first; guarded by itself. */
  private final List<Run> queue = new ArrayList<>();

  private final ObservableList<Run> seen = FXCollections.observableArrayList();
  private final ObservableList<Run> seenOnly = FXCollections.unmodifiableObservableList(seen);
  private Run running;

  /**
   * @param name of its thread
   * @param warned told what runs warn of, on the interface thread
   * @param threads how many a run may use
   */
  public RunLane(String name, Consumer<String> warned, int threads) {
    thread = Background.pool(name, 1);
    this.warned = warned;
    this.threads = threads;
  }

  /** Queues work; afterwards, on the interface thread, its result or its failure is handed on. */
  public <T> void run(
      String title, Function<Job, T> work, Consumer<T> done, Consumer<Throwable> failed) {
    run(title, null, work, done, failed);
  }

  /**
   * The same.
   *
   * @param what says what the run is to whoever looks at the queue; null for nothing
   */
  public <T> void run(
      String title,
      Object what,
      Function<Job, T> work,
      Consumer<T> done,
      Consumer<Throwable> failed) {
    queue(new Run(title, what, new Work<>(work, done, failed)));
  }

  /** Queues a short piece of work that is not shown. */
  public void quietly(Runnable work, Consumer<String> failed) {
    run(
        "",
        job -> {
          work.run();
          return "";
        },
        done -> {},
        failure -> failed.accept(failure.getMessage()));
  }

  /** Does something on the interface thread when all that was queued before is done. */
  public void afterAll(Runnable last) {
    run("", job -> "", done -> last.run(), failure -> {});
  }

  private void queue(Run run) {
    synchronized (queue) {
      queue.add(run);
    }
    look();
    thread.execute(this::next);
  }

  /** Runs the first that waits; one was queued for each time this is asked for, though it may have been taken back. */
  private void next() {
    Run run;
    synchronized (queue) {
      if (queue.isEmpty()) {
        return;
      }
      run = queue.getFirst();
      running = run;
    }
    if (!run.title.isEmpty()) {
      Platform.runLater(() -> shown.begin(run.title));
    }
    run.work.perform(new ShownJob(run.cancellation, threads, shown, warned), () -> {
      // whoever is told that it is done does not find it in the queue any more
      seen.remove(run);
      if (!run.title.isEmpty()) {
        shown.end();
      }
    });
    synchronized (queue) {
      queue.remove(run);
      running = null;
    }
    look();
  }

  /** Takes a run back; the one that runs stops as soon as it can. */
  public void cancel(Run run) {
    run.cancellation.cancel();
    synchronized (queue) {
      if (run != running) {
        queue.remove(run);
      }
    }
    look();
  }

  /** Stops what runs. */
  public void cancel() {
    synchronized (queue) {
      if (running != null) {
        running.cancellation.cancel();
      }
    }
  }

  /** Lets a run that waits change places with the one that waits ahead of it. */
  public void moveUp(Run run) {
    synchronized (queue) {
      int at = queue.indexOf(run);
      int before = at - 1;
      while (before >= 0 && queue.get(before).title.isEmpty()) {
        before--;
      }
      if (before < 0 || queue.get(before) == running) {
        return;
      }
      queue.set(at, queue.get(before));
      queue.set(before, run);
    }
    look();
  }

  private void look() {
    Platform.runLater(() -> {
      List<Run> now;
      synchronized (queue) {
        now = queue.stream().filter(run -> !run.title.isEmpty()).toList();
      }
      if (!now.equals(seen)) {
        seen.setAll(now);
      }
    });
  }

  /** What runs, then what waits in its order; changes on the interface thread. */
  public ObservableList<Run> queue() {
    return seenOnly;
  }

  /** What is being run. */
  public Shown shown() {
    return shown;
  }
}
