package sharpkestrel.app.tools.stack;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import sharpkestrel.app.controls.RoleBox;
import sharpkestrel.app.controls.Scroll;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.gather.Stack;
import sharpkestrel.raster.BandRole;

/** Files of single bands, what each is taken for, and the scene they make; what was guessed is confirmed or mended here. */
final class StackPanel extends HBox {

  private final Workspace workspace;
  private final StepSpec step;
  private final VBox list = new VBox(3);
  private final List<Path> files = new ArrayList<>();
  private final List<RoleBox> roles = new ArrayList<>();
  private final TextField path = new TextField();
  private final TextField title = new TextField("Stack");
  private final Label trouble = new Label();
  private final Button run = new Button("Run all");

  StackPanel(Workspace workspace, StepSpec step) {
    super(12);
    this.workspace = workspace;
    this.step = step;
    VBox card = new VBox(6, adding(), scroll());
    card.getStyleClass().add("card");
    HBox.setHgrow(card, Priority.ALWAYS);
    getChildren().addAll(card, actions());
  }

  private HBox adding() {
    path.setId("stack-path");
    path.setPromptText("a raster file, or a folder of them");
    path.setOnAction(e -> addPath());
    HBox.setHgrow(path, Priority.ALWAYS);
    Button add = new Button("Add");
    add.setId("stack-add");
    add.setOnAction(e -> addPath());
    Button choose = new Button("Choose files");
    choose.setMinWidth(USE_PREF_SIZE);
    choose.setOnAction(e -> {
      List<File> chosen = new FileChooser().showOpenMultipleDialog(getScene().getWindow());
      if (chosen != null) {
        add(chosen.stream().map(File::toPath).toList());
      }
    });
    HBox row = new HBox(6, path, add, choose);
    row.setAlignment(Pos.CENTER_LEFT);
    return row;
  }

  private ScrollPane scroll() {
    ScrollPane scroll = Scroll.down(list);
    Label hint = new Label(
        "Bands stand in the order of the files. What each stands for is guessed; set it where the guess is wrong.");
    hint.getStyleClass().add("soft");
    list.getChildren().add(hint);
    return scroll;
  }

  private VBox actions() {
    Label name = new Label("Result");
    name.getStyleClass().add("soft");
    trouble.getStyleClass().add("error");
    trouble.setWrapText(true);
    Region gap = new Region();
    VBox.setVgrow(gap, Priority.ALWAYS);
    run.setId("stack-run");
    run.getStyleClass().add("primary");
    run.setMaxWidth(Double.MAX_VALUE);
    run.setDisable(true);
    run.setOnAction(e -> run());
    VBox box = new VBox(6, name, title, trouble, gap, run);
    box.setPrefWidth(176);
    box.setMinWidth(176);
    return box;
  }

  private void addPath() {
    String text = path.getText().strip();
    if (text.isEmpty()) {
      return;
    }
    Path given = Path.of(text);
    if (!Files.isDirectory(given)) {
      add(List.of(given));
      return;
    }
    try (Stream<Path> within = Files.list(given)) {
      add(within
          .filter(file -> file.getFileName()
              .toString()
              .toLowerCase(Locale.ROOT)
              .matches(".*\\.(tif|tiff|png|jpg|jpeg)"))
          .sorted()
          .toList());
    } catch (IOException unreadable) {
      trouble.setText(given + " cannot be read: " + unreadable.getMessage() + ".");
    }
  }

  /** Opens files away from the interface thread and lists their bands with what they are taken for. */
  private void add(List<Path> more) {
    trouble.setText("");
    List<Path> wanted = more.stream().filter(file -> !files.contains(file)).toList();
    workspace
        .lanes()
        .run()
        .run(
            "Looking at bands",
            job -> Stack.guess(wanted),
            layers -> {
              path.clear();
              files.addAll(wanted);
              for (Stack.Layer layer : layers) {
                list.getChildren().add(line(layer));
              }
              run.setDisable(files.isEmpty());
            },
            failure -> trouble.setText(failure.getMessage()));
  }

  private HBox line(Stack.Layer layer) {
    RoleBox role = new RoleBox("stack-role-" + roles.size(), 140);
    role.getItems().setAll(BandRole.values());
    role.setValue(layer.band().role());
    roles.add(role);
    Label name = new Label(layer.file().getFileName() + "  " + layer.band().name());
    HBox.setHgrow(name, Priority.ALWAYS);
    name.setMaxWidth(Double.MAX_VALUE);
    Label size = new Label(String.format(
        Locale.ROOT,
        "%d x %d, %.2f",
        layer.raster().grid().width(),
        layer.raster().grid().height(),
        layer.raster().grid().pixelSize()));
    size.getStyleClass().add("mono-soft");
    HBox line = new HBox(8, role, name, size);
    if (layer.place() == 0) {
      Button gone = new Button("\u00d7");
      gone.setOnAction(e -> remove(layer.file()));
      line.getChildren().add(gone);
    }
    line.setUserData(layer.file());
    line.setAlignment(Pos.CENTER_LEFT);
    return line;
  }

  private void remove(Path file) {
    for (int k = list.getChildren().size() - 1; k > 0; k--) {
      if (file.equals(list.getChildren().get(k).getUserData())) {
        list.getChildren().remove(k);
        roles.remove(k - 1);
      }
    }
    files.remove(file);
    run.setDisable(files.isEmpty());
  }

  private void run() {
    trouble.setText("");
    Map<String, String> settings = new LinkedHashMap<>();
    settings.put(
        "files",
        String.join(
            ",", files.stream().map(file -> file.toString().replace(",", "\\,")).toList()));
    settings.put(
        "roles", String.join(",", roles.stream().map(r -> r.getValue().key()).toList()));
    workspace.run(step, title.getText(), Map.of(), Map.of(), settings);
  }
}
