package sharpkestrel.app.shell;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.animation.PauseTransition;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBoxBase;
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
import sharpkestrel.app.look.LookCard;
import sharpkestrel.app.model.Display;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.objects.FeatureCard;
import sharpkestrel.app.project.ProjectPicture;
import sharpkestrel.app.tools.Tool;
import sharpkestrel.app.tools.ToolKey;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.expr.Table;
import sharpkestrel.kinds.ResultKinds;

/** The window's content and its key map. */
public final class Shell extends StackPane {

  private final Workspace workspace;
  private final Optional<Doors> doors;
  private final PictureView picture;
  private final Bench bench;
  private final Trail trail;
  private final StatusBar status;
  private final LivePlacing live;
  private final LookCard looks;
  private final QueueCard queue;
  private final KeyMap keys = new KeyMap();
  private final PauseTransition noteEnds = new PauseTransition(Duration.seconds(12));
  private final HBox message = new HBox();
  private final Label messageText = new Label();
  private final Button remedy = new Button();
  private final FeatureCard features;
  private final VBox help = new VBox(4);

  /**
   * @param doors ways to other projects; none in a window within another program
   */
  public Shell(Workspace workspace, Optional<Doors> doors) {
    this.workspace = workspace;
    this.doors = doors;
    picture = new PictureView(workspace);
    bench = new Bench(workspace, picture);
    status = new StatusBar(picture);
    live = new LivePlacing(workspace);
    looks = new LookCard(workspace, picture);
    looks.setVisible(false);
    features = new FeatureCard(workspace);
    NextLine next = new NextLine(workspace, bench, () -> looks.setVisible(true));
    ClassLegend legend = new ClassLegend(workspace, picture.classesSeenProperty());
    queue = new QueueCard(workspace.lanes().run());
    queue.setVisible(false);
    StackPane well = new StackPane(picture, legend, message, features, queue, next);
    StackPane.setAlignment(legend, Pos.TOP_LEFT);
    StackPane.setMargin(legend, new Insets(44, 0, 60, 10));
    StackPane.setAlignment(next, Pos.BOTTOM_LEFT);
    StackPane.setMargin(next, new Insets(0, 0, 10, 10));
    StackPane.setAlignment(queue, Pos.TOP_RIGHT);
    StackPane.setMargin(queue, new Insets(8, 10, 0, 0));
    StackPane.setAlignment(looks, Pos.TOP_RIGHT);
    StackPane.setMargin(looks, new Insets(8, 10, 0, 0));
    StackPane.setAlignment(message, Pos.TOP_CENTER);
    StackPane.setAlignment(features, Pos.TOP_RIGHT);
    StackPane.setMargin(features, new Insets(44, 10, 10, 0));
    well.setMinHeight(0);
    // The bench stands over a place kept free for it, so that lifted it covers the picture without
    // moving it.
    Region place = new Region();
    place.minHeightProperty().bind(bench.restingHeightProperty());
    BorderPane below = new BorderPane(well);
    below.setBottom(place);
    StackPane right = new StackPane(below, bench, looks, help);
    StackPane.setAlignment(bench, Pos.BOTTOM_CENTER);
    BorderPane all = new BorderPane(right);
    all.setTop(new TopBar(
        workspace,
        new ProjectMenu(workspace, doors),
        live,
        looks.visibleProperty(),
        queue.visibleProperty(),
        this::togglePlaced,
        this::toggleTheme,
        () -> help.setVisible(!help.isVisible())));
    trail = new Trail(workspace, bench);
    all.setLeft(trail);
    all.setBottom(status);
    getChildren().add(all);
    buildMessage();
    bindKeys();
    buildHelp();
    features.setVisible(false);
    ProjectPicture.keep(
        workspace, () -> picture.small(ProjectPicture.WIDTH, ProjectPicture.HEIGHT));
    picture.onPicked(row -> workspace.display().selectedRowProperty().set(row));
    workspace.display().selectedRowProperty().addListener((p, before, now) -> showFeatures(now));
    well.setOnDragOver(e -> {
      if (e.getDragboard().hasString()) {
        e.acceptTransferModes(javafx.scene.input.TransferMode.LINK);
      }
    });
    well.setOnDragDropped(e -> workspace.results().stream()
        .filter(r -> ("result:" + r.name()).equals(e.getDragboard().getString()))
        .findFirst()
        .ifPresent(r -> {
          workspace.display().paneBProperty().set(r);
          workspace.display().compareProperty().set(Display.Compare.SWIPE);
        }));
  }

