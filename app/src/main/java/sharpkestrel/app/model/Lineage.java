package sharpkestrel.app.model;

import java.io.IOException;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import sharpkestrel.flow.Origin;
import sharpkestrel.flow.StepSpec;

/** What results come from, and whether that is still what it was when they were made. */
final class Lineage {

  private final Map<String, String> states = new ConcurrentHashMap<>();

  /** The project's folder as paths begin; empty for none. */
  private volatile List<String> homes = List.of();

  /** The folder that the project's lies in; empty where that is all there is. */
  private volatile String outer = "";

  /**
   * Files in this folder, or beside it, are told by where they lie from it, so that what was moved with its project is not
   * stale.
   */
  void setHome(Path folder) {
    Set<String> all = new LinkedHashSet<>();
    all.add(folder.toAbsolutePath().normalize() + "/");
    try {
      all.add(folder.toRealPath() + "/");
    } catch (IOException notThere) {
      // it is made when the first result is kept
    }
    Path beside = folder.toAbsolutePath().normalize().getParent();
    homes = List.copyOf(all);
    outer = beside == null || beside.getNameCount() == 0 ? "" : beside + "/";
  }

  private String inHome(String text) {
    String told = text;
    for (String home : homes) {
      told = told.replace(home, "./");
    }
    return outer.isEmpty() ? told : told.replace(outer, "../");
  }

  /** Looks at the files that a step reads; to be called away from the interface thread. */
  void look(StepSpec step, Map<String, String> files, Map<String, String> settings) {
    files.forEach((name, file) ->
        states.put(ofInput(step, name, file), Origin.stateOfInput(step.inputCalled(name), file)));
    for (StepSpec.Option option : step.options()) {
      if (Origin.isRead(step, option) && settings.containsKey(option.name())) {
        states.put(ofSetting(step, option, settings), Origin.stateOfSetting(option, settings));
      }
    }
  }

  private static String ofInput(StepSpec step, String name, String file) {
    return step.id() + "|" + name + "|" + file;
  }

  /** What a step reads may depend on all its settings. */
  private static String ofSetting(
      StepSpec step, StepSpec.Option option, Map<String, String> settings) {
    return step.id() + "|" + option.name() + "|" + new TreeMap<>(settings);
  }

  /** Where a result comes from, its files being as they were when they were last looked at. */
  Origin originOf(
      StepSpec step,
      Map<String, Result> inputs,
      Map<String, String> files,
      Map<String, String> settings) {
    Map<String, String> parts = new LinkedHashMap<>();
    files.forEach((name, file) ->
        parts.put(name, inHome(states.getOrDefault(ofInput(step, name, file), ""))));
    for (StepSpec.Option option : step.options()) {
      if (Origin.isRead(step, option) && settings.containsKey(option.name())) {
        parts.put(
            option.name(), inHome(states.getOrDefault(ofSetting(step, option, settings), "")));
      }
    }
    inputs.forEach((name, input) -> parts.put(name, input.made().key()));
    Map<String, String> told = new LinkedHashMap<>(settings);
    for (StepSpec.Option option : step.options()) {
      if (option.namesFiles()) {
        told.computeIfPresent(option.name(), (name, text) -> inHome(text));
      }
    }
    return new Origin(step, told, parts);
  }

  /**
   * The names of results of which an input has been replaced since, is stale itself, or a file they were made from has
   * changed.
   *
   * @param results inputs before what is made of them
   */
  Set<String> stale(List<Result> results) {
    Map<String, Result> byName = new HashMap<>();
    results.forEach(result -> byName.put(result.name(), result));
    Set<String> stale = new HashSet<>();
    for (Result result : results) {
      boolean inputChanged = result.inputs().values().stream().anyMatch(input -> {
        Result now = byName.get(input.name());
        return now != null
            && (stale.contains(input.name())
                || !now.made().key().equals(input.made().key()));
      });
      Origin origin = originOf(result.step(), result.inputs(), result.files(), result.settings());
      if (inputChanged || !origin.fingerprint().key().equals(result.made().key())) {
        stale.add(result.name());
      }
    }
    return stale;
  }
}
