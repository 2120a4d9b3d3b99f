package sharpkestrel.flow;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.BiConsumer;
import sharpkestrel.kinds.ResultKinds;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.Step;

/**
 * Runs the steps of a sheet in order. Results to be kept are written, so that a second run finds them.
 */
public final class Runner {

  private final KeptResults kept;
  private final List<Path> writable;
  private final Map<String, Object> values = new LinkedHashMap<>();
  private final Map<String, String> keys = new HashMap<>();

  /**
   * @param kept where the results are that a sheet keeps
   * @param writable folders within which a sheet may write files for others; nowhere else
   */
  public Runner(KeptResults kept, List<Path> writable) {
    this.kept = kept;
    this.writable = writable.stream().map(Runner::plain).toList();
  }

  private static Path plain(Path path) {
    return path.toAbsolutePath().normalize();
  }

  /** A sheet may come from anybody, so it writes only where whoever runs it lets it. */
  private void checkOutput(StepSpec.Option option, Map<String, String> settings) {
    for (Path file : option.files(settings.get(option.name()))) {
      if (writable.stream().noneMatch(plain(file)::startsWith)) {
        throw new RasterException("The sheet wants to write " + plain(file)
            + ", which lies outside of " + writable
            + ". Allow the folder (--to FOLDER), or change the sheet.");
      }
    }
  }

  /**
   * @param variables replace those of the sheet
   * @param after told each step's entry and result as it is done
   * @return results by name
   */
  public Map<String, Object> run(
      RunSheet sheet,
      Map<String, String> variables,
      Job job,
      BiConsumer<RunSheet.Entry, Object> after) {
    Map<String, String> all = new LinkedHashMap<>(sheet.variables());
    all.putAll(variables);
    if (sheet.steps().isEmpty()) {
      throw new RasterException("There is nothing to run: the run sheet has no steps yet.");
    }
    for (RunSheet.Entry entry : sheet.steps()) {
      job.cancellation().check();
      after.accept(entry, runOne(entry, all, job));
    }
    return values;
  }

  private Object runOne(RunSheet.Entry entry, Map<String, String> variables, Job job) {
    StepSpec spec = StepCatalogue.get(entry.step());
    Map<String, Object> inputs = new HashMap<>();
    Map<String, String> parts = new TreeMap<>();
    entry.inputs().forEach((name, reference) -> {
      if (reference.startsWith("@")) {
        inputs.put(name, values.get(reference.substring(1)));
        parts.put(name, keys.get(reference.substring(1)));
      } else {
        String file = RunSheet.resolve(reference, variables);
        StepSpec.Input input = spec.inputCalled(name);
        inputs.put(name, ResultKinds.open(Path.of(file), input.type(), job));
        parts.put(name, Origin.stateOfInput(input, file));
      }
    });
    Map<String, String> settings = new TreeMap<>();
    entry.settings().forEach((name, text) -> settings.put(name, RunSheet.resolve(text, variables)));
    for (StepSpec.Option option : spec.options()) {
      if (option.namesFiles()
          && spec.resultType() == Path.class
          && settings.containsKey(option.name())) {
        checkOutput(option, settings);
      }
      if (Origin.isRead(spec, option) && settings.containsKey(option.name())) {
        parts.put(option.name(), Origin.stateOfSetting(option, settings));
      }
    }
    Origin.Fingerprint fingerprint = new Origin(spec, settings, parts).fingerprint();
    Step<?> step = spec.make(inputs, settings);
    Object value = (entry.keep()
            ? kept.find(fingerprint, spec.resultType(), step, job)
            : Optional.<Object>empty())
        .orElse(null);
    if (value == null) {
      value = step.run(job);
      if (entry.keep()) {
        value = kept.keep(fingerprint, value, job);
      }
    }
    values.put(entry.name(), value);
    keys.put(entry.name(), fingerprint.key());
    return value;
  }
}
