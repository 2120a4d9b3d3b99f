package sharpkestrel.app.shell;

import java.nio.file.Path;
import java.util.List;
import javafx.beans.binding.Bindings;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.Tooltip;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.project.RecentProjects;

/** The project's name, and behind it the ways to other files and projects. */
final class ProjectMenu extends MenuButton {

  private final Doors doors;

  ProjectMenu(Workspace workspace, Doors doors) {
    this.doors = doors;
    setId("project-menu");
    getStyleClass().add("project-menu");
    textProperty()
        .bind(Bindings.when(workspace.titleProperty().isEmpty())
            .then("Project")
            .otherwise(workspace.titleProperty()));
    setMinWidth(USE_PREF_SIZE);
    Tooltip where = new Tooltip();
    where.setOnShowing(e -> where.setText("Project in " + workspace.folder()
        + (workspace.isLookingOn() ? ", looked on: nothing is written" : "")));
    setTooltip(where);
    Menu recent = new Menu("Opened last");
    recent.setId("menu-recent");
    setOnShowing(e -> fill(recent));
    getItems()
        .addAll(
            item(
                "Open files",
                "menu-files",
                () -> openIfAny(Choosers.files(getScene().getWindow()))),
            item(
                "Open a folder",
                "menu-folder",
                () -> openIfAny(
                    Choosers.folder(getScene().getWindow(), "Open a project, or a delivery"))),
            recent,
            new SeparatorMenuItem(),
            item("The demo survey", "menu-demo", doors::openDemo),
            item("New project, and all others", "menu-leave", doors::leave));
  }

  private static MenuItem item(String title, String id, Runnable act) {
    MenuItem item = new MenuItem(title);
    item.setId(id);
    item.setOnAction(e -> act.run());
    return item;
  }

  private void fill(Menu recent) {
    recent.getItems().clear();
    for (RecentProjects.Recent each : RecentProjects.all()) {
      recent
          .getItems()
          .add(item(
              each.title() + "   " + each.folder(),
              "menu-recent-" + recent.getItems().size(),
              () -> doors.open(List.of(each.folder()))));
    }
    recent.setDisable(recent.getItems().isEmpty());
  }

  private void openIfAny(List<Path> paths) {
    if (!paths.isEmpty()) {
      doors.open(paths);
    }
  }
}
