package sharpkestrel.app.bench;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Predicate;
import javafx.beans.property.ReadOnlyDoubleProperty;
import javafx.beans.property.ReadOnlyDoubleWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.step.Stage;

/** The panel under the picture: the tools of the stage at its head, those of every stage beside them, then the one in hand. */
public final class Bench extends VBox {

  private static final double OPEN = 272;
  private static final double FOLDED = 32;
  private static final double LIFTED = 560;

  /** Between tabs, and where there are many. */
  private static final double APART = 14;

  private static final double CLOSE = 9;
  private static final double LEAST_TAB = 36;

  private final Workspace workspace;
  private final PictureView picture;
  private final List<Tool> tools;
  private final HBox head = new HBox(APART);
  private final StackPane content = new StackPane();
  private final ReadOnlyDoubleWrapper restingHeight = new ReadOnlyDoubleWrapper(OPEN);
  private final ReadOnlyObjectWrapper<Tool> inHand = new ReadOnlyObjectWrapper<>();

  /** Whether the tool in hand was chosen, rather than offered with the stage. */
  private boolean chosen;

  private boolean folded;
  private boolean lifted;

  public Bench(Workspace workspace, PictureView picture) {
    this.workspace = workspace;
    this.picture = picture;
    tools = ToolList.of(new Desk(workspace, picture));
    getStyleClass().add("bench");
    setSpacing(8);
    head.setAlignment(Pos.CENTER_LEFT);
    VBox.setVgrow(content, Priority.ALWAYS);
    getChildren().addAll(head, content);
    // what somebody has put a hand on is not taken away when a scene comes in
    content.addEventFilter(MouseEvent.MOUSE_PRESSED, e -> chosen = true);
    workspace.display().stageProperty().addListener((p, before, now) -> {
      chosen = false;
      take(comesNext());
    });
    workspace.results().addListener((javafx.collections.ListChangeListener<Result>)
        change -> offerWhileGathering());
    workspace.display().paneAProperty().addListener((p, before, now) -> offerWhileGathering());
    setFolded(false);
    take(comesNext());
  }

  /** What comes next changes while scenes come in, until somebody chooses a tool. */
  private void offerWhileGathering() {
    if (!chosen && workspace.display().stageProperty().get() == Stage.GATHER) {
      take(comesNext());
    }
  }

  /** Every tool there is. */
  public List<Tool> tools() {
    return tools;
  }

  /** The tool of a kind. */
  public <T extends Tool> T tool(Class<T> kind) {
    return tools.stream().filter(kind::isInstance).map(kind::cast).findFirst().orElseThrow();
  }

  /** The tool in hand. */
  public Tool inHand() {
    return inHand.get();
  }

  public ReadOnlyObjectProperty<Tool> inHandProperty() {
    return inHand.getReadOnlyProperty();
  }

  /** Whether the tool in hand is that of a step. */
  public boolean isInHand(StepSpec step) {
    return inHand() != null && inHand().steps().contains(step.id());
  }

  /** Takes the tool of a step in hand, at its stage. */
  public void takeFor(StepSpec step) {
    workspace.display().stageProperty().set(step.stage());
    tools.stream().filter(tool -> tool.steps().contains(step.id())).findFirst().ifPresent(tool -> {
      chosen = true;
      take(tool);
    });
  }

  /**
   * The tool that comes next at a stage: the first that is declared to come next for what is shown, and has what it needs; of
   * the stage that what is shown is of, else the first that works on something there is; else the first.
   */
  private Tool comesNext() {
    Stage stage = workspace.display().stageProperty().get();
    Result shown = workspace.display().paneAProperty().get();
    List<Tool> here = tools.stream()
        .filter(tool -> tool.stage().filter(stage::equals).isPresent())
        .toList();
    boolean ofStage = shown != null && shown.stage() == stage;
    return first(here, step -> shown != null && step.comesNextFor(shown.value()) && hasInputs(step))
        .or(() -> first(here, step -> ofStage && step.next().isEmpty() && hasInputs(step)))
        .or(() -> here.stream().findFirst())
        .orElse(tools.getLast());
  }

  private static Optional<Tool> first(List<Tool> among, Predicate<StepSpec> wanted) {
    return among.stream()
        .filter(tool -> StepCatalogue.all().stream()
            .anyMatch(step -> step.id().equals(tool.id()) && wanted.test(step)))
        .findFirst();
  }

