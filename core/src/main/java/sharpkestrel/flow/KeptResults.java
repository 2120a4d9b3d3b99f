package sharpkestrel.flow;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import sharpkestrel.kinds.ResultKind;
import sharpkestrel.kinds.ResultKinds;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.Step;

/**
 * Results kept in a folder in open formats, each under a name that is the digest of all that made it, where its kind says. What
 * was made once is found again; deleting any of the files costs only time.
 */
public final class KeptResults {

  private static final Pattern STEM = Pattern.compile("[a-z-]+-[0-9a-f]{16}");
  private static final Pattern NAME =
      Pattern.compile("([a-z-]+-[0-9a-f]{16})\\.(tif|gpkg|geojson|arrow|json)");
  private static final Pattern LEFT = Pattern.compile("\\..+\\.(\\d+)\\.part(\\.\\d+)?");

  private final Path folder;

  public KeptResults(Path folder) {
    this.folder = folder;
  }

  /** Whether results of a type can be kept. */
  public static boolean keeps(Class<?> type) {
    return ResultKinds.ofType(type).flatMap(ResultKind::keeping).isPresent();
  }

  /** Whether a result is worth a file: scores, and rasters that cost no more to make than to read, are not. */
  public static boolean isWorthIt(Object value) {
    return ResultKinds.of(value)
        .keeping()
        .filter(keeping -> keeping.isWorthIt(value))
        .isPresent();
  }

  /**
   * What a step would make, where it is kept. A file that cannot be read counts as none: the result is made again.
   *
   * @param step as set, with its inputs
   */
  public Optional<Object> find(
      Origin.Fingerprint fingerprint, Class<?> type, Step<?> step, Job job) {
    ResultKind.Keeping<?> keeping =
        ResultKinds.ofType(type).flatMap(ResultKind::keeping).orElse(null);
    if (keeping == null || !isThere(fingerprint, keeping)) {
      return Optional.empty();
    }
    try {
      return Optional.of(read(fingerprint, keeping, step, job));
    } catch (RasterException damaged) {
      job.warn("A kept result is made again. " + damaged.getMessage());
      return Optional.empty();
    }
  }

  private <T> T read(
      Origin.Fingerprint fingerprint, ResultKind.Keeping<T> keeping, Step<?> step, Job job) {
    T found = keeping.read(stem(fingerprint, keeping), step, job);
    return keeping.guarded(found, step, job);
  }

  private Path stem(Origin.Fingerprint fingerprint, ResultKind.Keeping<?> keeping) {
    return folder.resolve(keeping.folder()).resolve(fingerprint.file());
  }

  private boolean isThere(Origin.Fingerprint fingerprint, ResultKind.Keeping<?> keeping) {
    Path stem = stem(fingerprint, keeping);
    // a name from a project's file is only a name, whatever it says
    return STEM.matcher(fingerprint.file()).matches()
        && keeping.endings().stream()
            .allMatch(
                ending -> Files.isRegularFile(stem.resolveSibling(stem.getFileName() + ending)));
  }

  /**
   * Writes a result under its name, whole or not at all.
   *
   * @return a raster as read from its file; anything else as it came
   */
  public Object keep(Origin.Fingerprint fingerprint, Object value, Job job) {
    ResultKind.Keeping<Object> keeping = ResultKinds.of(value)
        .keeping()
        .orElseThrow(() -> new RasterException(
            "A result such as " + ResultKinds.of(value).name() + " is not kept."));
    return keeping.write(value, stem(fingerprint, keeping), job);
  }

  /** Whether files of a result of some kind are there. */
  public boolean has(Origin.Fingerprint fingerprint) {
    return keepings().stream().anyMatch(keeping -> isThere(fingerprint, keeping));
  }

  private static List<? extends ResultKind.Keeping<?>> keepings() {
    return ResultKinds.all().stream().flatMap(kind -> kind.keeping().stream()).toList();
  }

  /** Deletes kept results that are no longer wanted, and what runs that were killed left half written. */
  public void prune(Set<String> wantedFiles) {
    eachFile(file -> {
      String name = file.getFileName().toString();
      Matcher kept = NAME.matcher(name);
      return kept.matches() ? !wantedFiles.contains(kept.group(1)) : isLeft(name);
    });
  }

  /** Deletes what runs that were killed left half written. */
  public void sweep() {
    eachFile(file -> isLeft(file.getFileName().toString()));
  }

  private void eachFile(java.util.function.Predicate<Path> goes) {
    Set<Path> folders = keepings().stream()
        .map(keeping -> folder.resolve(keeping.folder()))
        .filter(Files::isDirectory)
        .collect(Collectors.toSet());
    for (Path each : folders) {
      try (Stream<Path> files = Files.list(each)) {
        for (Path file : files.filter(goes).toList()) {
          Files.deleteIfExists(file);
        }
      } catch (IOException stays) {
        throw new RasterException(
            each + " could not be tidied: " + stays.getMessage() + ".", stays);
      }
    }
  }

  /** Whether a name is that of a file which a process that is no more was writing. */
  private static boolean isLeft(String name) {
    Matcher left = LEFT.matcher(name);
    return left.matches() && ProcessHandle.of(Long.parseLong(left.group(1))).isEmpty();
  }
}
