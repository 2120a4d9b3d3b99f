package sharpkestrel.app.shell;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
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

  ProjectMenu(Workspace workspace, Optional<Doors> doors) {
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
    doors.ifPresent(this::offer);
  }

  private void offer(Doors doors) {
    Menu recent = new Menu("Opened last");
    recent.setId("menu-recent");
    setOnShowing(e -> fill(recent, doors));
    getItems()
        .addAll(
            item(
                "Open files",
                "menu-files",
                () -> openIfAny(doors, Choosers.files(getScene().getWindow()))),
            item(
                "Open a folder",
                "menu-folder",
                () -> openIfAny(
                    doors,
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

  private static void fill(Menu recent, Doors doors) {
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

  private static void openIfAny(Doors doors, List<Path> paths) {
    if (!paths.isEmpty()) {
      doors.open(paths);
    }
  }
}
