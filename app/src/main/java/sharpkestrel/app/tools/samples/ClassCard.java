package sharpkestrel.app.tools.samples;

import java.io.File;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceDialog;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;
import javafx.scene.shape.Circle;
import javafx.stage.FileChooser;
import javafx.stage.Window;
import sharpkestrel.app.controls.Card;
import sharpkestrel.app.controls.Scroll;
import sharpkestrel.app.controls.Words;
import sharpkestrel.app.samples.SampleFile;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.extract.learner.ClassList;
import sharpkestrel.raster.RasterException;

/** The classes with their digits and counts: added, called otherwise, taken away, and the one in hand. */
final class ClassCard {

  private static final double WIDTH = 232;
  private static final double INDENT = 12;

  private final Desk desk;
  private final Labelling model;
  private final GridPane rows = new GridPane(8, 5);
  private final TextField name = new TextField();
  private final Card card;
  private final List<Label> titles = new ArrayList<>();
  private final List<Label> counts = new ArrayList<>();
  private ClassList shown;

  ClassCard(Desk desk, Labelling model) {
    this.desk = desk;
    this.model = model;
    Label heading = Words.heading("Classes");
    Region gap = new Region();
    HBox.setHgrow(gap, Priority.ALWAYS);
    HBox head = new HBox(6, heading, gap, files());
    head.setAlignment(Pos.CENTER_LEFT);
    name.setId("class-name");
    name.setPromptText("new class");
    name.setOnAction(e -> add());
    Button add = new Button("Add");
    add.setId("class-add");
    add.setMinWidth(Button.USE_PREF_SIZE);
    add.setOnAction(e -> add());
    HBox row = new HBox(6, name, add);
    HBox.setHgrow(name, Priority.ALWAYS);
    ScrollPane scroll = Scroll.down(rows);
    card = new Card(6, head, row, scroll);
    card.setMinWidth(WIDTH);
    card.setPrefWidth(WIDTH);
  }

  Card card() {
    return card;
  }

  private MenuButton files() {
    MenuButton files = new MenuButton("File");
    files.setId("samples-file");
    files.setMinWidth(Button.USE_PREF_SIZE);
    MenuItem samples = new MenuItem("Take samples in\u2026");
    samples.setOnAction(e -> chosen(false).ifPresent(this::takeSamples));
    MenuItem classes = new MenuItem("Take classes in\u2026");
    classes.setOnAction(e -> chosen(false).ifPresent(this::takeClasses));
    MenuItem write = new MenuItem("Write classes\u2026");
    write.setOnAction(e -> chosen(true).ifPresent(this::writeClasses));
    files.getItems().addAll(samples, classes, write);
    return files;
  }

  private Optional<Path> chosen(boolean toWrite) {
    FileChooser chooser = new FileChooser();
    chooser.setInitialFileName(toWrite ? "classes.json" : "");
    Window window = card.getScene().getWindow();
    return Optional.ofNullable(
            toWrite ? chooser.showSaveDialog(window) : chooser.showOpenDialog(window))
        .map(File::toPath);
  }

  /** Outlines or points of a file become samples; where several columns could hold the class, one is asked for. */
  void takeSamples(Path file) {
    if (model.ground() == null) {
      desk.workspace()
          .messages()
          .warn("Show first what the samples lie in: click it in the trail.");
      return;
    }
    desk.workspace().ask(this, job -> SampleFile.read(file, job), read -> {
      Optional<String> column = read.isPlain()
          ? Optional.of("")
          : new ChoiceDialog<>(read.columns().getFirst(), read.columns()).showAndWait();
      column.ifPresent(name ->
          isDone(() -> model.book().labelAll(model.ground(), read.on(model.ground(), name))));
    });
  }

  void takeClasses(Path file) {
    desk.workspace().ask(this, job -> ClassList.read(file), list -> model.book().takeClasses(list));
  }

  void writeClasses(Path file) {
    ClassList list = model.book().classesProperty().get();
    desk.workspace()
        .ask(
            this,
            job -> {
              list.write(file);
              return file;
            },
            done -> desk.workspace().messages().warn("The classes are in " + done + "."));
  }

  private void add() {
    String wanted = name.getText().strip();
    if (!wanted.isEmpty() && isDone(() -> model.addClass(wanted))) {
      name.clear();
    }
  }

