package sharpkestrel.app.work;

import java.util.function.Consumer;
import javafx.beans.binding.Bindings;
import javafx.beans.binding.BooleanBinding;

/**
 * The lanes in which work runs beside the interface, each with its own threads, so that none waits for another: <em>view</em>
 * for tiles, <em>trial</em> for what is asked while one looks, <em>run</em> for the queue of runs, <em>save</em> for small
 * writes. Results are written to disk behind the runs, one after the other.
 */
public final class Lanes {

  private final TrialLane trial;
  private final RunLane run;
  private final RunLane keeping;
  private final SaveLane save;
  private final BooleanBinding busy;

  /**
   * All of them tell on the interface thread.
   *
   * @param warned told what work warns of
   * @param notSaved told what could not be written, and why
   */
  public Lanes(Consumer<String> warned, Consumer<String> notSaved) {
    int cores = Runtime.getRuntime().availableProcessors();
    trial = new TrialLane(warned, cores);
    run = new RunLane("kestrel-run", warned, cores);
    keeping = new RunLane("kestrel-keeping", warned, 1);
    save = new SaveLane(notSaved);
    busy = Bindings.or(run.shown().runningProperty(), trial.shown().runningProperty());
  }

  /** Tiles of pictures; one for all windows. */
  public static ViewLane view() {
    return ViewLane.SHARED;
  }

  /** What is asked while one looks: trials, plots, picks. The newest question of a kind cancels the one before. */
  public TrialLane trial() {
    return trial;
  }

  /** The queue of runs, one at a time on all cores. */
  public RunLane run() {
    return run;
  }

  /** Results being written to the project's folder, behind the runs. */
  public RunLane keeping() {
    return keeping;
  }

  /** Small writes of what must not be lost. */
  public SaveLane save() {
    return save;
  }

  /** Whether anything is run or tried. */
  public BooleanBinding busyProperty() {
    return busy;
  }
}