  private boolean hasInputs(StepSpec step) {
    List<StepSpec.Input> needed =
        step.inputs().stream().filter(input -> !input.optional()).toList();
    return !needed.isEmpty()
        && needed.stream().noneMatch(input -> workspace.fitting(input).isEmpty());
  }

  /** Takes the tool in hand that made a result, set as it was then; a tool of another stage brings its stage. */
  public void takeAsMade(Result result) {
    workspace.display().show(result);
    workspace.display().stageProperty().set(result.stage());
    tools.stream()
        .filter(tool -> tool.steps().contains(result.step().id()))
        .findFirst()
        .ifPresent(tool -> {
          chosen = true;
          take(tool);
          tool.takeAsMade();
        });
  }

  private void take(Tool tool) {
    if (inHand() != tool) {
      if (inHand() != null) {
        inHand().putAway();
      }
      // made before it is told, so that whoever hears of it can ask what it does in the picture
      Node panel = tool.take();
      inHand.set(tool);
      content.getChildren().setAll(panel);
      picture.setTool(tool.inPicture().orElse(null));
      workspace.display().bothPanesHeldProperty().set(tool.isBetweenPanes());
    }
    showHead();
  }

  private void showHead() {
    head.getChildren().clear();
    Stage stage = workspace.display().stageProperty().get();
    List<Tool> here = tools.stream()
        .filter(tool -> tool.stage().filter(stage::equals).isPresent())
        .toList();
    String family = inHand() != null && here.contains(inHand())
        ? inHand().family()
        : here.isEmpty() ? "" : here.getFirst().family();
    List<String> families = here.stream().map(Tool::family).distinct().toList();
    head.setSpacing(families.size() > 1 ? CLOSE : APART);
    if (families.size() > 1) {
      families.forEach(each -> head.getChildren().add(familyTab(each, here, each.equals(family))));
      head.getChildren().add(bar());
    }
    here.stream()
        .filter(tool -> tool.family().equals(family))
        .forEach(tool -> head.getChildren().add(tab(tool)));
    head.getChildren().add(bar());
    tools.stream()
        .filter(tool -> tool.stage().isEmpty())
        .forEach(tool -> head.getChildren().add(tab(tool)));
    Region gap = new Region();
    HBox.setHgrow(gap, Priority.ALWAYS);
    Button fold = tab(folded ? "Open" : "Fold", false);
    fold.setId("fold");
    fold.setOnAction(e -> toggleFold());
    head.getChildren().addAll(gap, fold);
  }

  private static Region bar() {
    Region bar = new Region();
    bar.getStyleClass().add("tab-bar");
    return bar;
  }

  /** Takes the first tool of a family in hand, of those that have something to work on. */
  private Button familyTab(String family, List<Tool> here, boolean isInHand) {
    Button tab = tab(family, isInHand);
    tab.getStyleClass().add("family");
    tab.setId("family-" + family.toLowerCase(Locale.ROOT).replace(' ', '-'));
    List<Tool> own = here.stream().filter(tool -> tool.family().equals(family)).toList();
    tab.setOnAction(e -> {
      picture.trials().clearTrial();
      chosen = true;
      take(first(own, this::hasInputs).orElse(own.getFirst()));
    });
    return tab;
  }

  private Button tab(Tool tool) {
    Button tab = tab(tool.title(), tool == inHand());
    tab.setId((tool.stage().isPresent() ? "tool-" : "view-") + tool.id());
    tab.setOnAction(e -> {
      if (tool.stage().isPresent()) {
        picture.trials().clearTrial();
      }
      chosen = true;
      take(tool);
    });
    return tab;
  }

  private static Button tab(String text, boolean chosen) {
    Button tab = new Button(text);
    tab.getStyleClass().add("tool-tab");
    if (chosen) {
      tab.getStyleClass().add("chosen");
    }
    // where the window is too narrow for all, words are cut rather than the window
    tab.setMinWidth(LEAST_TAB);
    return tab;
  }

  /** Does what a key means to the tool in hand; false where it means nothing to it. */
  public boolean press(KeyCode key) {
    Optional<Runnable> act = inHand().keys().stream()
        .filter(each -> each.key() == key)
        .findFirst()
        .map(each -> each.act());
    act.ifPresent(Runnable::run);
    return act.isPresent();
  }

  /** Runs the tool in hand, as its button does. */
  public void runAll() {
    inHand().run();
  }

  /** Gives up what the tool in hand has begun. */
  public void drop() {
    inHand().drop();
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
    showHead();
  }

  public boolean isFolded() {
    return folded;
  }

  public void toggleFold() {
    setFolded(!folded);
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
}
