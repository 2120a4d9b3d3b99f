package sharpkestrel.flow;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import sharpkestrel.io.FileFormatException;
import sharpkestrel.io.Json;
import sharpkestrel.raster.RasterException;

/**
 * The steps that make a result, as JSON.
 *
 * <pre>{"title": "...", "variables": {"survey": "demo:101"}, "steps": [
 *   {"name": "pan", "step": "assemble", "delivery": "${survey}/scene.json", "image": "pan"},
 *   {"name": "ortho", "step": "ortho", "scene": "@pan", "heights": "${survey}/heights.tif", "keep": true}]}</pre>
 *
 * <p>An input is {@code @name} of an earlier step or a file, or an array of those where a step takes several; {@code keep}
 * writes a result to disk before the steps that use it.
 */
public record RunSheet(String title, Map<String, String> variables, List<Entry> steps) {

  /** What an entry says of itself; no input or setting of a step may be called so. */
  static final Set<String> OWN_WORDS = Set.of("name", "title", "step", "keep");

  /** One step of a sheet. */
  public record Entry(
      String name,
      String title,
      String step,
      Map<String, String> inputs,
      Map<String, String> settings,
      boolean keep) {}

  /**
   * @throws FileFormatException that names the step and what is wrong with it
   */
  public static RunSheet read(Path path) {
    JsonNode root = Json.read(path);
    Map<String, String> variables = new LinkedHashMap<>();
    root.path("variables").properties().forEach(e -> {
      try {
        variables.put(e.getKey(), text("variable '" + e.getKey() + "'", e.getValue()));
      } catch (RasterException wrong) {
        throw new FileFormatException(path + ": " + wrong.getMessage(), wrong);
      }
    });
    List<Entry> steps = new ArrayList<>();
    for (JsonNode node : root.path("steps")) {
      try {
        steps.add(entry(node, steps));
      } catch (RasterException wrong) {
        throw new FileFormatException(
            path + ", step " + (steps.size() + 1) + ": " + wrong.getMessage(), wrong);
      }
    }
    // a project in which nothing was made yet is one without steps
    if (!root.path("steps").isArray()) {
      throw new FileFormatException(path + " is not a run sheet: it has no \"steps\".");
    }
    return new RunSheet(root.path("title").asText(""), variables, steps);
  }

  private static void checkOwnWords(JsonNode node) {
    for (String word : List.of("name", "title", "step")) {
      if (node.has(word)) {
        text("\"" + word + "\"", node.get(word));
      }
    }
    if (node.has("keep") && !node.get("keep").isBoolean()) {
      throw new RasterException("\"keep\" is " + shortened(node.get("keep").toString())
          + ", but should be true or false.");
    }
  }

  /**
   * Reads one step of a sheet.
   *
   * @param before the steps it may refer to
   * @throws RasterException that says what is wrong with it
   */
  public static Entry entry(JsonNode node, List<Entry> before) {
    checkOwnWords(node);
    StepSpec spec = StepCatalogue.get(node.path("step").asText());
    Map<String, String> inputs = new LinkedHashMap<>();
    Map<String, String> settings = new LinkedHashMap<>();
    for (var field : node.properties()) {
      String key = field.getKey();
      if (OWN_WORDS.contains(key)) {
        continue;
      }
      Optional<StepSpec.Input> input =
          spec.inputs().stream().filter(i -> i.name().equals(key)).findFirst();
      if (input.isPresent()) {
        inputs.putAll(references(input.get(), field.getValue(), before));
      } else if (spec.options().stream().anyMatch(o -> o.name().equals(key))) {
        settings.put(key, setting(key, field.getValue()));
      } else {
        throw new RasterException(
            "step '" + spec.id() + "' has no input or setting '" + key + "'.");
      }
    }
    String name = node.path("name").asText(spec.id());
    if (before.stream().anyMatch(e -> e.name().equals(name))) {
      throw new RasterException("two steps are named '" + name + "'.");
    }
    boolean keep = node.path("keep").asBoolean(false);
    if (keep && !KeptResults.keeps(spec.resultType())) {
      throw new RasterException(
          "what step '" + spec.id() + "' makes is not kept; leave \"keep\" out.");
    }
    return new Entry(
        name, node.path("title").asText(spec.title()), spec.id(), inputs, settings, keep);
  }

