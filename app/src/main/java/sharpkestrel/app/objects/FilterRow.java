package sharpkestrel.app.objects;

import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import sharpkestrel.app.model.ObjectChoice;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.expr.ExpressionException;
import sharpkestrel.extract.RangeTest;
import sharpkestrel.objects.Selection;

/** The filter of objects as text, what else limits the choice, and how many are chosen. */
final class FilterRow extends HBox {

  private final Workspace workspace;
  private final ObjectChoice choice;
  private final TextField text = new TextField();
  private final HBox limits = new HBox(4);
  private final Label count = new Label();
  private final Button all = new Button("All");
  private final Button make = new Button("Keep these");

  FilterRow(Workspace workspace, ObjectChoice choice, String id) {
    super(8);
    this.workspace = workspace;
    this.choice = choice;
    setAlignment(Pos.CENTER_LEFT);
    Label where = new Label("Where");
    where.getStyleClass().add("soft");
    where.setMinWidth(USE_PREF_SIZE);
    text.setId(id + "-filter");
    text.setPromptText("CQL2, e.g. area > 60 AND elongation < 3");
    text.setOnAction(e -> filter());
    text.setMinWidth(120);
    HBox.setHgrow(text, Priority.ALWAYS);
    limits.setAlignment(Pos.CENTER_LEFT);
    limits.setMinWidth(USE_PREF_SIZE);
    count.setId(id + "-count");
    count.getStyleClass().add("mono");
    count.setMinWidth(USE_PREF_SIZE);
    all.setId(id + "-all");
    all.setMinWidth(USE_PREF_SIZE);
    all.setOnAction(e -> choice.clear());
    make.setId(id + "-make");
    make.setMinWidth(USE_PREF_SIZE);
    make.setTooltip(
        new Tooltip("Makes an object set of those that are chosen by a formula or handles"));
    make.setOnAction(e -> choice.makeResult());
    getChildren().addAll(where, text, limits, count, all, make);
    choice.onChange(this::refresh);
    refresh();
  }

  private void filter() {
    try {
      choice.filter(text.getText());
      workspace.messages().clear();
    } catch (ExpressionException wrong) {
      workspace.messages().tell(wrong.getMessage());
    }
  }

  private void refresh() {
    setDisable(choice.objects().isEmpty());
    if (!text.isFocused() || choice.filter().isEmpty()) {
      text.setText(choice.filter());
    }
    limits.getChildren().clear();
    for (RangeTest range : choice.ranges()) {
      RangeTest none =
          new RangeTest(range.feature(), Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY);
      limits.getChildren().add(limit(range.toText(), () -> choice.range(none)));
    }
    if (choice.hasArea()) {
      limits
          .getChildren()
          .add(limit("drawn", () -> choice.area("", "", new double[0], new double[0])));
    }
    int chosen = Selection.count(choice.chosen());
    count.setText(Result.grouped(chosen) + " of " + Result.grouped(choice.chosen().length));
    all.setDisable(choice.isAll());
    make.setDisable(choice.test().isEmpty() || chosen == 0);
  }

  private static Button limit(String what, Runnable drop) {
    Button button = new Button(what + "  \u00d7");
    button.getStyleClass().add("small");
    button.setOnAction(e -> drop.run());
    button.setMaxWidth(200);
    return button;
  }
}
