package sharpkestrel.app.bench;

import java.util.List;
import java.util.Set;
import javafx.beans.property.ReadOnlyDoubleProperty;
import javafx.beans.property.ReadOnlyDoubleWrapper;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.TextArea;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import sharpkestrel.app.model.ObjectChoice;
import sharpkestrel.app.model.PickModel;
import sharpkestrel.app.model.ProfileModel;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.TieModel;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.viewer.ChoicePainter;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.io.Json;
import sharpkestrel.objects.ObjectGeometry;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Window;
import sharpkestrel.step.Stage;

/** The panel under the picture: tools of the stage at its head, then tool, table or run sheet of what is shown. */
public final class Bench extends VBox {

  /** Steps that are used from within the panel of another. */
  private static final Set<String> WITHIN_OTHERS =
      Set.of("rate-sharpening", "tell-apart", "choose-objects");

  /** Steps whose tools draw a raster over the picture. */
  private static final Set<String> DRAWN_OVER = Set.of("profiles", "builtup");

  private static final double OPEN = 272;
  private static final double FOLDED = 32;
  private static final double LIFTED = 560;

  private final Workspace workspace;
  private final PictureView picture;
  private final HBox head = new HBox(14);
  private final StackPane content = new StackPane();
  private final ToolPanels tools;
  private final TablePanel table;
  private final PlotsPanel plots;
  private String view = "Tool";
  private String tool = "";
  private boolean toolChosen;
  private final ReadOnlyDoubleWrapper restingHeight = new ReadOnlyDoubleWrapper(OPEN);
  private boolean folded;
  private boolean lifted;
  private ObjectGeometry geometry;

  public Bench(Workspace workspace, PictureView picture) {
    this.workspace = workspace;
    this.picture = picture;
    tools = new ToolPanels(workspace, picture);
    ObjectChoice choice = new ObjectChoice(workspace);
    new ChoicePainter(workspace, choice, picture);
    table = new TablePanel(workspace, choice, row -> {
      workspace.selectedRowProperty().set(row);
      bringIntoView(row);
    });
    plots = new PlotsPanel(workspace, choice);
    getStyleClass().add("bench");
    setSpacing(8);
    head.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
    VBox.setVgrow(content, Priority.ALWAYS);
    getChildren().addAll(head, content);
    setFolded(false);
    workspace.stageProperty().addListener((p, before, now) -> {
      tool = "";
      toolChosen = false;
      view = "Tool";
      rebuild();
    });
    workspace.results().addListener((javafx.collections.ListChangeListener<Result>) change -> {
      if (!toolChosen && workspace.stageProperty().get() == Stage.GATHER) {
        tool = "";
        rebuild();
      }
    });
    workspace.paneAProperty().addListener((p, before, now) -> {
      geometry = null;
      if (view.equals("Run sheet")) {
        rebuild();
      }
    });
    rebuild();
  }

  /** One line, or open. */
  public void setFolded(boolean fold) {
    folded = fold;
    lifted = false;
    content.setVisible(!fold);
    content.setManaged(!fold);
    setStyle(fold ? "-fx-padding: 0 12 0 12;" : "");
    restingHeight.set(fold ? FOLDED : OPEN);
    setHeightTo(restingHeight.get());
    rebuild();
  }

  /** Up over the picture, for tables and histograms that want more room; the picture stays as it is below. */
  public void setLifted(boolean lift) {
    if (lift && folded) {
      setFolded(false);
    }
    lifted = lift;
    setHeightTo(lift ? LIFTED : restingHeight.get());
  }

  public boolean isLifted() {
    return lifted;
  }

  /** The height it has when it is not lifted. */
  public ReadOnlyDoubleProperty restingHeightProperty() {
    return restingHeight.getReadOnlyProperty();
  }

  private void setHeightTo(double height) {
    setMinHeight(height);
    setPrefHeight(height);
    setMaxHeight(height);
  }

  /** Runs the tool in hand, as its button does. */
  public void runAll() {
    if (view.equals("Tool") && content.lookup("#" + tool + "-run") instanceof Button run) {
      run.fire();
    }
  }

  public void toggleFold() {
    setFolded(!folded);
  }

  /** Steps the grain, where its slider is in hand. */
  public void stepGrain(int direction) {
    if (isPicking()) {
      tools.picks().climb(direction);
    } else {
      tools.stepGrain(direction);
    }
  }

  private boolean isPicking() {
    return view.equals("Tool") && tool.equals("pick-objects");
  }

  /** Gives up what is picked from a tree. */
  public void dropPicked() {
    if (isPicking()) {
      tools.picks().drop();
    }
  }