  private void bindKeys() {
    keys.key(KeyCode.F, "fit", picture::fit);
    keys.key(KeyCode.Z, "one screen pixel for one pixel", picture::oneToOne);
    keys.key(KeyCode.N, "natural colour", () -> look(Look.NATURAL));
    keys.key(KeyCode.I, "infrared", () -> look(Look.INFRARED));
    keys.key(KeyCode.G, "grey", () -> look(Look.GREY));
    keys.key(KeyCode.K, "the look: bands, stretch and histogram", this::toggleLooks);
    keys.line("Ctrl 1 to 9", "a look of one's own");
    for (int k = 0; k < 9; k++) {
      int place = k;
      keys.bind(KeyCode.getKeyCode(String.valueOf(k + 1)), true, () -> ownLook(place));
    }
    keys.key(KeyCode.X, "swap panes", this::swap);
    keys.key(KeyCode.W, "swipe", () -> toggle(Display.Compare.SWIPE));
    keys.key(KeyCode.S, "side by side", () -> toggle(Display.Compare.SIDE_BY_SIDE));
    keys.key(KeyCode.B, "hold to blink", () -> picture.setBlinking(true));
    keys.key(KeyCode.L, "the raw scene placed live, or raw again", this::togglePlaced);
    keys.key(KeyCode.V, "overview of all of pane A", picture::toggleOverview);
    keys.key(KeyCode.M, "magnifier under the mouse", picture::toggleGlass);
    keys.key(KeyCode.O, "outlines on or off", picture::toggleOutlines);
    keys.key(KeyCode.T, "trial patch here", picture.trials()::here);
    keys.key(KeyCode.D, "draw a trial patch", picture::drawPatch);
    keys.key(KeyCode.R, "run the tool on all", bench::runAll);
    keys.key(KeyCode.E, "lift the bench over the picture", () -> lift(!bench.isLifted()));
    keys.key(KeyCode.P, "fold the bench", bench::toggleFold);
    bindKeysOfTools();
    keys.line("Space and drag", "pan in every tool");
    keys.bind(KeyCode.SPACE, false, () -> {
      picture.setSpaceHeld(true);
      return picture.isFocused();
    });
    keys.shortcut(KeyCode.F, "find a result in the trail", trail::find);
    keys.shortcut(KeyCode.Z, "undo", workspace.undo()::undo);
    keys.shortcut(KeyCode.Y, "redo", workspace.undo()::redo);
    keys.key(KeyCode.ESCAPE, "drop the tool", this::drop);
  }

  private void toggleLooks() {
    looks.setVisible(!looks.isVisible());
  }

  private boolean ownLook(int place) {
    if (place < workspace.display().ownLooks().size()) {
      look(workspace.display().ownLooks().get(place));
    }
    return true;
  }

  private void togglePlaced() {
    picture.middle().ifPresent(at -> live.toggle(at[0], at[1], picture::arriveAt));
  }

  /** A key of tools means what it means to the one in hand. */
  private void bindKeysOfTools() {
    Map<KeyCode, List<String>> meanings = new LinkedHashMap<>();
    for (Tool tool : bench.tools()) {
      for (ToolKey key : tool.keys()) {
        List<String> said = meanings.computeIfAbsent(key.key(), code -> new ArrayList<>());
        if (!key.meaning().isEmpty()) {
          said.add(tool.title() + ": " + key.meaning());
        }
      }
    }
    meanings.forEach((code, said) -> {
      keys.bind(code, false, () -> bench.press(code));
      said.forEach(meaning -> keys.line(KeyMap.name(code), meaning));
    });
  }

  /** A lifted bench covers the picked object's features; its table shows them. */
  private void lift(boolean up) {
    bench.setLifted(up);
    showFeatures(workspace.display().selectedRowProperty().get());
  }

  private void drop() {
    picture.trials().clear();
    bench.drop();
    workspace.messages().clear();
    lift(false);
    workspace.display().selectedRowProperty().set(-1);
    help.setVisible(false);
    looks.setVisible(false);
    queue.setVisible(false);
  }

