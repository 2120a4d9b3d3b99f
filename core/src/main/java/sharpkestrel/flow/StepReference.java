package sharpkestrel.flow;

import sharpkestrel.step.Stage;

/** The reference page of all steps, generated from their declarations. */
public final class StepReference {

  private StepReference() {}

  public static String markdown() {
    StringBuilder page = new StringBuilder(
        "# Steps\n\nGenerated from the declarations by `./kestrel reference`; a test keeps it true. Every step runs"
            + " as `./kestrel step ID`, in run sheets, and from its panel in the window.\n");
    for (Stage stage : Stage.values()) {
      page.append("\n## ").append(stage.title()).append('\n');
      for (StepSpec spec : StepCatalogue.of(stage)) {
        page.append("\n### ")
            .append(spec.id())
            .append("\n\n")
            .append(spec.does())
            .append("\n\n");
        page.append("| name | what it is | range | initial |\n|---|---|---|---|\n");
        for (StepSpec.Input input : spec.inputs()) {
          page.append("| `--")
              .append(input.name())
              .append("` | input")
              .append(input.several() ? "s: " : ": ")
              .append(input.does())
              .append(input.when().isEmpty() ? "" : " (" + String.join(", ", input.when()) + ")");
          page.append(" | | ").append(input.optional() ? "none" : "needed").append(" |\n");
        }
        for (StepSpec.Option option : spec.options()) {
          page.append("| `--").append(option.name()).append("` | ").append(option.does());
          page.append(option.when().isEmpty() ? "" : " (" + String.join(", ", option.when()) + ")");
          page.append(" | ").append(option.range()).append(" | ");
          page.append(option.isRequired() ? "needed" : option.initial()).append(" |\n");
        }
      }
    }
    return page.toString();
  }
}