  private void rebuild() {
    head.getChildren().clear();
    Stage stage = workspace.stageProperty().get();
    List<StepSpec> steps = StepCatalogue.of(stage);
    if (tool.isEmpty() && !steps.isEmpty()) {
      // What comes next: with scenes at hand, calibrating them rather than assembling more.
      boolean gathered = stage == Stage.GATHER && !workspace.of(stage).isEmpty();
      tool = gathered ? "calibrate" : steps.getFirst().id();
    }
    for (StepSpec step : steps) {
      if (WITHIN_OTHERS.contains(step.id())) {
        continue;
      }
      Button tab = tab(step.title(), view.equals("Tool") && step.id().equals(tool));
      tab.setId("tool-" + step.id());
      tab.setOnAction(e -> {
        picture.trials().clearTrial();
        tool = step.id();
        toolChosen = true;
        view = "Tool";
        rebuild();
      });
      head.getChildren().add(tab);
    }
    Region bar = new Region();
    bar.setStyle(
        "-fx-background-color: -k-line; -fx-min-width: 1; -fx-pref-width: 1; -fx-max-height: 16;");
    head.getChildren().add(bar);
    for (String name : List.of("Table", "Plots", "Run sheet")) {
      Button tab = tab(name, view.equals(name));
      tab.setId("view-" + name.toLowerCase(java.util.Locale.ROOT).replace(' ', '-'));
      tab.setOnAction(e -> {
        view = name;
        rebuild();
      });
      head.getChildren().add(tab);
    }
    Region gap = new Region();
    HBox.setHgrow(gap, Priority.ALWAYS);
    Button fold = tab(folded ? "Open" : "Fold", false);
    fold.setId("fold");
    fold.setOnAction(e -> toggleFold());
    head.getChildren().addAll(gap, fold);
    content.getChildren().setAll(body());
    String inHand = view.equals("Tool") ? tool : "";
    boolean tying = inHand.equals("tiepoints");
    workspace.bothPanesHeldProperty().set(tying);
    if (!DRAWN_OVER.contains(inHand)) {
      picture.clearOver();
    }
    picture.setTool(tools.usedInPicture(inHand));
    if (tying && workspace.paneBProperty().get() != null) {
      workspace.compareProperty().set(Workspace.Compare.SIDE_BY_SIDE);
    }
  }

  /** Places of spectral profiles; null before their tool was first in hand. */
  public ProfileModel profiles() {
    return tools.profiles();
  }

  /** What is picked from a tree; null before its tool was first in hand. */
  public PickModel picks() {
    return tools.picks();
  }

  /** Sets the other half of a tie point where it is expected, or accepts the picked object. */
  public void takeExpected() {
    if (isPicking()) {
      tools.picks().accept();
    } else {
      tools.ties().takeExpected();
    }
  }

  /** Switches the tie point that is picked off. */
  public void switchPointOff() {
    TieModel ties = tools.ties();
    if (ties.selectedProperty().get() >= 0) {
      ties.switchOff(ties.selectedProperty().get());
    }
  }

  /** Gives up the tie point that is half set. */
  public void dropPending() {
    tools.ties().dropPending();
  }

  private static Button tab(String text, boolean chosen) {
    Button tab = new Button(text);
    tab.getStyleClass().add("tool-tab");
    if (chosen) {
      tab.getStyleClass().add("chosen");
    }
    tab.setMinWidth(Region.USE_PREF_SIZE);
    return tab;
  }

  private Node body() {
    return switch (view) {
      case "Table" -> table;
      case "Plots" -> plots;
      case "Run sheet" -> runSheet();
      default -> tools.panel(tool);
    };
  }

  private Node runSheet() {
    Result result = workspace.paneAProperty().get();
    TextArea text =
        new TextArea(result == null ? "" : Json.pretty(workspace.sheetOf(result).toJson()));
    text.setId("run-sheet");
    text.setEditable(false);
    text.setStyle(
        "-fx-font-family: 'IBM Plex Mono'; -fx-font-size: 12px; -fx-control-inner-background: -k-card; -fx-text-fill: -k-text;");
    return text;
  }

  private void bringIntoView(int row) {
    Result result = workspace.paneAProperty().get();
    if (result == null || !(result.value() instanceof ObjectSet set) || row < 0) {
      return;
    }
    workspace
        .tasks()
        .run(
            "Finding object",
            job -> geometry == null ? ObjectGeometry.of(set) : geometry,
            found -> {
              geometry = found;
              Window at = found.bounds(row);
              picture.centreOn(at.x() + at.width() / 2.0, at.y() + at.height() / 2.0);
            },
            failure -> workspace.messageProperty().set(failure.getMessage()));
  }
}
