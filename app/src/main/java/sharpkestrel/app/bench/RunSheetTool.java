package sharpkestrel.app.bench;

import javafx.scene.Node;
import javafx.scene.control.TextArea;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;
import sharpkestrel.io.Json;

/** The steps that made what pane A shows, as a run sheet. */
final class RunSheetTool extends Tool {

  private final Workspace workspace;
  private final TextArea text = new TextArea();

  RunSheetTool(Desk desk) {
    super("run-sheet", "Run sheet", null);
    workspace = desk.workspace();
  }

  @Override
  protected Node makePanel() {
    text.setId("run-sheet");
    text.setEditable(false);
    text.getStyleClass().add("sheet");
    watch().on(workspace.display().paneAProperty(), this::show);
    watch()
        .on(workspace.results(), () -> show(workspace.display().paneAProperty().get()));
    show(workspace.display().paneAProperty().get());
    return text;
  }

  private void show(Result result) {
    text.setText(result == null ? "" : Json.pretty(workspace.sheetOf(result).toJson()));
  }
}
