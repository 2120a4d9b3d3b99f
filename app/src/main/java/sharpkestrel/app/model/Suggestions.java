package sharpkestrel.app.model;

import java.util.HashMap;
import java.util.Map;
import sharpkestrel.flow.StepSpec;

/** Files and texts that panels offer for what must be typed or chosen, as they were given before or came with the data. */
public final class Suggestions {

  private final Map<String, String> suggestions = new HashMap<>();

  /**
   * Files and texts that a panel offers for inputs and settings of its step, by {@code step:name}; by {@code name} alone for
   * what goes with the place.
   */
  public Map<String, String> all() {
    return suggestions;
  }

  /** The file that is offered for an input; empty for none. */
  public String offered(StepSpec step, StepSpec.Input input) {
    return suggestions.getOrDefault(key(step, input.name(), input.ofPlace()), "");
  }

  /** The text that is offered for a setting; empty for none. */
  public String offered(StepSpec step, StepSpec.Option option) {
    return suggestions.getOrDefault(key(step, option.name(), option.ofPlace()), "");
  }

  private static String key(StepSpec step, String name, boolean ofPlace) {
    return ofPlace ? name : step.id() + ":" + name;
  }

  /** What goes with the place is offered to every step as soon as it is typed. */
  public void offer(StepSpec step, StepSpec.Option option, String text) {
    if (option.ofPlace() && !text.isBlank()) {
      suggestions.put(key(step, option.name(), true), text.strip());
    }
  }

  /** Files, texts such as tests and filters, and what goes with the place are offered again once they were given. */
  public void remember(StepSpec step, Map<String, String> files, Map<String, String> settings) {
    for (StepSpec.Input input : step.inputs()) {
      if (files.containsKey(input.name())) {
        suggestions.put(key(step, input.name(), input.ofPlace()), files.get(input.name()));
      }
    }
    for (StepSpec.Option option : step.options()) {
      boolean text = option.isText() || option.namesFiles();
      String given = settings.getOrDefault(option.name(), option.initial());
      if (text && settings.containsKey(option.name())
          || option.ofPlace() && !given.equals(option.initial())) {
        suggestions.put(key(step, option.name(), option.ofPlace()), given);
      }
    }
  }
}
