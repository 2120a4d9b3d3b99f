package sharpkestrel.flow;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.LinkedHashMap;
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
  private final Map<String, Object> values = new LinkedHashMap<>();
  private final Map<String, String> keys = new HashMap<>();

  /**
   * @param kept where the results are that a sheet keeps
   */
  public Runner(KeptResults kept) {
    this.kept = kept;
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
        inputs.put(name, ResultKinds.open(Path.of(file), input.type()));
        parts.put(name, Origin.stateOfInput(input, file));
      }
    });
    Map<String, String> settings = new TreeMap<>();
    entry.settings().forEach((name, text) -> settings.put(name, RunSheet.resolve(text, variables)));
    for (StepSpec.Option option : spec.options()) {
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
