package sharpkestrel.app.step;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.scene.control.Button;
import javafx.scene.control.Tooltip;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.flow.StepSpec;

/**
 * Sets a step's panel as what is in pane A, or the nearest that this comes from, was made by the step: where one goes on
 * after the panel was set otherwise, or after the project was opened again.
 */
final class AsMade extends Button {

  private final Workspace workspace;
  private final StepSpec step;
  private final StepInputs inputs;
  private final StepSettings settings;

  AsMade(
      Workspace workspace, Watch watch, StepSpec step, StepInputs inputs, StepSettings settings) {
    this.workspace = workspace;
    this.step = step;
    this.inputs = inputs;
    this.settings = settings;
    setId(step.id() + "-as-made");
    setMaxWidth(Double.MAX_VALUE);
    managedProperty().bind(visibleProperty());
    setOnAction(e -> made().ifPresent(result -> {
      settings.setAll(result.settings());
      inputs.takeAsIn(result);
    }));
    watch.on(workspace.display().paneAProperty(), now -> refresh());
    refresh();
  }

  /** Shows itself where the panel is set otherwise. */
  void refresh() {
    Optional<Result> made = made().filter(result -> !isSetAs(result));
    setVisible(made.isPresent());
    made.ifPresent(result -> {
      setText("Settings of " + result.title());
      setTooltip(new Tooltip(
          "Sets inputs and settings as they were when " + result.title() + " was made"));
    });
  }

  private boolean isSetAs(Result result) {
    return withInitial(settings.texts()).equals(withInitial(result.settings()))
        && inputs.files().equals(result.files())
        && names(inputs.results()).equals(names(result.inputs()));
  }

  /** What is not given has its initial value. */
  private Map<String, String> withInitial(Map<String, String> given) {
    Map<String, String> all = new HashMap<>(given);
    step.options().forEach(option -> all.putIfAbsent(option.name(), option.initial()));
    return all;
  }

  private static Map<String, String> names(Map<String, Result> results) {
    return results.entrySet().stream()
        .collect(Collectors.toMap(Map.Entry::getKey, entry -> entry.getValue().name()));
  }

  /** What is in pane A, or the nearest that it comes from, that this step made; previews are not made yet. */
  private Optional<Result> made() {
    Deque<Result> near = new ArrayDeque<>();
    Optional.ofNullable(workspace.display().paneAProperty().get()).ifPresent(near::add);
    while (!near.isEmpty()) {
      Result result = near.remove();
      boolean kept = workspace.named(result.name()).isPresent();
      if (kept && result.step().id().equals(step.id())) {
        return Optional.of(result);
      }
      near.addAll(result.inputs().values());
    }
    return Optional.empty();
  }
}
