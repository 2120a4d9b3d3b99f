package sharpkestrel.app.work;

import java.io.IOException;
import java.lang.foreign.FunctionDescriptor;
import java.lang.foreign.Linker;
import java.lang.foreign.ValueLayout;
import java.lang.invoke.MethodHandle;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ThreadFactory;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;

/**
 * Threads for work behind the interface. On Linux, where Java's own thread priorities do nothing, they raise their
 * niceness, as do the threads they start: a computation on every core then leaves a core to the interface whenever it
 * asks for one. Elsewhere they run as any other thread.
 */
public final class Background {

  private static final int ONE_THREAD = 0;
  private static final int THIS_THREAD = 0;
  private static final int NICENESS = 10;

  /** Made by the first thread that stands back: linking takes a tenth of a second that the interface has no time for. */
  private static final class Native {
    static final Optional<MethodHandle> SET_PRIORITY = setPriority();
  }

  private Background() {}

  /** So long a thread waits for more work before it ends: a window that is gone leaves none. */
  private static final long IDLE_SECONDS = 5;

  /** Daemon threads that work at what is queued in its order, and end when nothing is left to do. */
  static ThreadPoolExecutor pool(String name, int threads) {
    return pool(threads(name), threads, new LinkedBlockingQueue<>());
  }

  static ThreadPoolExecutor pool(
      ThreadFactory factory, int threads, BlockingQueue<Runnable> queue) {
    ThreadPoolExecutor pool =
        new ThreadPoolExecutor(threads, threads, IDLE_SECONDS, TimeUnit.SECONDS, queue, factory);
    pool.allowCoreThreadTimeOut(true);
    return pool;
  }

  /** Makes daemon threads of a name, numbered. */
  public static ThreadFactory threads(String name) {
    ThreadFactory plain = Thread.ofPlatform().daemon().name(name + "-", 0).factory();
    return work -> plain.newThread(() -> {
      standBack(THIS_THREAD);
      work.run();
    });
  }

  /**
   * Has the virtual machine's compilers stand back, too. While a window opens they want both cores for code that has run a
   * few times only, and the first picture waits for them.
   */
  public static void compilersStandBack() {
    try (DirectoryStream<Path> threads = Files.newDirectoryStream(Path.of("/proc/self/task"))) {
      for (Path thread : threads) {
        if (Files.readString(thread.resolve("comm")).matches("C[12] Comp.*\\s*")) {
          standBack(Integer.parseInt(thread.getFileName().toString()));
        }
      }
    } catch (IOException | NumberFormatException notLinux) {
      // compilers that do not stand back still compile
    }
  }

  private static void standBack(int thread) {
    Native.SET_PRIORITY.ifPresent(call -> {
      try {
        int refused = (int) call.invokeExact(ONE_THREAD, thread, NICENESS);
        assert refused <= 0;
      } catch (Throwable notHere) {
        // a thread that does not stand back still works
      }
    });
  }

  /** {@code int setpriority(int which, id_t who, int value)} of POSIX; Linux takes 0 and 0 for the calling thread. */
  private static Optional<MethodHandle> setPriority() {
    if (!System.getProperty("os.name").equals("Linux")) {
      return Optional.empty();
    }
    Linker linker = Linker.nativeLinker();
    FunctionDescriptor threeInts = FunctionDescriptor.of(
        ValueLayout.JAVA_INT, ValueLayout.JAVA_INT, ValueLayout.JAVA_INT, ValueLayout.JAVA_INT);
    return linker
        .defaultLookup()
        .find("setpriority")
        .map(address -> linker.downcallHandle(address, threeInts));
  }
}
