package sharpkestrel.app.step;

import java.io.File;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import javafx.scene.control.Button;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.stage.DirectoryChooser;
import javafx.stage.FileChooser;
import javafx.stage.Window;
import sharpkestrel.flow.StepSpec;

/** A text that is a path, or several, with a button that asks for it. */
final class PathField extends HBox {

  private final TextField text;
  private final StepSpec step;
  private final StepSpec.Option option;

  PathField(TextField text, StepSpec step, StepSpec.Option option) {
    super(4);
    this.text = text;
    this.step = step;
    this.option = option;
    HBox.setHgrow(text, Priority.ALWAYS);
    Button browse = new Button("\u2026");
    browse.getStyleClass().add("narrow");
    browse.setId(step.id() + "-" + option.name() + "-browse");
    browse.setMinWidth(Region.USE_PREF_SIZE);
    browse.setTooltip(
        new Tooltip(isWritten() ? "Say where it is to be written" : "Choose a file or folder"));
    if (isWritten() || option.namesSeveral()) {
      browse.setOnAction(e -> chooseFile());
    } else {
      ContextMenu either =
          new ContextMenu(item("A file", this::chooseFile), item("A folder", this::chooseFolder));
      browse.setOnAction(e -> either.show(browse, javafx.geometry.Side.BOTTOM, 0, 0));
    }
    getChildren().addAll(text, browse);
    setPrefWidth(text.getPrefWidth());
  }

  /** A step whose result is a file writes it. */
  private boolean isWritten() {
    return step.resultType() == java.nio.file.Path.class;
  }

  private static MenuItem item(String title, Runnable act) {
    MenuItem item = new MenuItem(title);
    item.setId("browse-" + title.toLowerCase(Locale.ROOT).replace(' ', '-'));
    item.setOnAction(e -> act.run());
    return item;
  }

  private void chooseFile() {
    Window over = getScene().getWindow();
    FileChooser chooser = new FileChooser();
    chooser.setTitle(step.title() + ": " + option.label());
    File before = new File(text.getText().strip());
    if (before.getParentFile() != null && before.getParentFile().isDirectory()) {
      chooser.setInitialDirectory(before.getParentFile());
      chooser.setInitialFileName(before.getName());
    }
    if (option.namesSeveral()) {
      List<File> chosen = chooser.showOpenMultipleDialog(over);
      if (chosen != null) {
        text.setText(chosen.stream()
            .map(file -> file.getPath().replace(",", "\\,"))
            .collect(Collectors.joining(",")));
      }
      return;
    }
    put(isWritten() ? chooser.showSaveDialog(over) : chooser.showOpenDialog(over));
  }

  private void chooseFolder() {
    DirectoryChooser chooser = new DirectoryChooser();
    chooser.setTitle(step.title() + ": " + option.label());
    put(chooser.showDialog(getScene().getWindow()));
  }

  private void put(File chosen) {
    if (chosen != null) {
      text.setText(chosen.getPath());
    }
  }
}
