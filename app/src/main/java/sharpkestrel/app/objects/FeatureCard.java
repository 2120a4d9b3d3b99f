package sharpkestrel.app.objects;

import java.util.Locale;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.expr.Table;
import sharpkestrel.kinds.ResultKind;

/** All features of the object that was clicked; those of a part of a name where there are many. */
public final class FeatureCard extends VBox {

  private static final int FEW = 14;
  private static final double WIDTH = 268;
  private static final double LINE = 18;

  private final Workspace workspace;
  private final TextField find = new TextField();
  private final GridPane lines = new GridPane(12, 1);
  private final ScrollPane scroll = new ScrollPane(lines);
  private Table shown;
  private int row;

  public FeatureCard(Workspace workspace) {
    super(4);
    this.workspace = workspace;
    setId("features");
    getStyleClass().add("card");
    setPrefWidth(WIDTH);
    setMaxSize(USE_PREF_SIZE, USE_PREF_SIZE);
    setMinHeight(0);
    find.setId("features-find");
    find.setPromptText("part of a feature's name");
    find.textProperty().addListener((p, before, now) -> fill());
    scroll.setFitToWidth(true);
    scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    scroll.setMinHeight(0);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    getChildren().addAll(find, scroll);
  }

  public void show(ResultKind.Rows rows, int newRow) {
    shown = rows.table();
    row = newRow;
    boolean many = shown.columns().size() > FEW;
    find.setVisible(many);
    find.setManaged(many);
    fill();
  }

  private void fill() {
    lines.getChildren().clear();
    String part = find.isVisible() ? find.getText().strip().toLowerCase(Locale.ROOT) : "";
    int line = 0;
    for (Table.Column column : shown.columns()) {
      String title = column.title();
      if (!column.name().contains(part) && !title.toLowerCase(Locale.ROOT).contains(part)) {
        continue;
      }
      Label name = new Label(title);
      name.getStyleClass().add("soft");
      name.setTooltip(new Tooltip(column.name() + ": click to colour all objects by it"));
      name.setOnMouseClicked(e -> workspace.display().featureShownProperty().set(column.name()));
      GridPane.setHgrow(name, Priority.ALWAYS);
      Label value = new Label((TableGrid.text(column, row) + " " + TableGrid.unit(column)).strip());
      value.getStyleClass().add("mono");
      value.setMinWidth(USE_PREF_SIZE);
      lines.addRow(line++, name, value);
    }
    scroll.setPrefHeight(LINE * line + 8);
  }
}