  /** A list of texts or numbers is a setting of several values; anything else with an inside is none. */
  private static String setting(String name, JsonNode node) {
    if (!node.isArray()) {
      return text("setting '" + name + "'", node);
    }
    List<String> items = new ArrayList<>();
    for (JsonNode item : node) {
      items.add(text("an item of setting '" + name + "'", item));
    }
    return SettingValues.joined(items);
  }

  private static String text(String what, JsonNode node) {
    if (!node.isValueNode() || node.isNull()) {
      throw new RasterException(what + " is " + shortened(node.toString())
          + ", but should be a text, a number, true or false.");
    }
    return node.asText();
  }

  private static String shortened(String text) {
    return text.length() > 60 ? text.substring(0, 60) + "..." : text;
  }

  private static Map<String, String> references(
      StepSpec.Input input, JsonNode node, List<Entry> before) {
    if (node.isArray() && !input.several()) {
      throw new RasterException("input '" + input.name() + "' is a list, but takes one only.");
    }
    Map<String, String> references = new LinkedHashMap<>();
    for (JsonNode item : node.isArray() ? node : List.of(node)) {
      String value = text("input '" + input.name() + "'", item);
      if (value.startsWith("@")
          && before.stream().noneMatch(e -> e.name().equals(value.substring(1)))) {
        throw new RasterException(
            "input '" + input.name() + "' is " + value + ", but no earlier step has that name.");
      }
      references.put(input.several() ? input.nth(references.size() + 1) : input.name(), value);
    }
    return references;
  }

  private static void put(StepSpec spec, Map<String, String> references, ObjectNode node) {
    for (StepSpec.Input input : spec.inputs()) {
      if (!input.several()) {
        if (references.containsKey(input.name())) {
          node.put(input.name(), references.get(input.name()));
        }
        continue;
      }
      ArrayNode list = node.putArray(input.name());
      while (references.containsKey(input.nth(list.size() + 1))) {
        list.add(references.get(input.nth(list.size() + 1)));
      }
    }
  }

  /**
   * The same with its variables' values put in.
   *
   * @throws RasterException where a text names a variable that there is not
   */
  public RunSheet resolved() {
    List<Entry> all = steps.stream()
        .map(entry -> new Entry(
            entry.name(),
            entry.title(),
            entry.step(),
            resolved(entry.inputs()),
            resolved(entry.settings()),
            entry.keep()))
        .toList();
    return new RunSheet(title, Map.of(), all);
  }

  private Map<String, String> resolved(Map<String, String> texts) {
    Map<String, String> all = new LinkedHashMap<>();
    texts.forEach((name, text) -> all.put(name, resolve(text, variables)));
    return all;
  }

  public ObjectNode toJson() {
    ObjectNode root = Json.object().put("title", title);
    ObjectNode vars = root.putObject("variables");
    variables.forEach(vars::put);
    ArrayNode array = root.putArray("steps");
    for (Entry entry : steps) {
      ObjectNode node = array.addObject();
      node.put("name", entry.name()).put("title", entry.title()).put("step", entry.step());
      put(StepCatalogue.get(entry.step()), entry.inputs(), node);
      entry.settings().forEach(node::put);
      if (entry.keep()) {
        node.put("keep", true);
      }
    }
    return root;
  }

  /** With {@code ${name}} replaced by the variables' values. */
  static String resolve(String text, Map<String, String> variables) {
    String resolved = text;
    for (var variable : variables.entrySet()) {
      resolved = resolved.replace("${" + variable.getKey() + "}", variable.getValue());
    }
    if (resolved.contains("${")) {
      throw new RasterException("'" + text
          + "' names a variable that the sheet does not have. It has: " + variables.keySet() + ".");
    }
    return resolved;
  }
}
