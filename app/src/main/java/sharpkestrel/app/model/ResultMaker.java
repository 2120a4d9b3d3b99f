package sharpkestrel.app.model;

import java.nio.file.Path;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.application.Platform;
import sharpkestrel.flow.KeptResults;
import sharpkestrel.flow.Origin;
import sharpkestrel.flow.RunSheet;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.kinds.ResultKinds;
import sharpkestrel.raster.CachedRaster;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Scratch;
import sharpkestrel.step.Step;

/**
 * Makes the project's results: takes what the project's folder keeps, runs the step otherwise, and then keeps what it made
 * while the work goes on.
 */
public final class ResultMaker {

  /** A value, and what tells it from others. */
  public record Made(Object value, Origin.Fingerprint fingerprint) {

    /** A result with this value. */
    public Result as(
        String name, String title, StepSpec step, Given given, Map<String, String> settings) {
      return new Result(
          name, title, step, given.inputs(), given.files(), settings, value, fingerprint);
    }
  }

  private final Workspace workspace;
  private final Lineage lineage = new Lineage();
  private volatile boolean readOnly;
  private volatile Optional<KeptResults> kept = Optional.empty();

  ResultMaker(Workspace workspace) {
    this.workspace = workspace;
  }

  /**
   * @param asOnlooker whether what is kept is read, and nothing is written
   */
  void keepIn(Path folder, boolean asOnlooker) {
    KeptResults results = new KeptResults(folder);
    kept = Optional.of(results);
    readOnly = asOnlooker;
    lineage.setHome(folder);
    if (asOnlooker) {
      return;
    }
    Scratch.in(folder.resolve("scratch"));
    workspace.lanes().keeping().quietly(results::sweep, workspace.messages()::tell);
  }

  /** Finds or makes the value of a step; away from the interface thread. */
  public Made make(
      StepSpec step,
      Map<String, Result> inputs,
      Map<String, String> files,
      Map<String, String> settings,
      Job job) {
    // what was just drawn by hand may be among the files
    workspace.lanes().save().flush(Duration.ofSeconds(30));
    lineage.look(step, files, settings);
    Origin.Fingerprint fingerprint =
        lineage.originOf(step, inputs, files, settings).fingerprint();
    Step<?> set = step.make(values(step, inputs, files), settings);
    Object value = find(fingerprint, step, set, job).orElse(null);
    return new Made(cached(value != null ? value : set.run(job)), fingerprint);
  }

  private Optional<Object> find(
      Origin.Fingerprint fingerprint, StepSpec step, Step<?> set, Job job) {
    return kept.flatMap(k -> k.find(fingerprint, step.resultType(), set, job));
  }

  /**
   * Brings back a result of a project that was closed. Where what it was made from has changed, but the result itself is
   * kept, it comes back as it was; it is stale then. A delivered file is not written again.
   *
   * @param before what told the result from others when the project was saved
   */
  public Made bringBack(
      RunSheet.Entry entry, Given given, Optional<Origin.Fingerprint> before, Job job) {
    StepSpec step = StepCatalogue.get(entry.step());
    Map<String, Result> inputs = given.inputs();
    Map<String, String> files = given.files();
    lineage.look(step, files, entry.settings());
    Origin.Fingerprint now =
        lineage.originOf(step, inputs, files, entry.settings()).fingerprint();
    if (step.resultType() == Path.class) {
      return new Made(Path.of(entry.settings().get("file")), before.orElse(now));
    }
    if (before.isPresent() && !before.get().key().equals(now.key())) {
      Step<?> set = step.make(values(step, inputs, files), entry.settings());
      Optional<Object> old = find(before.get(), step, set, job);
      if (old.isPresent()) {
        return new Made(cached(old.get()), before.get());
      }
    }
    // what it warns of was told when it was made
    boolean same = before.isPresent() && before.get().key().equals(now.key());
    return make(step, inputs, files, entry.settings(), same ? job.withoutWarnings() : job);
  }

