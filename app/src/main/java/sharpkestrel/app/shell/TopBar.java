package sharpkestrel.app.shell;

import java.util.Map;
import javafx.beans.binding.Bindings;
import javafx.beans.property.BooleanProperty;
import javafx.beans.value.ObservableValue;
import javafx.scene.control.Button;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.shape.SVGPath;
import sharpkestrel.app.model.Display;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;

/** Mark, project, look, compare, undo and the task that runs. */
final class TopBar extends HBox {

  private static final double NAMED_WIDTH = 168;

  /**
   * @param project the project's name and its menu
   * @param lookShown whether the card of the look is shown
   * @param queueShown whether the queue of runs is shown
   * @param place shows a raw scene placed live, or raw again
   */
  TopBar(
      Workspace workspace,
      ProjectMenu project,
      LivePlacing live,
      BooleanProperty lookShown,
      BooleanProperty queueShown,
      Runnable place,
      Runnable theme,
      Runnable help) {
    getStyleClass().add("top-bar");
    setMinHeight(40);
    setPrefHeight(40);
    setMaxHeight(40);
    SVGPath mark = new SVGPath();
    mark.setContent("M9 0 L11.4 6.6 L18 9 L11.4 11.4 L9 18 L6.6 11.4 L0 9 L6.6 6.6 Z");
    mark.setStyle("-fx-fill: -k-accent;");
    Region gap = new Region();
    HBox.setHgrow(gap, Priority.ALWAYS);
    getChildren()
        .addAll(
            mark,
            project,
            gap,
            new TaskLine(workspace.lanes(), queueShown),
            placing(live, place),
            look(workspace, lookShown),
            compare(workspace));
    Button undo = named("Undo", workspace.undo().nextProperty(), workspace.undo()::undo);
    undo.disableProperty().bind(workspace.undo().nextProperty().isEmpty());
    Button redo = named("Redo", workspace.undo().nextRedoProperty(), workspace.undo()::redo);
    redo.visibleProperty().bind(workspace.undo().nextRedoProperty().isNotEmpty());
    redo.managedProperty().bind(redo.visibleProperty());
    Button dark = new Button("Theme");
    dark.setId("theme");
    dark.setOnAction(e -> theme.run());
    Button keys = new Button("?");
    keys.setId("help");
    keys.setOnAction(e -> help.run());
    getChildren().addAll(undo, redo, dark, keys);
    for (Button button : new Button[] {dark, keys}) {
      button.setMinWidth(USE_PREF_SIZE);
    }
  }

  /** A button that says what it takes back or does again, as far as there is room. */
  private static Button named(String act, ObservableValue<String> what, Runnable run) {
    Button button = new Button();
    button.setId(act.toLowerCase(java.util.Locale.ROOT));
    button
        .textProperty()
        .bind(Bindings.createStringBinding(
            () -> what.getValue().isEmpty() ? act : act + ": " + what.getValue(), what));
    Tooltip whole = new Tooltip();
    whole.textProperty().bind(button.textProperty());
    button.setTooltip(whole);
    button.setMinWidth(64);
    button.setMaxWidth(NAMED_WIDTH);
    button.setOnAction(e -> run.run());
    return button;
  }

  /** Raw or placed, where pane A shows a scene that can be either. */
  private static HBox placing(LivePlacing live, Runnable toggle) {
    HBox box = new HBox();
    box.getStyleClass().add("segmented");
    box.setAlignment(javafx.geometry.Pos.CENTER);
    box.setMaxHeight(USE_PREF_SIZE);
    box.visibleProperty().bind(live.stateProperty().isNotEqualTo(LivePlacing.State.NONE));
    box.managedProperty().bind(box.visibleProperty());
    for (LivePlacing.State state :
        new LivePlacing.State[] {LivePlacing.State.RAW, LivePlacing.State.PLACED}) {
      ToggleButton button = new ToggleButton(state == LivePlacing.State.RAW ? "Raw" : "Placed");
      button.setId("show-" + state.name().toLowerCase(java.util.Locale.ROOT));
      button.setMinWidth(USE_PREF_SIZE);
      button.setSelected(live.stateProperty().get() == state);
      button.setOnAction(e -> {
        button.setSelected(live.stateProperty().get() == state);
        if (live.stateProperty().get() != state) {
          toggle.run();
        }
      });
      live.stateProperty().addListener((p, before, now) -> button.setSelected(now == state));
      box.getChildren().add(button);
    }
    return box;
  }

  /** Says which look is in hand, and shows its card. */
  private static ToggleButton look(Workspace workspace, BooleanProperty cardShown) {
    ToggleButton button = new ToggleButton();
    button.setId("look");
    button.setPrefWidth(232);
    button.setMinWidth(232);
    button.selectedProperty().bindBidirectional(cardShown);
    button
        .textProperty()
        .bind(Bindings.createStringBinding(
            () -> "Look "
                + lookShown(workspace)
                + "  "
                + workspace.display().lookProperty().get().stretch().toText(),
            workspace.display().lookProperty(),
            workspace.display().paneAProperty()));
    return button;
  }

  /** The look in hand, or what stands in for it where pane A lacks its bands. */
  private static String lookShown(Workspace workspace) {
    Result shown = workspace.display().paneAProperty().get();
    return shown == null || shown.backdrop() == null
        ? workspace.display().lookProperty().get().name()
        : workspace.display().lookProperty().get().nameOn(shown.backdrop());
  }

  private static HBox compare(Workspace workspace) {
    HBox box = new HBox();
    box.getStyleClass().add("segmented");
    box.setAlignment(javafx.geometry.Pos.CENTER);
    box.setMaxHeight(Region.USE_PREF_SIZE);
    ToggleGroup group = new ToggleGroup();
    Map<Display.Compare, String> names = new java.util.EnumMap<>(Map.of(
        Display.Compare.ONE, "One",
        Display.Compare.SWIPE, "Swipe",
        Display.Compare.SIDE_BY_SIDE, "Side by side"));
    names.forEach((mode, name) -> {
      ToggleButton button = new ToggleButton(name);
      button.setId("compare-" + mode.name().toLowerCase(java.util.Locale.ROOT));
      button.setToggleGroup(group);
      button.setMinWidth(USE_PREF_SIZE);
      button.setSelected(mode == workspace.display().compareProperty().get());
      button.setOnAction(e -> {
        workspace.display().compareProperty().set(mode);
        button.setSelected(true);
      });
      workspace
          .display()
          .compareProperty()
          .addListener((p, before, now) -> button.setSelected(now == mode));
      box.getChildren().add(button);
    });
    return box;
  }
}
