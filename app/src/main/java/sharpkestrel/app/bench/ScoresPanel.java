package sharpkestrel.app.bench;

import javafx.collections.ListChangeListener;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.check.Scores;

/** The newest scores, large. */
final class ScoresPanel extends VBox {

  ScoresPanel(Workspace workspace) {
    getStyleClass().add("card");
    setMinWidth(250);
    setSpacing(4);
    setId("scores");
    workspace.results().addListener((ListChangeListener<Result>) change -> show(workspace));
    show(workspace);
  }

  private void show(Workspace workspace) {
    getChildren().clear();
    Label head = new Label("Agreement with the truth");
    head.getStyleClass().add("title");
    getChildren().add(head);
    Scores scores = workspace.results().reversed().stream()
        .map(Result::value)
        .filter(v -> v instanceof Scores)
        .map(v -> (Scores) v)
        .findFirst()
        .orElse(null);
    if (scores == null) {
      Label none = new Label("Choose outlines and their truth, then run.");
      none.getStyleClass().add("soft");
      none.setWrapText(true);
      getChildren().add(none);
      return;
    }
    Label f1 = new Label(String.format(java.util.Locale.ROOT, "F1 %.3f", scores.f1()));
    f1.getStyleClass().add("big");
    HBox legend = new HBox(10);
    getChildren().addAll(f1, legend);
    for (String[] key :
        new String[][] {{"agreed", "#5C7A3A"}, {"wrong", "#B9821B"}, {"missed", "#A33A3A"}}) {
      Label label = new Label("\u25A0 " + key[0]);
      label.setStyle("-fx-text-fill: " + key[1] + ";");
      legend.getChildren().add(label);
    }
    for (String line : scores.toText().lines().toList()) {
      Label label = new Label(line);
      label.getStyleClass().add("mono");
      label.setWrapText(true);
      getChildren().add(label);
    }
  }
}
