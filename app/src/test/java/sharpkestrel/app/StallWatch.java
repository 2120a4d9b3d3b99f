package sharpkestrel.app;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.function.BooleanSupplier;
import java.util.regex.Pattern;
import javafx.animation.AnimationTimer;

/**
 * Watches how long the interface thread leaves its pulses waiting, and what it was doing meanwhile: a thread of its own
 * looks every few milliseconds and keeps the stack seen half-way through the longest stalls. It counts from the window's
 * first frame on.
 */
final class StallWatch {

  private static final long LOOK_MILLIS = 10;
  private static final long WORTH_A_STACK_MILLIS = 100;

  private static final Pattern LANES = Pattern.compile(
      "sharpkestrel\\.(io|raster|gather|place|sharpen|segment|outline|deliver|check)\\.");

  /** The first pulse draws the window, the second waits until that is done: it opens only then. */
  private static final int OPENING = 2;

  /** A wait between pulses; what the machine held up is what a thread that only sleeps was late by meanwhile. */
  private record Stall(long millis, long heldUp, boolean inTask, List<StackTraceElement> stack) {

    long own() {
      return millis - Math.min(millis, heldUp);
    }
  }

  private final BooleanSupplier running;
  private final Thread interfaceThread;
  private final List<Stall> stalls = new ArrayList<>();
  private final Thread looking = new Thread(this::look, "stall-watch");
  private volatile long last = System.nanoTime();
  private volatile boolean watching = true;
  private volatile List<StackTraceElement> seen = List.of();
  private volatile long late;
  private boolean wasRunning;
  private int pulses;

  private final AnimationTimer timer = new AnimationTimer() {
    @Override
    public void handle(long now) {
      long time = System.nanoTime();
      if (pulses++ < OPENING) {
        last = time;
        return;
      }
      synchronized (stalls) {
        stalls.add(new Stall(
            (time - last) / 1_000_000,
            late / 1_000_000,
            wasRunning && running.getAsBoolean(),
            seen));
      }
      late = 0;
      wasRunning = running.getAsBoolean();
      seen = List.of();
      last = time;
    }
  };

  /**
   * Starts to watch the calling thread, which must be the interface's.
   *
   * @param running whether a task runs
   */
  StallWatch(BooleanSupplier running) {
    this.running = running;
    interfaceThread = Thread.currentThread();
    looking.setDaemon(true);
    looking.start();
    timer.start();
  }

  void stop() {
    watching = false;
    timer.stop();
  }

  private void look() {
    while (watching) {
      long before = System.nanoTime();
      try {
        Thread.sleep(LOOK_MILLIS);
      } catch (InterruptedException stop) {
        return;
      }
      late += Math.max(0, System.nanoTime() - before - 2 * LOOK_MILLIS * 1_000_000);
      if (seen.isEmpty() && System.nanoTime() - last > WORTH_A_STACK_MILLIS / 2 * 1_000_000) {
        seen = List.of(interfaceThread.getStackTrace());
      }
    }
  }

  /** The longest stall, how many were over a tenth of a second, and what the longest ones were doing. */
  String report() {
    List<Stall> sorted;
    synchronized (stalls) {
      sorted = new ArrayList<>(stalls);
    }
    sorted.sort(Comparator.comparingLong(Stall::own).reversed());
    StringBuilder text = new StringBuilder();
    text.append(line("interface thread, all along", sorted));
    text.append(line(
        "interface thread, while a task ran",
        sorted.stream().filter(Stall::inTask).toList()));
    for (Stall stall : sorted.subList(0, Math.min(12, sorted.size()))) {
      if (stall.own() > WORTH_A_STACK_MILLIS) {
        text.append(String.format(
            Locale.ROOT,
            "  %d ms%s: %s%n",
            stall.own(),
            stall.inTask() ? " in a task" : "",
            where(stall)));
      }
    }
    return text.toString();
  }

  /**
   * What the interface thread did in stalls of over a tenth of a second that was work of a lane: it was within a file, a raster
   * or what makes one. Columns in memory are counted as a handle is dragged; how long that takes says as much of the machine.
   */
  List<String> work() {
    synchronized (stalls) {
      return stalls.stream()
          .filter(stall -> stall.own() > WORTH_A_STACK_MILLIS)
          .filter(stall -> stall.stack().stream()
              .anyMatch(frame -> LANES.matcher(frame.getClassName()).lookingAt()))
          .map(StallWatch::where)
          .toList();
    }
  }

  private static String line(String what, List<Stall> longestFirst) {
    return String.format(
        Locale.ROOT,
        "%s: longest stall %d ms (less what held up a sleeping thread too); %d of %d pulses over 100 ms%n",
        what,
        longestFirst.isEmpty() ? 0 : longestFirst.get(0).own(),
        longestFirst.stream().filter(s -> s.own() > WORTH_A_STACK_MILLIS).count(),
        longestFirst.size());
  }

  private static String where(Stall stall) {
    List<String> frames = new ArrayList<>();
    for (StackTraceElement frame : stall.stack()) {
      boolean own = frame.getClassName().startsWith("sharpkestrel");
      if (frame.getMethodName().startsWith("park")
          || frame.getClassName().startsWith("java.util.concurrent.locks")) {
        continue;
      }
      if (frames.size() < 3 || own && frames.size() < 6) {
        String name = frame.getClassName();
        frames.add(name.substring(name.lastIndexOf('.') + 1) + "." + frame.getMethodName() + ":"
            + frame.getLineNumber());
      }
    }
    return String.join(" < ", frames);
  }
}