  /** The inputs of a step: values of results, and files opened as what the step wants. */
  public static Map<String, Object> values(
      StepSpec step, Map<String, Result> inputs, Map<String, String> files) {
    Map<String, Object> values = new LinkedHashMap<>();
    inputs.forEach((name, result) -> values.put(name, result.value()));
    files.forEach((name, file) -> values.put(
        name, ResultKinds.open(Path.of(file), step.inputCalled(name).type(), Job.QUIET)));
    return values;
  }

  /** A raster with its tiles cached; anything else as it is. */
  public static Object cached(Object value) {
    return value instanceof Raster raster ? CachedRaster.of(raster) : value;
  }

  /** Keeps a result in the project's folder, where it is worth it; a raster then goes on from its file. */
  public void keep(Result result) {
    KeptResults folder = kept.orElse(null);
    if (folder == null || readOnly || !KeptResults.isWorthIt(result.value())) {
      return;
    }
    workspace
        .lanes()
        .keeping()
        .run(
            "Keeping " + result.title(),
            job -> folder.has(result.made())
                ? result.value()
                : folder.keep(result.made(), result.value(), job),
            filed -> {
              if (filed instanceof Raster written
                  && result.value() instanceof CachedRaster cached) {
                if (written != cached) {
                  cached.continueFrom(written);
                }
              }
            },
            failure -> workspace
                .messages()
                .tell(result.title() + " is not kept: " + failure.getMessage()
                    + " It will be made again when the project is opened."));
  }

  /** Deletes kept results that no result of the project, nor any of those named, refers to. */
  public void prune(List<Result> results, Set<String> alsoWanted) {
    Set<String> wanted = Stream.concat(
            results.stream().map(r -> r.made().file()), alsoWanted.stream())
        .collect(Collectors.toSet());
    if (readOnly) {
      return;
    }
    kept.ifPresent(k ->
        workspace.lanes().keeping().quietly(() -> k.prune(wanted), workspace.messages()::tell));
  }

  /** What tells a result from others if it had these settings. */
  Origin.Fingerprint fingerprint(Result result, Map<String, String> settings) {
    return lineage
        .originOf(result.step(), result.inputs(), result.files(), settings)
        .fingerprint();
  }

  /** The names of results that come from what is no longer there as it was. */
  public Set<String> stale() {
    return lineage.stale(workspace.results());
  }

  /** Those of the stale results that can be made again from what is there now: all but deliveries. */
  public List<Result> toRemake(Set<String> stale) {
    return workspace.results().stream()
        .filter(r -> stale.contains(r.name()) && r.step().resultType() != Path.class)
        .toList();
  }

  /** Runs the steps of stale results again, in the order in which they hang together; deliveries stay as they are. */
  public void remakeStale() {
    toRemake(stale()).forEach(this::remake);
  }

  /** Makes a result again from what is there now, in its place. */
  public void remake(Result before) {
    Map<String, Result> inputs = new LinkedHashMap<>();
    workspace
        .lanes()
        .run()
        .run(
            before.title(),
            job -> {
              before.inputs().forEach((name, input) -> inputs.put(name, current(input.name())));
              return make(before.step(), inputs, before.files(), before.settings(), job);
            },
            made -> {
              Result after = before.remade(inputs, made.value(), made.fingerprint());
              workspace.replace("make " + before.title() + " again", before, after);
              keep(after);
            },
            failure -> workspace.messages().tell(before.title() + ": " + failure.getMessage()));
  }

  /**
   * The project's result of a name, asked of the interface thread: results are added there just before the next task
   * begins.
   *
   * @throws RasterException where there is none
   */
  public Result current(String name) {
    return current(name, () -> workspace.named(name));
  }

  /**
   * A result that is looked for on the interface thread.
   *
   * @param name what it is called where it is missed
   */
  Result current(String name, Supplier<Optional<Result>> found) {
    FutureTask<Result> look = new FutureTask<>(() -> found
        .get()
        .orElseThrow(
            () -> new RasterException("The result '" + name + "' it needs was not made.")));
    Platform.runLater(look);
    try {
      return look.get();
    } catch (InterruptedException stopped) {
      Thread.currentThread().interrupt();
      throw new CancellationException("interrupted");
    } catch (ExecutionException missing) {
      throw new RasterException(missing.getCause().getMessage(), missing);
    }
  }
}
