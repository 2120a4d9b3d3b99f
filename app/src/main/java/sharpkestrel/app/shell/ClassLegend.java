package sharpkestrel.app.shell;

import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.scene.shape.Rectangle;
import sharpkestrel.app.controls.NaturalOrder;
import sharpkestrel.app.controls.Scroll;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.viewer.ClassFill;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.objects.ObjectSet;

/**
 * The classes of what pane A shows with colours and shares of the ground, each shown or hidden by its box; a click on a name
 * shows that class alone, another click all again. Not there where nothing has classes with colours, or a tool shows its own.
 */
final class ClassLegend extends VBox {

  private static final double SWATCH = 12;
  private static final double TALLEST = 260;
  private static final double WIDEST_NAME = 150;

  private final ObjectProperty<Set<String>> hidden;
  private final Button heading = new Button();
  private final GridPane rows = new GridPane(8, 3);
  private final ScrollPane scroll = Scroll.down(rows);
  private List<String> classes = List.of();

  /**
   * @param seen whether the picture is in the colours of classes, not in those of a tool
   */
  ClassLegend(Workspace workspace, ReadOnlyBooleanProperty seen) {
    super(4);
    hidden = workspace.display().hiddenClassesProperty();
    setId("class-legend");
    getStyleClass().add("card");
    setMaxSize(USE_PREF_SIZE, USE_PREF_SIZE);
    scroll.setMaxHeight(TALLEST);
    heading.setId("class-legend-fold");
    heading.getStyleClass().addAll("plain", "soft");
    heading.setTooltip(new Tooltip("Folds the classes away, or shows them again"));
    heading.setOnAction(e -> fold(scroll.isVisible()));
    scroll.managedProperty().bind(scroll.visibleProperty());
    visibleProperty().bind(seen);
    getChildren().addAll(heading, scroll);
    hidden.addListener((p, before, now) -> tick());
    workspace.display().paneAProperty().addListener((p, before, now) -> show(now));
    show(workspace.display().paneAProperty().get());
  }

  private void show(Result shown) {
    boolean classed = shown != null && shown.value() instanceof ObjectSet set && ClassFill.has(set);
    rows.getChildren().clear();
    if (!classed) {
      classes = List.of();
      return;
    }
    Table table = ((ObjectSet) shown.value()).table();
    Table.Column column = table.column(ClassMap.CLASS);
    Table.Column colours = table.column(ClassMap.COLOUR);
    List<String> names = column.categories();
    List<Integer> order = NaturalOrder.places(names);
    classes = order.stream().map(names::get).toList();
    double[] areas = new double[classes.size()];
    String[] colourOf = new String[classes.size()];
    double all = 0;
    double[] area = table.values("area");
    for (int row = 0; row < area.length; row++) {
      all += area[row];
      double k = column.values()[row];
      if (!Double.isNaN(k)) {
        areas[(int) k] += area[row];
        colourOf[(int) k] = colours.text(row);
      }
    }
    for (int k = 0; k < areas.length; k++) {
      add(k, colourOf[order.get(k)], 100 * areas[order.get(k)] / all);
    }
    fold(!scroll.isVisible());
    tick();
  }

  private void fold(boolean away) {
    scroll.setVisible(!away);
    heading.setText(classes.size()
        + (classes.size() == 1 ? " class " : " classes ")
        + (away ? "\u25b8" : "\u25be"));
  }

  private void add(int k, String colour, double share) {
    String name = classes.get(k);
    CheckBox box = new CheckBox();
    box.setId("class-shown-" + k);
    box.setTooltip(new Tooltip("Show or hide " + name));
    box.setAccessibleText("show " + name);
    box.setOnAction(e -> {
      Set<String> now = new HashSet<>(hidden.get());
      if (box.isSelected()) {
        now.remove(name);
      } else {
        now.add(name);
      }
      hidden.set(Set.copyOf(now));
    });
    boolean known = colour != null && colour.matches("#[0-9A-Fa-f]{6}");
    Rectangle swatch = new Rectangle(SWATCH, SWATCH, known ? Color.web(colour) : Color.TRANSPARENT);
    Label label = new Label(name);
    label.setId("class-name-" + k);
    label.setMaxWidth(WIDEST_NAME);
    label.setTooltip(new Tooltip(name + ": click to show it alone, again for all"));
    label.setOnMouseClicked(e -> alone(name));
    Label part = new Label(String.format(Locale.ROOT, "%.1f %%", share));
    part.getStyleClass().addAll("mono", "soft");
    part.setMinWidth(USE_PREF_SIZE);
    part.setMaxWidth(Double.MAX_VALUE);
    part.setAlignment(Pos.CENTER_RIGHT);
    rows.addRow(k, box, swatch, label, part);
  }

  private void alone(String name) {
    Set<String> now = new HashSet<>(hidden.get());
    boolean isAlone = classes.stream().allMatch(each -> now.contains(each) != each.equals(name));
    now.addAll(classes);
    if (isAlone) {
      classes.forEach(now::remove);
    } else {
      now.remove(name);
    }
    hidden.set(Set.copyOf(now));
  }

  private void tick() {
    for (int k = 0; k < classes.size(); k++) {
      ((CheckBox) rows.getChildren().get(4 * k))
          .setSelected(!hidden.get().contains(classes.get(k)));
    }
  }
}
