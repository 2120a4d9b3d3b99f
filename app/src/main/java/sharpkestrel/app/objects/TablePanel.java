package sharpkestrel.app.objects;

import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import sharpkestrel.app.controls.FeatureBox;
import sharpkestrel.app.model.ObjectChoice;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.expr.Table;
import sharpkestrel.kinds.ResultKind;
import sharpkestrel.kinds.ResultKinds;

/** The table of what pane A shows: which rows and columns, sorted by any, and the feature that colours the objects. */
final class TablePanel extends VBox {

  private final Workspace workspace;
  private final ObjectChoice choice;
  private final ObjectFinder finder;
  private final TableGrid grid = new TableGrid();
  private final ColumnMenu columns;
  private final FeatureBox colourBy = new FeatureBox("nothing", column -> true);
  private final ColourLegend legend;
  private boolean offering;

  TablePanel(Desk desk, Watch watch) {
    super(6);
    workspace = desk.workspace();
    choice = desk.choice();
    finder = new ObjectFinder(desk);
    legend = new ColourLegend(choice::filter);
    columns = new ColumnMenu(workspace.display().hiddenColumnsProperty());
    grid.hide(workspace.display().hiddenColumnsProperty().get());
    workspace.display().hiddenColumnsProperty().addListener((p, before, now) -> grid.hide(now));
    colourBy.setId("colour-by");
    colourBy.setPrefWidth(150);
    colourBy.setMinWidth(120);
    colourBy.valueProperty().addListener((p, before, now) -> {
      if (!offering && now != null) {
        workspace.display().featureShownProperty().set(now);
      }
    });
    Label by = new Label("Colour by");
    by.getStyleClass().add("soft");
    by.setMinWidth(USE_PREF_SIZE);
    FilterRow filter = new FilterRow(workspace, choice, "table");
    HBox.setHgrow(filter, Priority.ALWAYS);
    HBox row = new HBox(8, by, colourBy, legend, filter, columns);
    row.setAlignment(Pos.CENTER_LEFT);
    VBox.setVgrow(grid, Priority.ALWAYS);
    getChildren().addAll(row, grid);
    grid.onChosen(chosen -> {
      workspace.display().selectedRowProperty().set(chosen);
      finder.bringIntoView(chosen);
    });
    watch.on(workspace.display().paneAProperty(), this::fill);
    watch.on(workspace.display().selectedRowProperty(), now -> grid.select(now, false));
    watch.on(workspace.display().featureShownProperty(), now -> showColours());
    choice.onChange(this::keep);
    fill(workspace.display().paneAProperty().get());
  }

  private void keep() {
    Result shown = workspace.display().paneAProperty().get();
    boolean filled =
        shown != null && choice.objects().filter(set -> set == shown.value()).isPresent();
    if (filled && grid.rows() == choice.chosen().length) {
      grid.keep(choice.chosen());
    }
  }

  private void fill(Result result) {
    Optional<ResultKind.Rows> rows =
        Optional.ofNullable(result).flatMap(shown -> ResultKinds.rows(shown.value()));
    if (rows.isEmpty()) {
      grid.clear("What pane A shows has no table. Click objects or outlines in the trail.");
    } else if (rows.get().table().columns().isEmpty()) {
      grid.clear("Measure these objects: then their numbers stand here.");
    } else {
      offer(rows.get().table(), rows.get().ids());
      keep();
    }
    showColours();
  }

  private void offer(Table table, int[] ids) {
    grid.show(table, ids);
    columns.offer(table);
    offering = true;
    colourBy.offer(table);
    offering = false;
  }

  private void showColours() {
    colourBy.choose(workspace.display().featureShownProperty().get());
    colourBy.setDisable(choice.objects().isEmpty());
    choice
        .objects()
        .flatMap(set -> workspace.display().featureOf(set.table()))
        .ifPresentOrElse(
            column -> legend.show(choice.objects().get().table(), column), legend::hide);
  }
}
