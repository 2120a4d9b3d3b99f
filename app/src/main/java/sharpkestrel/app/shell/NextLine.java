package sharpkestrel.app.shell;

import java.util.Optional;
import javafx.application.Platform;
import javafx.beans.InvalidationListener;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import sharpkestrel.app.bench.Bench;
import sharpkestrel.app.model.NextStep;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Raster;

/** One line under the picture: what stands between what is shown and the next stage, with the button that leads there. */
final class NextLine extends HBox {

  private final Workspace workspace;
  private final Bench bench;
  private final Runnable showRoles;
  private final Label why = new Label();
  private final Button act = new Button();
  private Result closedFor;

  /**
   * @param showRoles shows where bands are given their roles
   */
  NextLine(Workspace workspace, Bench bench, Runnable showRoles) {
    super(8);
    this.workspace = workspace;
    this.bench = bench;
    this.showRoles = showRoles;
    setId("next");
    getStyleClass().add("next-line");
    setAlignment(Pos.CENTER_LEFT);
    setMaxSize(USE_PREF_SIZE, USE_PREF_SIZE);
    act.setId("next-act");
    act.setMinWidth(Region.USE_PREF_SIZE);
    Button close = new Button("\u00d7");
    close.setId("next-close");
    close.getStyleClass().add("plain");
    close.setTooltip(new Tooltip("Not now"));
    close.setOnAction(e -> {
      closedFor = workspace.display().paneAProperty().get();
      refresh();
    });
    getChildren().addAll(why, act, close);
    // once the tool in hand has followed, too: it may no longer be one of clicks
    InvalidationListener changed = o -> Platform.runLater(this::refresh);
    workspace.display().paneAProperty().addListener(changed);
    workspace.results().addListener(changed);
    bench.inHandProperty().addListener(changed);
    refresh();
  }

  private void refresh() {
    Result shown = workspace.display().paneAProperty().get();
    setVisible(false);
    // what is worked on between both panes is not left half done, and where one clicks in the
    // picture nothing is in the way
    boolean done = shown != null && bench.inHand().steps().contains(shown.step().id());
    boolean clicks =
        !done && bench.inHand().inPicture().filter(tool -> tool.isInHand()).isPresent();
    if (shown == null || shown == closedFor || bench.inHand().isBetweenPanes() || clicks) {
      return;
    }
    if (shown.value() instanceof Raster raster
        && workspace.isOpenedFile(shown)
        && lacksRoles(raster)) {
      boolean none = raster.bands().stream().allMatch(band -> band.role() == BandRole.OTHER);
      offer(
          none
              ? "What the bands stand for is not known."
              : "What the bands stand for was guessed from their order.",
          none ? "Give roles" : "Look at roles",
          showRoles);
      return;
    }
    Optional<NextStep> next = NextStep.of(workspace);
    if (next.isPresent() && !bench.isInHand(next.get().step())) {
      offer(
          next.get().why(),
          next.get().step().title(),
          () -> bench.takeFor(next.get().step()));
    }
  }

  private static boolean lacksRoles(Raster raster) {
    return raster.bands().size() > 1
        && (raster.bands().stream().anyMatch(band -> band.roleGuessed())
            || raster.bands().stream().allMatch(band -> band.role() == BandRole.OTHER));
  }

  private void offer(String said, String label, Runnable what) {
    why.setText(said);
    act.setText(label);
    act.setOnAction(e -> what.run());
    setVisible(true);
  }
}
