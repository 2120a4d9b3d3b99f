package sharpkestrel.app.shell;

import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import javafx.collections.ListChangeListener;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
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

  /** With more results than this there is a field to find one, and scenes fold. */
  private static final int MANY = 8;

  private final Workspace workspace;
  private final Bench bench;
  private final TextField find = new TextField();
  private final Set<String> unfolded = new HashSet<>();
  private static final double LANE = 30;
  private static final double DOT_EDGE = 25;

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
    this.bench = bench;
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
    find.textProperty().addListener((p, before, now) -> rebuild());
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
    find.setVisible(workspace.results().size() > MANY || !find.getText().isBlank());
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
      for (Result result : shownOf(stage)) {
        if (foldsByScene(stage)) {
          String of = sceneOf(result);
          if (!of.equals(scene)) {
            scene = of;
            box.getChildren().add(sceneRow(stage, of));
          }
          if (isFolded(of, result)) {
            continue;
          }
        }
        Node row = resultRow(result, stale.contains(result.name()));
        rows.put(result.name(), row);
        box.getChildren().add(row);
      }
      workspace.notOpen().stream()
          .filter(each -> each.stage() == stage && isFound(each.title(), ""))
          .forEach(each -> box.getChildren().add(notOpenRow(each)));
    }
    int again = workspace.maker().toRemake(stale).size();
    if (again > 0) {
      box.getChildren().add(staleCard(again));
    }
    mark();
  }

  /**
   * All results of the stage in hand; of a folded one what is in a pane, or the newest that pane A comes from, or the newest
   * where it comes from none.
   */
  private List<Result> shownOf(Stage stage) {
    if (!find.getText().isBlank()) {
      return workspace.of(stage).stream()
          .filter(result -> isFound(result.title(), result.note()))
          .toList();
    }
    List<Result> results = foldsByScene(stage)
        ? workspace.of(stage).stream()
            .sorted(Comparator.comparing(this::placeOfScene))
            .toList()
        : workspace.of(stage);
    if (results.isEmpty() || stage == workspace.display().stageProperty().get()) {
      return results;
    }
    Result shown = workspace.display().paneAProperty().get();
    Result one = results.reversed().stream()
        .filter(result -> shown == result || shown != null && shown.descendsFrom(result))
        .findFirst()
        .orElse(results.getLast());
    return results.stream().filter(result -> result == one || isInPane(result)).toList();
  }

  private boolean isFound(String title, String note) {
    String wanted = find.getText().strip().toLowerCase(Locale.ROOT);
    return title.toLowerCase(Locale.ROOT).contains(wanted)
        || note.toLowerCase(Locale.ROOT).contains(wanted);
  }

  /** Whether the results of a stage stand under the scenes they come from: where there are many, of several scenes. */
  private boolean foldsByScene(Stage stage) {
    List<Result> results = workspace.of(stage);
    return find.getText().isBlank()
        && stage == workspace.display().stageProperty().get()
        && results.size() > MANY
        && results.stream().map(Trail::sceneOf).distinct().count() > 1;
  }

  /** The title of the first thing that a result comes from. */
  private static String sceneOf(Result result) {
    Result from = result;
    while (!from.inputs().isEmpty()) {
      Result last = from;
      from = Optional.ofNullable(last.inputs().get("scene"))
          .orElseGet(() -> last.inputs().values().iterator().next());
    }
    return from.title();
  }

  private int placeOfScene(Result result) {
    String scene = sceneOf(result);
    List<Result> all = workspace.results();
    int place = 0;
    while (place < all.size() && !all.get(place).title().equals(scene)) {
      place++;
    }
    return place;
  }

  /** Folded are all scenes but that of what the panes show, and those that were opened by a click. */
  private boolean isFolded(String scene, Result result) {
    Result shown = workspace.display().paneAProperty().get();
    boolean inHand = shown != null && sceneOf(shown).equals(scene);
    return !inHand && !unfolded.contains(scene) && !isInPane(result);
  }

  private Node sceneRow(Stage stage, String scene) {
    long count =
        workspace.of(stage).stream().filter(r -> sceneOf(r).equals(scene)).count();
    Label name = new Label(scene + "  " + count);
    name.getStyleClass().addAll("soft", "small");
    HBox row = new HBox(name);
    row.getStyleClass().add("scene-row");
    VBox.setMargin(row, new Insets(2, 0, 0, 22));
    row.setOnMouseClicked(e -> {
      if (!unfolded.remove(scene)) {
        unfolded.add(scene);
      }
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

  /** What can be done with a result beside looking at it. */
  private ContextMenu menu(Result result, Label name, VBox texts) {
    ContextMenu menu = new ContextMenu(
        item("Show in pane B", () -> showInB(result)),
        item("Call it otherwise", () -> rename(result, name, texts)),
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

  private void rename(Result result, Label name, VBox texts) {
    TextField field = new TextField(result.title());
    field.setId("rename");
    texts.getChildren().set(texts.getChildren().indexOf(name), field);
    field.setOnAction(e -> workspace.rename(result, field.getText()));
    field.focusedProperty().addListener((p, before, now) -> {
      if (!now) {
        rebuild();
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

  private void showInB(Result result) {
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

  /** Puts the cursor where results are found by name. */
  void find() {
    find.setVisible(true);
    find.requestFocus();
  }

  private boolean isInPane(Result result) {
    return result == workspace.display().paneAProperty().get()
        || result == workspace.display().paneBProperty().get();
  }

  /** What a pane shows is on the trail, even of a stage that is folded. */
  private void showInPanes() {
    Set<String> wanted = new HashSet<>();
    for (Stage stage : Stage.values()) {
      shownOf(stage).forEach(result -> wanted.add(result.name()));
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
    ContextMenu menu = menu(result, name, texts);
    row.setOnContextMenuRequested(e -> menu.show(row, e.getScreenX(), e.getScreenY()));
    row.setOnMouseClicked(e -> {
      if (e.getButton() != MouseButton.PRIMARY || e.getTarget() instanceof TextField) {
        return;
      }
      if (e.isShiftDown()) {
        showInB(result);
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
