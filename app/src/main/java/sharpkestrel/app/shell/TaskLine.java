package sharpkestrel.app.shell;

import javafx.beans.binding.Bindings;
import javafx.beans.binding.BooleanExpression;
import javafx.beans.property.BooleanProperty;
import javafx.beans.value.ObservableValue;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;
import sharpkestrel.app.work.Lanes;
import sharpkestrel.app.work.Shown;

/** What the window is at: the run, else what is tried, else what is being kept; with how many runs wait behind it. */
final class TaskLine extends HBox {

  /**
   * @param queueShown whether the queue of runs is shown
   */
  TaskLine(Lanes lanes, BooleanProperty queueShown) {
    super(8);
    setAlignment(Pos.CENTER);
    Shown run = lanes.run().shown();
    Shown trial = lanes.trial().shown();
    Shown keeping = lanes.keeping().shown();
    BooleanExpression running = run.runningProperty();
    BooleanExpression trying = trial.runningProperty().and(running.not());
    BooleanExpression writing =
        keeping.runningProperty().and(running.not()).and(trial.runningProperty().not());
    ToggleButton waiting = new ToggleButton();
    waiting.setId("queue-shown");
    waiting.setMinWidth(USE_PREF_SIZE);
    waiting.selectedProperty().bindBidirectional(queueShown);
    waiting
        .textProperty()
        .bind(Bindings.createStringBinding(
            () -> "+" + Math.max(0, lanes.run().queue().size() - 1), lanes.run().queue()));
    waiting.visibleProperty().bind(Bindings.size(lanes.run().queue()).greaterThan(1));
    waiting.managedProperty().bind(waiting.visibleProperty());
    getChildren()
        .addAll(
            line("keeping", keeping, keeping.titleProperty(), writing, lanes.keeping()::cancel),
            line("trial", trial, words(trial), trying, lanes.trial()::cancel),
            line("task", run, words(run), running, lanes.run()::cancel),
            waiting);
  }

  private static ObservableValue<String> words(Shown shown) {
    return Bindings.when(shown.detailProperty().isEmpty())
        .then(shown.titleProperty())
        .otherwise(shown.detailProperty());
  }

  private static HBox line(
      String id,
      Shown shown,
      ObservableValue<String> words,
      ObservableValue<Boolean> visible,
      Runnable cancelled) {
    Label what = new Label();
    what.setId(id);
    what.getStyleClass().add("mono");
    what.textProperty().bind(words);
    // where room is short the words of a task give way, never a button
    what.setMinWidth(0);
    ProgressBar bar = new ProgressBar();
    bar.setPrefWidth(72);
    bar.setMinWidth(72);
    bar.progressProperty().bind(shown.shareProperty());
    Button cancel = new Button("Cancel");
    cancel.setId("cancel-" + id);
    cancel.setOnAction(e -> cancelled.run());
    cancel.setMinWidth(USE_PREF_SIZE);
    HBox box = new HBox(8, what, bar, cancel);
    box.setAlignment(Pos.CENTER);
    box.visibleProperty().bind(visible);
    box.managedProperty().bind(visible);
    return box;
  }
}
