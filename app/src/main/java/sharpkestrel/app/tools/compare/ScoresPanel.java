package sharpkestrel.app.tools.compare;

import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.check.Scores;

/** The scores shown in pane A, or the newest, large; the colours are those of the outlines on the picture. */
final class ScoresPanel extends VBox {

  ScoresPanel(Workspace workspace, Watch watch) {
    getStyleClass().add("card");
    setMinWidth(280);
    setSpacing(6);
    setId("scores");
    watch.on(workspace.results(), () -> show(workspace));
    watch.on(workspace.display().paneAProperty(), now -> show(workspace));
    show(workspace);
  }

  private static Optional<Scores> scores(Workspace workspace) {
    return Stream.concat(
            Stream.ofNullable(workspace.display().paneAProperty().get()),
            workspace.results().reversed().stream())
        .map(Result::value)
        .filter(Scores.class::isInstance)
        .map(Scores.class::cast)
        .findFirst();
  }

  private void show(Workspace workspace) {
    Label head = new Label("Agreement with the truth");
    head.getStyleClass().add("title");
    getChildren().setAll(head);
    Optional<Scores> found = scores(workspace);
    if (found.isEmpty()) {
      Label none = new Label("Choose outlines and their truth, then run.");
      none.getStyleClass().add("soft");
      none.setWrapText(true);
      getChildren().add(none);
      return;
    }
    Scores scores = found.get();
    Label f1 = new Label(String.format(Locale.ROOT, "F1 %.3f", scores.f1()));
    f1.getStyleClass().add("big");
    HBox legend = new HBox(
        12,
        key("agreed", scores.matched(), "good"),
        key("wrong", scores.found() - scores.matched(), "attention"),
        key("missed", scores.truth() - scores.matched(), "bad"));
    GridPane numbers = new GridPane(14, 4);
    row(numbers, 0, "Precision", "%.3f", scores.precision());
    row(numbers, 1, "Recall", "%.3f", scores.recall());
    row(numbers, 2, "Mean IoU", "%.3f", scores.meanIou());
    row(numbers, 3, "Area error", "%+.1f %%", 100 * scores.areaError());
    row(numbers, 4, "Least IoU of a match", "%.2f", scores.leastIou());
    getChildren().addAll(f1, legend, numbers);
  }

  private static Label key(String word, int count, String colour) {
    Label label = new Label("\u25A0 " + word + " " + count);
    label.getStyleClass().add(colour);
    return label;
  }

  private static void row(GridPane grid, int row, String name, String format, double value) {
    Label title = new Label(name);
    title.getStyleClass().add("soft");
    Label number =
        new Label(Double.isNaN(value) ? "\u2013" : String.format(Locale.ROOT, format, value));
    number.getStyleClass().add("mono");
    grid.addRow(row, title, number);
  }
}
