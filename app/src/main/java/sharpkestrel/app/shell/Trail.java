package sharpkestrel.app.shell;

import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import javafx.collections.ListChangeListener;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import javafx.scene.shape.LineTo;
import javafx.scene.shape.MoveTo;
import javafx.scene.shape.Path;
import sharpkestrel.app.bench.Bench;
import sharpkestrel.app.model.Display;
import sharpkestrel.app.model.NotOpen;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.viewer.Thumbnails;
import sharpkestrel.step.Stage;

/** The path down the left side: stages in order, results hanging from them, ancestors lit on hovering. */
final class Trail extends ScrollPane {

  private static final double LANE = 30;
  private static final double DOT_EDGE = 25;

  private final Workspace workspace;
  private final TrailOrder order;
  private final ResultMenu menus;
  private final TextField find = new TextField();

  private final VBox box = new VBox(2);
  private final Path lineage = new Path();
  private boolean lineageChanged;
  private final Map<String, Node> rows = new HashMap<>();
  private final Map<Stage, Node> stages = new EnumMap<>(Stage.class);
  private final Map<Result, Image> pictures = new HashMap<>();

  /**
   * @param bench takes the tool in hand that made a result
   */
  Trail(Workspace workspace, Bench bench) {
    this.workspace = workspace;
    order = new TrailOrder(workspace);
    menus = new ResultMenu(workspace, bench);
    getStyleClass().add("trail");
    setPrefWidth(176);
    setMinWidth(176);
    setMaxWidth(176);
    setHbarPolicy(ScrollBarPolicy.NEVER);
    setFitToWidth(true);
    box.setStyle("-fx-padding: 10 6 10 12;");
    lineage.getStyleClass().add("lineage");
    lineage.setMouseTransparent(true);
    lineage.setManaged(false);
    setContent(new Pane(box, lineage));
    box.prefWidthProperty().bind(widthProperty().subtract(2));
    // Rows have their places only after layout.
    sceneProperty()
        .addListener((p, before, scene) -> scene.addPostLayoutPulseListener(() -> {
          if (lineageChanged) {
            lineageChanged = false;
            drawLineage(workspace.display().paneAProperty().get());
          }
        }));
    find.setId("trail-find");
    find.setPromptText("find a result");
    find.managedProperty().bind(find.visibleProperty());
    find.setVisible(false);
    VBox.setMargin(find, new Insets(0, 6, 6, 0));
    find.textProperty().addListener((p, before, now) -> {
      order.find(now);
      rebuild();
    });
    find.setOnKeyPressed(e -> {
      if (e.getCode() == KeyCode.ESCAPE) {
        find.clear();
      }
    });
    workspace.results().addListener((ListChangeListener<Result>) change -> rebuild());
    workspace.notOpen().addListener((ListChangeListener<NotOpen>) change -> rebuild());
    workspace.display().stageProperty().addListener((p, before, now) -> rebuild());
    workspace.display().paneAProperty().addListener((p, before, now) -> showInPanes());
    workspace.display().paneBProperty().addListener((p, before, now) -> showInPanes());
    rebuild();
  }

  private void rebuild() {
    box.getChildren().setAll(find);
    find.setVisible(order.needsFinding());
    rows.clear();
    stages.clear();
    Set<String> stale = workspace.maker().stale();
    for (Stage stage : Stage.values()) {
      List<Result> results = workspace.of(stage);
      boolean current = stage == workspace.display().stageProperty().get();
      Node head = stageRow(stage, results.size(), current);
      stages.put(stage, head);
      box.getChildren().add(head);
      String scene = "";
      for (Result result : order.shownOf(stage)) {
        if (order.foldsByScene(stage)) {
          String of = TrailOrder.sceneOf(result);
          if (!of.equals(scene)) {
            scene = of;
            box.getChildren().add(sceneRow(stage, of));
          }
          if (order.isFolded(of, result)) {
            continue;
          }
        }
        Node row = resultRow(result, stale.contains(result.name()));
        rows.put(result.name(), row);
        box.getChildren().add(row);
      }
      workspace.notOpen().stream()
          .filter(each -> each.stage() == stage && order.isFound(each.title(), ""))
          .forEach(each -> box.getChildren().add(notOpenRow(each)));
    }
    int again = workspace.maker().toRemake(stale).size();
    if (again > 0) {
      box.getChildren().add(staleCard(again));
    }
    mark();
  }

