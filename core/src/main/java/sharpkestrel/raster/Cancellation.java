package sharpkestrel.raster;

import java.util.concurrent.CancellationException;

/** A wish to stop that computations look at between tiles. */
public final class Cancellation {

  /** Never cancelled. */
  public static final Cancellation NEVER = new Cancellation();

  private volatile boolean cancelled;

  public void cancel() {
    if (this == NEVER) {
      throw new IllegalStateException(
          "This cancellation is shared by work that is never cancelled");
    }
    cancelled = true;
  }

  public boolean isCancelled() {
    return cancelled;
  }

  /**
   * @throws CancellationException once cancelled
   */
  public void check() {
    if (cancelled) {
      throw new CancellationException("cancelled");
    }
  }
}
