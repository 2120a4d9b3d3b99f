package sharpkestrel.app.model;

import java.util.List;
import java.util.Optional;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.kinds.ResultKinds;

/**
 * What stands between what is shown and the next stage: the first step, in the order of the work, that is declared to come
 * next for such a thing and has all that it needs at hand; for what was learned the step that puts it to use on such things as it
 * was learned from. Nothing is proposed for what something was made of already.
 */
public record NextStep(StepSpec step, String why) {

  /** The next step for what pane A shows; empty where nothing is proposed. */
  public static Optional<NextStep> of(Workspace workspace) {
    Result shown = workspace.display().paneAProperty().get();
    boolean isLast = shown != null
        && workspace.named(shown.name()).isPresent()
        && workspace.hangingFrom(shown).isEmpty();
    if (!isLast) {
      return Optional.empty();
    }
    if (ResultKinds.of(shown.value()).isModel()) {
      return StepCatalogue.all().stream()
          .filter(step -> step.modelInput(shown.value()).isPresent() && worksOnTheSame(step, shown))
          .findFirst()
          .map(step -> new NextStep(step, "Learned: now put it to use."));
    }
    return StepCatalogue.all().stream()
        .filter(step -> step.stage().ordinal() >= shown.stage().ordinal()
            && step != shown.step()
            && step.comesNextFor(shown.value())
            && takes(workspace, step, shown))
        .findFirst()
        .map(step -> new NextStep(step, step.next()));
  }

  /** Whether a step needs nothing else than a model was learned from. */
  private static boolean worksOnTheSame(StepSpec step, Result model) {
    return step.inputs().stream()
        .filter(input -> !input.optional())
        .allMatch(input -> model.inputs().containsKey(input.name()));
  }

  private static boolean takes(Workspace workspace, StepSpec step, Result shown) {
    List<StepSpec.Input> needed =
        step.inputs().stream().filter(input -> !input.optional()).toList();
    Optional<StepSpec.Input> own = needed.stream()
        .filter(input -> ResultKinds.suits(shown.value(), input.type(), input.suits()))
        .findFirst();
    return own.isPresent()
        && needed.stream()
            .filter(input -> input != own.get())
            .allMatch(input ->
                workspace.fitting(input).stream().anyMatch(other -> isBeside(other, shown)));
  }

  /** Another result than the one shown that shows the same ground; what that was made of, too. */
  private static boolean isBeside(Result other, Result shown) {
    return !other.name().equals(shown.name())
        && other.backdrop() != null
        && shown.backdrop() != null
        && !other.descendsFrom(shown);
  }
}
