package sharpkestrel.app.shell;

import java.util.LinkedHashMap;
import java.util.Map;
import javafx.animation.PauseTransition;
import javafx.geometry.Pos;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import sharpkestrel.app.bench.Bench;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.expr.Table;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.segment.Cut;

/** The window's content and its key map. */
public final class Shell extends StackPane {

  /** Every key of the window and what it does; one meaning each. */
  public static final Map<String, String> KEYS = keys();

  private final Workspace workspace;
  private final PictureView picture;
  private final Bench bench;
  private final StatusBar status;
  private final HBox message = new HBox();
  private final Label messageText = new Label();
  private final VBox features = new VBox(2);
  private final VBox help = new VBox(4);

  public Shell(Workspace workspace) {
    this.workspace = workspace;
    picture = new PictureView(workspace);
    bench = new Bench(workspace, picture);
    status = new StatusBar(picture);
    StackPane well = new StackPane(picture, message, features, help);
    StackPane.setAlignment(message, Pos.TOP_CENTER);
    StackPane.setAlignment(features, Pos.TOP_RIGHT);
    well.setMinHeight(0);
    BorderPane right = new BorderPane(well);
    right.setBottom(bench);
    BorderPane all = new BorderPane(right);
    all.setTop(new TopBar(workspace, this::toggleTheme, () -> help.setVisible(!help.isVisible())));
    all.setLeft(new Trail(workspace));
    all.setBottom(status);
    getChildren().add(all);
    buildMessage();
    buildHelp();
    features.setVisible(false);
    features.setMaxSize(Region.USE_PREF_SIZE, Region.USE_PREF_SIZE);
    features.getStyleClass().add("card");
    features.setStyle("-fx-translate-x: -10; -fx-translate-y: 44;");
    features.setId("features");
    picture.onPicked(row -> workspace.selectedRowProperty().set(row));
    workspace.selectedRowProperty().addListener((p, before, now) -> showFeatures(now));
    well.setOnDragOver(e -> {
      if (e.getDragboard().hasString()) {
        e.acceptTransferModes(javafx.scene.input.TransferMode.LINK);
      }
    });
    well.setOnDragDropped(e -> workspace.results().stream()
        .filter(r -> ("result:" + r.name()).equals(e.getDragboard().getString()))
        .findFirst()
        .ifPresent(r -> {
          workspace.paneBProperty().set(r);
          workspace.compareProperty().set(Workspace.Compare.SWIPE);
        }));
  }

  private static Map<String, String> keys() {
    Map<String, String> keys = new LinkedHashMap<>();
    keys.put("F", "fit");
    keys.put("1:1 is Z", "one screen pixel for one pixel");
    keys.put("N", "natural colour");
    keys.put("I", "infrared");
    keys.put("G", "grey");
    keys.put("X", "swap panes");
    keys.put("W", "swipe");
    keys.put("S", "side by side");
    keys.put("B", "hold to blink");
    keys.put("O", "outlines on or off");
    keys.put("T", "trial patch here");
    keys.put("D", "draw a trial patch");
    keys.put("P", "fold the bench");
    keys.put("[ and ]", "finer or coarser grain");
    keys.put("Space and drag", "pan in every tool");
    keys.put("Ctrl Z", "undo");
    keys.put("Ctrl Y", "redo");
    keys.put("Esc", "drop the tool");
    return keys;
  }

  public PictureView picture() {
    return picture;
  }

  public Bench bench() {
    return bench;
  }

  private void buildMessage() {
    message.getStyleClass().add("message");
    message.setMaxSize(Region.USE_PREF_SIZE, Region.USE_PREF_SIZE);
    message.setVisible(false);
    message.setStyle("-fx-translate-y: 12;");
    messageText.setWrapText(true);
    messageText.setMaxWidth(620);
    messageText.setId("message");
    Button close = new Button("Close");
    close.setMinWidth(Region.USE_PREF_SIZE);
    close.setOnAction(e -> {
      message.setVisible(false);
      workspace.messageProperty().set("");
      workspace.warningProperty().set("");
    });
    message.getChildren().addAll(messageText, close);
    workspace.messageProperty().addListener((p, before, now) -> tell(now, false));
    workspace.warningProperty().addListener((p, before, now) -> tell(now, true));
  }

  private void tell(String text, boolean note) {
    if (text == null || text.isEmpty()) {
      return;
    }
    messageText.setText(text);
    message.getStyleClass().removeAll("note");
    if (note) {
      message.getStyleClass().add("note");
    }
    message.setVisible(true);
    if (note) {
      PauseTransition wait = new PauseTransition(Duration.seconds(12));
      wait.setOnFinished(e -> message.setVisible(false));
      wait.play();
    }
  }

