package sharpkestrel.app.model;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Function;
import java.util.function.UnaryOperator;

/**
 * What a step is given: results of the project, and files.
 *
 * @param inputs by input name
 * @param files by input name
 */
public record Given(Map<String, Result> inputs, Map<String, String> files) {

  /**
   * What a step of a sheet refers to: results after an at sign, else files.
   *
   * @param named the result of a name; fails where there is none
   * @param file a file as it is named on this machine
   */
  public static Given of(
      Map<String, String> references, Function<String, Result> named, UnaryOperator<String> file) {
    Given given = new Given(new LinkedHashMap<>(), new LinkedHashMap<>());
    references.forEach((name, reference) -> {
      if (reference.startsWith("@")) {
        given.inputs.put(name, named.apply(reference.substring(1)));
      } else {
        given.files.put(name, file.apply(reference));
      }
    });
    return given;
  }
}
