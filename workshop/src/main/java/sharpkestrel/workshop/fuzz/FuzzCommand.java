package sharpkestrel.workshop.fuzz;

import com.sun.management.ThreadMXBean;
import java.io.IOException;
import java.io.PrintWriter;
import java.lang.management.ManagementFactory;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import sharpkestrel.expr.ExpressionException;
import sharpkestrel.raster.RasterException;

/** Reads files that were damaged on purpose: each must be read, or refused by a clear sentence, soon and with little memory. */
@Command(
    name = "fuzz",
    description =
        "For developers: damages small files of every kind at random and reads them. Each must be read, or refused by a clear"
            + " message with the file's name, within seconds and within the memory a file of its size may take.",
    mixinStandardHelpOptions = true)
public final class FuzzCommand implements Runnable {

  @Option(names = "--count", description = "Damaged files for each reader.")
  int count = 10_000;

  @Option(names = "--seconds", description = "Ends earlier, after so many seconds in all.")
  long seconds = Long.MAX_VALUE;

  @Option(names = "--reader", description = "Only these: ${COMPLETION-CANDIDATES}.")
  List<Reader> readers = List.of(Reader.values());

  @Option(
      names = "--seed",
      description = "Number of the first damaged file; each follows from its number.")
  long seed;

  @Option(names = "--from", description = "Folders of more files to damage.")
  List<Path> from = List.of();

  @Option(names = "--keep", description = "Folder in which what was found is kept.")
  Path keep;

  @Spec
  CommandSpec spec;

  private static final int SLOWEST_SECONDS = 5;

  /** What was found wrong, in words; empty where nothing was. */
  private final List<String> found = new ArrayList<>();

  private ExecutorService worker = Executors.newSingleThreadExecutor(daemon());

  @Override
  public void run() {
    PrintWriter out = spec.commandLine().getOut();
    Path folder = null;
    try {
      folder = Files.createTempDirectory("kestrel-fuzz");
      Map<Reader, Integer> done = run(folder);
      done.forEach((reader, many) -> out.println(reader + ": " + many + " files"));
      found.forEach(out::println);
      out.flush();
    } catch (IOException failed) {
      throw new RasterException(folder + ": " + failed.getMessage(), failed);
    } finally {
      delete(folder);
    }
    if (!found.isEmpty()) {
      throw new RasterException(
          found.size() + " damaged files were not refused as they should be.");
    }
  }

  private static void delete(Path folder) {
    if (folder == null) {
      return;
    }
    try (var all = Files.walk(folder)) {
      for (Path each : all.sorted(java.util.Comparator.reverseOrder()).toList()) {
        Files.deleteIfExists(each);
      }
    } catch (IOException stays) {
      // files for a moment, in the folder for such
      return;
    }
  }

  private Map<Reader, Integer> run(Path folder) throws IOException {
    Path seeds = Files.createDirectory(folder.resolve("seeds"));
    List<Path> all = Seeds.make(seeds, from);
    long end = seconds == Long.MAX_VALUE
        ? Long.MAX_VALUE
        : System.nanoTime() + TimeUnit.SECONDS.toNanos(seconds);
    Map<Reader, Integer> done = new EnumMap<>(Reader.class);
    Map<Reader, List<Path>> own = new EnumMap<>(Reader.class);
    for (Reader reader : readers) {
      own.put(
          reader,
          all.stream()
              .filter(f -> reader.endings.stream().anyMatch(f.toString()::endsWith))
              .toList());
    }
    for (int n = 0; n < count && System.nanoTime() < end; n++) {
      for (Reader reader : readers) {
        Path original =
            own.get(reader).get((int) Math.floorMod(seed + n, own.get(reader).size()));
        check(reader, original, seed + n, seeds);
        done.merge(reader, 1, Integer::sum);
      }
    }
    worker.shutdownNow();
    return done;
  }

  private static java.util.concurrent.ThreadFactory daemon() {
    return task -> {
      Thread thread = new Thread(task, "fuzz");
      thread.setDaemon(true);
      return thread;
    };
  }

  private void check(Reader reader, Path original, long number, Path folder) throws IOException {
    byte[] bytes = new Mutator(number).mutate(Files.readAllBytes(original), reader.text);
    String ending = reader.endings.stream()
        .filter(original.toString()::endsWith)
        .findFirst()
        .orElseThrow();
    Path file = folder.resolve("damaged" + ending);
    Files.deleteIfExists(file);
    Files.write(file, bytes);
    Future<String> outcome = worker.submit(() -> outcome(reader, file, bytes.length));
    String wrong;
    try {
      wrong = outcome.get(SLOWEST_SECONDS, TimeUnit.SECONDS);
    } catch (TimeoutException hangs) {
      wrong = "takes more than " + SLOWEST_SECONDS + " s";
      // the thread cannot be stopped, so it is left behind
      worker.shutdownNow();
      worker = Executors.newSingleThreadExecutor(daemon());
    } catch (ExecutionException | InterruptedException impossible) {
      throw new IllegalStateException(impossible);
    }
    if (!wrong.isEmpty()) {
      found.add(reader + " number " + number + " from " + original.getFileName() + ": " + wrong);
      if (keep != null) {
        Files.createDirectories(keep);
        Files.write(keep.resolve(reader + "-" + number + ending), bytes);
      }
    }
  }

  private static String outcome(Reader reader, Path file, int length) {
    ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
    long before = threads.getCurrentThreadAllocatedBytes();
    String wrong = "";
    try {
      reader.read(file);
    } catch (RasterException refused) {
      String message = String.valueOf(refused.getMessage());
      wrong = message.contains(file.getFileName().toString())
          ? ""
          : "is refused without its name: " + message;
    } catch (ExpressionException refused) {
      wrong = refused.getMessage() == null ? "is refused without a word" : "";
    } catch (IOException | RuntimeException | Error unclear) {
      wrong = "is refused by " + unclear;
    }
    long allocated = threads.getCurrentThreadAllocatedBytes() - before;
    long most = Math.max(Runtime.getRuntime().maxMemory() / 8, 256L * length);
    return wrong.isEmpty() && allocated > most
        ? "takes " + (allocated >> 20) + " MiB of memory for " + length + " bytes"
        : wrong;
  }
}
