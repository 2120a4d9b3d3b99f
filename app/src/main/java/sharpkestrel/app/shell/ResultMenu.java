package sharpkestrel.app.shell;

import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.layout.VBox;
import sharpkestrel.app.bench.Bench;
import sharpkestrel.app.model.Display;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;

/** What can be done with a result beside looking at it. */
final class ResultMenu {

  private final Workspace workspace;
  private final Bench bench;

  ResultMenu(Workspace workspace, Bench bench) {
    this.workspace = workspace;
    this.bench = bench;
  }

  /**
   * @param name the label that gives way to a field while the result is called otherwise
   * @param renamed told when that is over
   */
  ContextMenu of(Result result, Label name, VBox texts, Runnable renamed) {
    ContextMenu menu = new ContextMenu(
        item("Show in pane B", () -> showInB(result)),
        item("Call it otherwise", () -> rename(result, name, texts, renamed)),
        item("Make again with other settings", () -> bench.takeAsMade(result)),
        item("Delete", () -> delete(result)));
    menu.setId("menu-" + result.name());
    return menu;
  }

  private static MenuItem item(String title, Runnable act) {
    MenuItem item = new MenuItem(title);
    item.setId("result-" + title.toLowerCase(Locale.ROOT).replace(' ', '-'));
    item.setOnAction(e -> act.run());
    return item;
  }

  private void rename(Result result, Label name, VBox texts, Runnable renamed) {
    TextField field = new TextField(result.title());
    field.setId("rename");
    texts.getChildren().set(texts.getChildren().indexOf(name), field);
    field.setOnAction(e -> workspace.rename(result, field.getText()));
    field.focusedProperty().addListener((p, before, now) -> {
      if (!now) {
        renamed.run();
      }
    });
    field.requestFocus();
    field.selectAll();
  }

  /** What hangs from it is named before it goes, too. */
  private void delete(Result result) {
    List<Result> hanging = workspace.hangingFrom(result);
    if (hanging.isEmpty()) {
      workspace.delete(result);
      return;
    }
    workspace
        .messages()
        .tell(
            "From " + result.title() + " "
                + (hanging.size() == 1 ? "hangs " : "hang ")
                + hanging.stream().map(Result::title).collect(Collectors.joining(", "))
                + ". They would be deleted with it; Undo brings all back until the window closes.",
            "Delete all " + (hanging.size() + 1),
            () -> workspace.delete(result));
  }

  void showInB(Result result) {
    workspace.display().paneBProperty().set(result);
    if (workspace.display().compareProperty().get() == Display.Compare.ONE) {
      workspace
          .display()
          .compareProperty()
          .set(
              workspace.display().sharesGround(result)
                  ? Display.Compare.SWIPE
                  : Display.Compare.SIDE_BY_SIDE);
    }
  }
}