  public Display display() {
    return workspace.display();
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
    close.setOnAction(e -> workspace.messages().clear());
    remedy.setId("remedy");
    remedy.getStyleClass().add("primary");
    remedy.setMinWidth(Region.USE_PREF_SIZE);
    remedy.managedProperty().bind(remedy.visibleProperty());
    remedy.visibleProperty().bind(workspace.messages().remedyProperty().isNotNull());
    remedy.setOnAction(e -> workspace.messages().remedyProperty().get().act().run());
    workspace.messages().remedyProperty().addListener((p, before, now) -> {
      if (now != null) {
        remedy.setText(now.label());
      }
    });
    message.getChildren().addAll(messageText, remedy, close);
    workspace.messages().textProperty().addListener((p, before, now) -> tell(now, false));
    workspace.messages().warningProperty().addListener((p, before, now) -> tell(now, true));
  }

  private void tell(String text, boolean note) {
    if (text == null || text.isEmpty()) {
      message.setVisible(false);
      return;
    }
    messageText.setText(text);
    message.getStyleClass().removeAll("note");
    if (note) {
      message.getStyleClass().add("note");
    }
    message.setVisible(true);
    noteEnds.stop();
    if (note) {
      noteEnds.setOnFinished(e -> workspace.messages().clear());
      noteEnds.play();
    }
  }

  private void buildHelp() {
    help.getStyleClass().add("card");
    help.setMaxSize(Region.USE_PREF_SIZE, Region.USE_PREF_SIZE);
    help.setVisible(false);
    // a long list does not make the window taller than the screen
    help.setMinHeight(0);
    Label head = new Label("Keys");
    head.getStyleClass().add("title");
    help.setId("keys");
    GridPane grid = new GridPane(16, 3);
    List<KeyMap.Line> lines = keys.lines();
    int half = Math.ceilDiv(lines.size(), 2);
    for (int i = 0; i < lines.size(); i++) {
      Label key = new Label(lines.get(i).keys());
      key.getStyleClass().add("mono");
      Label meaning = new Label(lines.get(i).meaning());
      meaning.setMinWidth(190);
      grid.add(key, 2 * (i / half), i % half);
      grid.add(meaning, 2 * (i / half) + 1, i % half);
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

  /** Hooks the keys into a scene; they are silent while a text is edited or a list is open. */
  public void listenTo(Scene scene) {
    doors.ifPresent(ways -> Choosers.takeDrops(scene, ways));
    scene.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
      if (scene.getFocusOwner() instanceof TextInputControl) {
        if (e.getCode() == KeyCode.ESCAPE) {
          picture.requestFocus();
        }
        return;
      }
      // an open list takes letters, too: they go to what begins with them
      if (scene.getFocusOwner() instanceof ComboBoxBase<?> list && list.isShowing()) {
        return;
      }
      if (keys.press(e)) {
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

  private void look(Look look) {
    workspace
        .display()
        .lookProperty()
        .set(workspace.display().lookProperty().get().changedTo(look));
  }

  private void toggle(Display.Compare mode) {
    workspace
        .display()
        .compareProperty()
        .set(workspace.display().compareProperty().get() == mode ? Display.Compare.ONE : mode);
  }

  private void swap() {
    Result a = workspace.display().paneAProperty().get();
    Result b = workspace.display().paneBProperty().get();
    if (b != null) {
      workspace.display().paneBProperty().set(a);
      workspace.display().show(b);
    }
  }

  private void showFeatures(int row) {
    Result result = workspace.display().paneAProperty().get();
    features.setVisible(false);
    status.showPicked("");
    if (row < 0 || result == null) {
      return;
    }
    ResultKinds.rows(result.value()).filter(rows -> row < rows.ids().length).ifPresent(rows -> {
      Table table = rows.table();
      String area = !table.has("area")
          ? ""
          : " \u00b7 " + Math.round(table.values("area")[row]) + " "
              + table.column("area").unit();
      status.showPicked("object " + rows.ids()[row] + area);
      if (!table.columns().isEmpty()) {
        features.show(rows, row);
        features.setVisible(!bench.isLifted());
      }
    });
  }
}