  private void buildHelp() {
    help.getStyleClass().add("card");
    help.setMaxSize(Region.USE_PREF_SIZE, Region.USE_PREF_SIZE);
    help.setVisible(false);
    Label head = new Label("Keys");
    head.getStyleClass().add("title");
    GridPane grid = new GridPane(16, 3);
    int row = 0;
    for (var entry : KEYS.entrySet()) {
      Label key = new Label(entry.getKey().startsWith("1:1") ? "Z" : entry.getKey());
      key.getStyleClass().add("mono");
      grid.addRow(row++, key, new Label(entry.getValue()));
    }
    help.getChildren().addAll(head, grid);
  }

  private void toggleTheme() {
    Scene scene = getScene();
    var classes = scene.getRoot().getStyleClass();
    if (!classes.remove("dark")) {
      classes.add("dark");
    }
  }

  /** Hooks the keys into a scene; they are silent while a text is edited. */
  public void listenTo(Scene scene) {
    scene.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
      if (scene.getFocusOwner() instanceof TextInputControl) {
        if (e.getCode() == KeyCode.ESCAPE) {
          picture.requestFocus();
        }
        return;
      }
      if (press(e)) {
        e.consume();
      }
    });
    scene.addEventFilter(KeyEvent.KEY_RELEASED, e -> {
      switch (e.getCode()) {
        case SPACE -> picture.setSpaceHeld(false);
        case B -> picture.setBlinking(false);
        default -> {}
      }
    });
  }

  private boolean press(KeyEvent e) {
    if (e.isShortcutDown()) {
      switch (e.getCode()) {
        case Z -> workspace.undo().undo();
        case Y -> workspace.undo().redo();
        default -> {
          return false;
        }
      }
      return true;
    }
    switch (e.getCode()) {
      case F -> picture.fit();
      case Z -> picture.oneToOne();
      case N -> look(Look.NATURAL);
      case I -> look(Look.INFRARED);
      case G -> look(Look.GREY);
      case X -> swap();
      case W -> toggle(Workspace.Compare.SWIPE);
      case S -> toggle(Workspace.Compare.SIDE_BY_SIDE);
      case B -> picture.setBlinking(true);
      case O -> picture.toggleOutlines();
      case T -> picture.patchHere();
      case D -> picture.drawPatch();
      case P -> bench.toggleFold();
      case OPEN_BRACKET -> bench.stepGrain(-1);
      case CLOSE_BRACKET -> bench.stepGrain(1);
      case ESCAPE -> {
        picture.clearPatch();
        workspace.selectedRowProperty().set(-1);
        help.setVisible(false);
      }
      case SPACE -> {
        picture.setSpaceHeld(true);
        return picture.isFocused();
      }
      default -> {
        return false;
      }
    }
    return true;
  }

  private void look(Look look) {
    Look now = workspace.lookProperty().get();
    workspace.lookProperty().set(look.withStretch(now.low(), now.high(), now.fromView()));
  }

  private void toggle(Workspace.Compare mode) {
    workspace
        .compareProperty()
        .set(workspace.compareProperty().get() == mode ? Workspace.Compare.ONE : mode);
  }

  private void swap() {
    Result a = workspace.paneAProperty().get();
    Result b = workspace.paneBProperty().get();
    if (b != null) {
      workspace.paneBProperty().set(a);
      workspace.show(b);
    }
  }

  private void showFeatures(int row) {
    Result result = workspace.paneAProperty().get();
    features.getChildren().clear();
    features.setVisible(false);
    status.showPicked("");
    if (row < 0 || result == null) {
      return;
    }
    if (result.value() instanceof Cut cut) {
      status.showPicked("object " + cut.ids()[Math.min(row, cut.ids().length - 1)]);
      return;
    }
    if (!(result.value() instanceof ObjectSet set)) {
      return;
    }
    double area = set.table().values("area")[row];
    status.showPicked("object " + set.ids()[row] + " \u00b7 " + Math.round(area) + " m²");
    GridPane grid = new GridPane(12, 1);
    int line = 0;
    for (Table.Column column : set.table().columns()) {
      Label name = new Label(column.title());
      name.getStyleClass().add("soft");
      Label value =
          new Label(String.format(java.util.Locale.ROOT, "%.4g", column.values()[row]));
      value.getStyleClass().add("mono");
      grid.addRow(line++, name, value);
    }
    features.getChildren().add(grid);
    features.setVisible(true);
  }
}
