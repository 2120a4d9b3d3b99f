package sharpkestrel.app.model;

import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import sharpkestrel.flow.Origin;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.kinds.ResultKinds;
import sharpkestrel.raster.Raster;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Suits;

/**
 * One result of the project and how it was made.
 *
 * @param inputs for each input of the step, the result it came from
 * @param files for each input that came from a file, its name
 * @param made tells the result from others by all that made it
 */
public record Result(
    String name,
    String title,
    StepSpec step,
    Map<String, Result> inputs,
    Map<String, String> files,
    Map<String, String> settings,
    Object value,
    Origin.Fingerprint made) {

  public Stage stage() {
    return step.stage();
  }

  /** A few words for the trail. */
  public String note() {
    return ResultKinds.note(value, stage());
  }

  /** Whole numbers in groups of three. */
  public static String grouped(long number) {
    return String.format(java.util.Locale.ROOT, "%,d", number).replace(',', '\u2009');
  }

  /** The raster this shows under its objects: its own, or that of the nearest ancestor. */
  public Raster backdrop() {
    if (value instanceof Raster raster) {
      return raster;
    }
    // of a scene and what was measured on it the scene, whichever was given first
    return Stream.concat(
            Stream.of("scene", "objects", "outlines").map(inputs::get), inputs.values().stream())
        .filter(Objects::nonNull)
        .map(Result::underObjects)
        .filter(Objects::nonNull)
        .findFirst()
        .orElse(null);
  }

  /** What is seen under objects that were made from this: of probabilities the scene that they are of. */
  private Raster underObjects() {
    boolean probable = ResultKinds.of(value).suits(value, Suits.PROBABILITIES);
    return probable && inputs.containsKey("scene") ? inputs.get("scene").backdrop() : backdrop();
  }

  /** What it was made from in the end: the result, itself perhaps, that was made from none, of a scene and objects the scene's. */
  public Result source() {
    return Stream.concat(Stream.of("scene", "objects").map(inputs::get), inputs.values().stream())
        .filter(Objects::nonNull)
        .findFirst()
        .map(Result::source)
        .orElse(this);
  }

  public boolean descendsFrom(Result other) {
    return inputs.values().stream()
        .anyMatch(input -> input.name().equals(other.name()) || input.descendsFrom(other));
  }

  /** The same result with other settings, and so another value. */
  public Result as(Map<String, String> newSettings, Object newValue, Origin.Fingerprint newMade) {
    return new Result(name, title, step, inputs, files, newSettings, newValue, newMade);
  }

  /** The same result under another title. */
  Result titled(String newTitle) {
    return called(name, newTitle);
  }

  /** The same result under another name and title. */
  Result called(String newName, String newTitle) {
    return new Result(newName, newTitle, step, inputs, files, settings, value, made);
  }

  /** The same result made again. */
  Result remade(Map<String, Result> newInputs, Object newValue, Origin.Fingerprint newMade) {
    return new Result(name, title, step, newInputs, files, settings, newValue, newMade);
  }
}
