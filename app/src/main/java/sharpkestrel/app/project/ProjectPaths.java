package sharpkestrel.app.project;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import sharpkestrel.flow.RunSheet;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.raster.RasterException;

/**
 * Paths in a project's file: those of files in the project, or beside it, are relative to its folder, so that both can be moved
 * together.
 */
final class ProjectPaths {

  private ProjectPaths() {}

  /** A step with its files as they are on this machine. */
  static RunSheet.Entry resolved(RunSheet.Entry entry, Path folder) {
    return each(entry, text -> folder.resolve(text).normalize().toString());
  }

  /** A step with its files as they stand in the project's file. */
  static RunSheet.Entry relative(RunSheet.Entry entry, Path folder) {
    Path home = folder.toAbsolutePath().normalize();
    return each(entry, text -> relative(Path.of(text).toAbsolutePath().normalize(), home));
  }

  private static String relative(Path file, Path home) {
    boolean near = file.startsWith(home)
        || home.getParent() != null
            && home.getParent().getNameCount() > 0
            && file.startsWith(home.getParent());
    return near ? home.relativize(file).toString().replace('\\', '/') : file.toString();
  }

  private static RunSheet.Entry each(RunSheet.Entry entry, UnaryOperator<String> path) {
    StepSpec step = StepCatalogue.get(entry.step());
    Map<String, String> inputs = new LinkedHashMap<>();
    entry
        .inputs()
        .forEach(
            (name, text) -> inputs.put(name, text.startsWith("@") ? text : changed(text, path)));
    Map<String, String> settings = new LinkedHashMap<>(entry.settings());
    for (StepSpec.Option option : step.options()) {
      if (option.namesFiles() && !settings.getOrDefault(option.name(), "").isBlank()) {
        settings.computeIfPresent(option.name(), (name, text) -> each(option, text, path));
      }
    }
    return new RunSheet.Entry(
        entry.name(), entry.title(), entry.step(), inputs, settings, entry.keep());
  }

  private static String each(StepSpec.Option option, String text, UnaryOperator<String> path) {
    try {
      List<Path> files = option.files(text);
      return files.stream()
          .map(file -> path.apply(file.toString())
              .replace(",", files.size() > 1 || option.namesSeveral() ? "\\," : ","))
          .collect(Collectors.joining(","));
    } catch (RasterException noPath) {
      return text;
    }
  }

  private static String changed(String text, UnaryOperator<String> path) {
    try {
      return path.apply(text);
    } catch (InvalidPathException noPath) {
      return text;
    }
  }

  /** Makes relative paths of a sheet's steps absolute. */
  static void makeAbsolute(JsonNode steps, Path from) {
    for (JsonNode node : steps) {
      try {
        StepSpec step = StepCatalogue.get(node.path("step").asText());
        for (StepSpec.Option option : step.options()) {
          JsonNode text = node.path(option.name());
          if (option.namesFiles() && text.isTextual() && !text.asText().isBlank()) {
            ((ObjectNode) node)
                .put(
                    option.name(),
                    each(option, text.asText(), each -> from.resolve(each).toString()));
          }
        }
        for (StepSpec.Input input : step.inputs()) {
          JsonNode text = node.path(input.name());
          if (text.isTextual() && !text.asText().startsWith("@")) {
            ((ObjectNode) node)
                .put(
                    input.name(),
                    changed(text.asText(), each -> from.resolve(each).toString()));
          }
        }
      } catch (RasterException unknown) {
        // a step that cannot be read stays as it is
      }
    }
  }
}