  private Node sceneRow(Stage stage, String scene) {
    long count = workspace.of(stage).stream()
        .filter(r -> TrailOrder.sceneOf(r).equals(scene))
        .count();
    Label name = new Label(scene + "  " + count);
    name.getStyleClass().addAll("soft", "small");
    HBox row = new HBox(name);
    row.getStyleClass().add("scene-row");
    VBox.setMargin(row, new Insets(2, 0, 0, 22));
    row.setOnMouseClicked(e -> {
      order.toggle(scene);
      rebuild();
    });
    return row;
  }

  /** What the project names and is not there: why, at a click, with another try where that can help. */
  private Node notOpenRow(NotOpen entry) {
    Label name = new Label(entry.title());
    name.getStyleClass().add("name");
    name.setWrapText(true);
    Label note = new Label("not open");
    note.getStyleClass().add("stale");
    VBox texts = new VBox(name, note);
    HBox row = new HBox(texts);
    row.setId("not-open-" + entry.name());
    row.getStyleClass().addAll("result", "not-open");
    VBox.setMargin(row, new Insets(0, 0, 2, 22));
    Tooltip.install(row, new Tooltip(entry.why()));
    row.setOnMouseClicked(e -> {
      String said = entry.title() + " could not be opened: " + entry.why();
      if (entry.again().isPresent()) {
        workspace.messages().tell(said, "Try again", entry.again().get());
      } else {
        workspace.messages().tell(said + " It stays in the project's file as it is.");
      }
    });
    return row;
  }

  /** Puts the cursor where results are found by name. */
  void find() {
    find.setVisible(true);
    find.requestFocus();
  }

  /** What a pane shows is on the trail, even of a stage that is folded. */
  private void showInPanes() {
    Set<String> wanted = new HashSet<>();
    for (Stage stage : Stage.values()) {
      order.shownOf(stage).forEach(result -> wanted.add(result.name()));
    }
    if (!wanted.equals(rows.keySet())) {
      rebuild();
    } else {
      mark();
    }
  }

  private Node stageRow(Stage stage, int count, boolean current) {
    Circle dot = new Circle(7);
    dot.getStyleClass().add("dot");
    Label name = new Label(stage.title());
    name.getStyleClass().add("name");
    Region gap = new Region();
    HBox.setHgrow(gap, Priority.ALWAYS);
    Label number = new Label(count == 0 ? "" : Integer.toString(count));
    number.getStyleClass().add("soft");
    HBox row = new HBox(dot, name, gap, number);
    row.setId("stage-" + stage.name().toLowerCase(Locale.ROOT));
    row.getStyleClass().add("stage");
    if (current) {
      row.getStyleClass().add("current");
    } else if (count > 0) {
      row.getStyleClass().add("filled");
    }
    row.setOnMouseClicked(e -> workspace.display().stageProperty().set(stage));
    return row;
  }

  /** Offers to make stale results again. */
  private Node staleCard(int count) {
    Label text = new Label((count == 1 ? "1 result comes" : count + " results come")
        + " from what has changed since.");
    text.setWrapText(true);
    text.getStyleClass().add("stale");
    Button again = new Button("Make again");
    again.setId("remake-stale");
    again.setMaxWidth(Double.MAX_VALUE);
    again.setOnAction(e -> workspace.maker().remakeStale());
    VBox card = new VBox(6, text, again);
    card.getStyleClass().add("stale-card");
    VBox.setMargin(card, new Insets(10, 0, 0, 0));
    return card;
  }

