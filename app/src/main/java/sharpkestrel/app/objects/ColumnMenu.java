package sharpkestrel.app.objects;

import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import javafx.beans.property.ObjectProperty;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.MenuButton;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import sharpkestrel.expr.Table;

/** Which columns a table shows: boxes to tick, found by a part of their name. */
final class ColumnMenu extends MenuButton {

  private static final double WIDTH = 250;
  private static final double HEIGHT = 300;

  private final TextField find = new TextField();
  private final VBox boxes = new VBox(3);
  private final ObjectProperty<Set<String>> hidden;
  private List<Table.Column> columns = List.of();

  /**
   * @param hidden the names of the columns that are left out
   */
  ColumnMenu(ObjectProperty<Set<String>> hidden) {
    super("Columns");
    this.hidden = hidden;
    setId("columns");
    setMinWidth(USE_PREF_SIZE);
    find.setId("columns-find");
    find.setPromptText("part of a name");
    find.textProperty().addListener((p, before, now) -> fill());
    Button all = new Button("Show");
    all.setId("columns-show");
    all.setOnAction(e -> set(false));
    Button none = new Button("Hide");
    none.setId("columns-hide");
    none.setOnAction(e -> set(true));
    ScrollPane scroll = new ScrollPane(boxes);
    scroll.setPrefSize(WIDTH, HEIGHT);
    scroll.setFitToWidth(true);
    CustomMenuItem item = new CustomMenuItem(new VBox(6, new HBox(6, find, all, none), scroll));
    item.setHideOnClick(false);
    getItems().add(item);
  }

  void offer(Table table) {
    columns = table.columns();
    fill();
  }

  private List<Table.Column> found() {
    String part = find.getText().strip().toLowerCase(Locale.ROOT);
    return columns.stream()
        .filter(
            c -> c.name().contains(part) || c.title().toLowerCase(Locale.ROOT).contains(part))
        .toList();
  }

  private void fill() {
    boxes.getChildren().clear();
    for (Table.Column column : found()) {
      CheckBox box = new CheckBox(column.title());
      box.setId("column-" + column.name());
      box.setSelected(!hidden.get().contains(column.name()));
      box.setOnAction(e -> set(List.of(column), !box.isSelected()));
      boxes.getChildren().add(box);
    }
  }

  /** Shows or hides those that are found. */
  private void set(boolean hide) {
    set(found(), hide);
    fill();
  }

  private void set(List<Table.Column> some, boolean hide) {
    Set<String> now = new HashSet<>(hidden.get());
    for (Table.Column column : some) {
      if (hide) {
        now.add(column.name());
      } else {
        now.remove(column.name());
      }
    }
    hidden.set(Set.copyOf(now));
  }
}
