package sharpkestrel.cli;

import java.io.PrintWriter;
import java.util.HashSet;
import java.util.Set;
import sharpkestrel.raster.Cancellation;
import sharpkestrel.raster.Job;

/** Progress on one line of the terminal, with the time left; warnings each once; Ctrl-C cancels. */
public final class ConsoleJob implements Job {

  private final PrintWriter err;
  private final boolean live;
  private final int threads;
  private final int tileSize;
  private final Cancellation cancellation = new Cancellation();
  private final Set<String> warned = new HashSet<>();
  private String current = "";
  private long started;
  private long lastShown;

  public ConsoleJob(PrintWriter err, int threads, int tileSize) {
    this.err = err;
    this.live = System.console() != null && System.console().isTerminal();
    this.threads = threads;
    this.tileSize = tileSize;
  }

  @Override
  public synchronized void progress(String what, long done, long total) {
    long now = System.nanoTime();
    if (!what.equals(current)) {
      current = what;
      started = now;
      lastShown = 0;
    }
    if (!live || now - lastShown < 200_000_000L && done < total) {
      return;
    }
    lastShown = now;
    double seconds = (now - started) / 1e9;
    double left = done == 0 ? Double.NaN : seconds * (total - done) / done;
    err.printf("\r%-32s %3d %%  %s   ", what, 100 * done / Math.max(1, total), timeLeft(left));
    if (done >= total) {
      err.print("\r" + " ".repeat(64) + "\r");
    }
    err.flush();
  }

  private static String timeLeft(double seconds) {
    return Double.isNaN(seconds) ? "" : Math.round(seconds) + " s left";
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
  public int tileSize() {
    return tileSize;
  }

  @Override
  public synchronized void warn(String message) {
    if (warned.add(message)) {
      err.println("warning: " + message);
      err.flush();
    }
  }
}