  private Node resultRow(Result result, boolean stale) {
    StackPane frame = new StackPane();
    frame.setMinSize(Thumbnails.WIDTH, Thumbnails.HEIGHT);
    frame.setMaxSize(Thumbnails.WIDTH, Thumbnails.HEIGHT);
    frame.setStyle("-fx-background-color: -k-well; -fx-background-radius: 3;");
    ImageView picture = new ImageView(pictures.get(result));
    frame.getChildren().add(picture);
    if (!pictures.containsKey(result)) {
      Thumbnails.make(result, image -> {
        pictures.put(result, image);
        picture.setImage(image);
      });
    }
    Label name = new Label(result.title());
    name.getStyleClass().add("name");
    name.setWrapText(true);
    Label note = new Label(stale ? "stale, " + result.note() : result.note());
    note.getStyleClass().add(stale ? "stale" : "note");
    note.setWrapText(true);
    VBox texts = new VBox(name, note);
    HBox.setHgrow(texts, Priority.ALWAYS);
    HBox row = new HBox(frame, texts);
    row.setId("result-" + result.name());
    row.getStyleClass().add("result");
    VBox.setMargin(row, new Insets(0, 0, 2, 22));
    ContextMenu menu = menus.of(result, name, texts, this::rebuild);
    row.setOnContextMenuRequested(e -> menu.show(row, e.getScreenX(), e.getScreenY()));
    row.setOnMouseClicked(e -> {
      if (e.getButton() != MouseButton.PRIMARY || e.getTarget() instanceof TextField) {
        return;
      }
      if (e.isShiftDown()) {
        menus.showInB(result);
      } else {
        // Shown first, so that a panel that is built for the stage takes what goes with it.
        workspace.display().show(result);
        if (!workspace.display().bothPanesHeldProperty().get()) {
          workspace.display().stageProperty().set(result.stage());
        }
      }
    });
    row.setOnMouseEntered(e -> lightAncestors(result, true));
    row.setOnMouseExited(e -> lightAncestors(result, false));
    row.setOnDragDetected(e -> {
      ClipboardContent content = new ClipboardContent();
      content.putString("result:" + result.name());
      row.startDragAndDrop(TransferMode.LINK).setContent(content);
      e.consume();
    });
    return row;
  }

  /**
   * A line from what pane A shows, or from the result under the mouse, up to all it was made from: to their rows, or to
   * their stages where those are folded.
   */
  private void drawLineage(Result from) {
    lineage.getElements().clear();
    Node row = from == null ? null : rows.get(from.name());
    if (row == null) {
      return;
    }
    double end = middle(row);
    double top = end;
    for (Result other : workspace.results()) {
      if (from.descendsFrom(other)) {
        Node above = rows.get(other.name());
        double y = middle(above != null ? above : stages.get(other.stage()));
        top = Math.min(top, y);
        double x = above != null ? above.getBoundsInParent().getMinX() : DOT_EDGE;
        lineage.getElements().addAll(new MoveTo(LANE, y), new LineTo(x, y));
      }
    }
    if (top < end) {
      lineage.getElements().addAll(new MoveTo(LANE, top), new LineTo(LANE, end));
      lineage.getElements().addAll(new LineTo(row.getBoundsInParent().getMinX(), end));
    }
  }

  private static double middle(Node row) {
    return row.getBoundsInParent().getCenterY();
  }

  private void lightAncestors(Result result, boolean on) {
    drawLineage(on ? result : workspace.display().paneAProperty().get());
    for (Result other : workspace.results()) {
      Node row = rows.get(other.name());
      if (row != null && result.descendsFrom(other)) {
        if (on) {
          row.getStyleClass().add("ancestor");
        } else {
          row.getStyleClass().removeAll("ancestor");
        }
      }
    }
  }

  private void mark() {
    lineageChanged = true;
    requestLayout();
    rows.forEach((name, row) -> {
      row.getStyleClass().removeAll("in-a", "in-b");
      Result a = workspace.display().paneAProperty().get();
      Result b = workspace.display().paneBProperty().get();
      if (a != null && a.name().equals(name)) {
        row.getStyleClass().add("in-a");
      } else if (b != null
          && b.name().equals(name)
          && workspace.display().compareProperty().get() != Display.Compare.ONE) {
        row.getStyleClass().add("in-b");
      }
    });
  }
}