  /** Does what may be refused; afterwards digits mean classes again, not text. */
  private boolean isDone(Runnable act) {
    try {
      act.run();
      desk.picture().requestFocus();
      return true;
    } catch (RasterException refused) {
      desk.workspace().messages().tell(refused.getMessage());
      return false;
    }
  }

  /** Shows what has changed; a name that is being typed stays. */
  void refresh() {
    ClassList now = model.book().classesProperty().get();
    if (now != shown) {
      shown = now;
      rebuild();
    }
    for (int row = 0; row < titles.size(); row++) {
      String ofClass = now.classes().get(row).name();
      boolean inHand = ofClass.equals(model.currentProperty().get());
      titles.get(row).getStyleClass().setAll("label", inHand ? "model-chosen" : "model");
      long count =
          model.here().stream().filter(s -> s.ofClass().equals(ofClass)).count();
      counts.get(row).setText(count == 1 ? "1 sample" : count + " samples");
    }
  }

  private void rebuild() {
    rows.getChildren().clear();
    titles.clear();
    counts.clear();
    for (ClassList.Entry each : shown.classes()) {
      Label count = Words.soft("");
      count.setMinWidth(Label.USE_PREF_SIZE);
      Label title = title(each, titles.size());
      rows.addRow(
          titles.size(),
          digit(each),
          new Circle(5, Color.web(each.colour())),
          title,
          count,
          drop(each));
      titles.add(title);
      counts.add(count);
    }
    if (titles.isEmpty()) {
      rows.add(
          Words.soft(
              "Name what you want to tell apart, such as roof, ground and shadow, then click objects of each in the picture."),
          0,
          0);
    }
  }

  private static Label digit(ClassList.Entry of) {
    Label digit = Words.number(of.digit() == 0 ? "" : String.valueOf(of.digit()));
    digit.getStyleClass().add("soft");
    return digit;
  }

  private Label title(ClassList.Entry of, int row) {
    Label title = new Label(of.name());
    title.setId("class-" + row);
    title.setMaxWidth(Double.MAX_VALUE);
    title.setTooltip(
        new Tooltip(
            "Clicks in the picture give this class; a double click calls it otherwise, the other button puts it under another"));
    title.setOnMouseClicked(e -> {
      if (e.getClickCount() == 2) {
        rename(title, of.name());
      } else {
        model.give(of.name());
      }
    });
    title.setContextMenu(belongs(of));
    if (!of.parent().isEmpty()) {
      title.setPadding(new Insets(0, 0, 0, INDENT));
    }
    GridPane.setHgrow(title, Priority.ALWAYS);
    return title;
  }

  /** What it may belong to. */
  private ContextMenu belongs(ClassList.Entry of) {
    ContextMenu menu = new ContextMenu();
    for (ClassList.Entry each : shown.classes()) {
      if (each.parent().isEmpty()
          && !each.name().equals(of.name())
          && !each.name().equals(of.parent())) {
        menu.getItems().add(item("Belongs to " + each.name(), of.name(), each.name()));
      }
    }
    if (!of.parent().isEmpty()) {
      menu.getItems().add(item("Stands alone", of.name(), ""));
    }
    return menu;
  }

  private MenuItem item(String text, String name, String parent) {
    MenuItem item = new MenuItem(text);
    item.setOnAction(e -> isDone(() -> model.book().putWithin(name, parent)));
    return item;
  }

  private void rename(Label title, String before) {
    TextField field = new TextField(before);
    field.setId("class-rename");
    int column = GridPane.getColumnIndex(title);
    int row = GridPane.getRowIndex(title);
    rows.getChildren().remove(title);
    rows.add(field, column, row);
    field.requestFocus();
    field.selectAll();
    field.setOnAction(e -> {
      String wanted = field.getText().strip();
      if (!wanted.isEmpty() && !wanted.equals(before)) {
        isDone(() -> model.rename(before, wanted));
      } else {
        desk.picture().requestFocus();
      }
    });
    field.focusedProperty().addListener((p, had, has) -> {
      if (!has) {
        shown = null;
        refresh();
      }
    });
  }

  private Button drop(ClassList.Entry of) {
    Button drop = new Button("\u00d7");
    drop.setStyle("-fx-padding: 0 5 0 5;");
    drop.setTooltip(new Tooltip("Takes the class away with its samples"));
    drop.setOnAction(e -> model.book().removeClass(of.name()));
    return drop;
  }
}
