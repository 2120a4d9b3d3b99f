package sharpkestrel.app.look;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.io.Description;
import sharpkestrel.io.Descriptions;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Raster;

/**
 * What each band of the opened file in pane A stands for. A guess is marked; a click on the band changes it. What is told is
 * kept beside the file, and the scene follows.
 */
final class BandRoles extends VBox {

  private final Workspace workspace;
  private final FlowPane bands = new FlowPane(5, 5);
  private final Label note = new Label();
  private final Button confirm = new Button("They are right");

  BandRoles(Workspace workspace) {
    super(5);
    this.workspace = workspace;
    setId("band-roles");
    note.getStyleClass().addAll("soft", "small");
    note.setWrapText(true);
    confirm.setId("roles-confirm");
    confirm.managedProperty().bind(confirm.visibleProperty());
    managedProperty().bind(visibleProperty());
    getChildren().addAll(note, bands, confirm);
  }

  /** Shows the bands of what pane A shows, where that is a file as it was opened. */
  void refresh() {
    Result shown = workspace.display().paneAProperty().get();
    boolean file = shown != null
        && workspace.isOpenedFile(shown)
        && shown.value() instanceof Raster raster
        && raster.bands().size() > 1;
    setVisible(file);
    if (!file) {
      return;
    }
    List<Band> all = ((Raster) shown.value()).bands();
    bands.getChildren().clear();
    for (int b = 0; b < all.size(); b++) {
      bands.getChildren().add(box(shown, all, b));
    }
    boolean guessed = all.stream().anyMatch(Band::roleGuessed);
    note.setText(
        guessed
            ? "What the bands stand for was guessed (?). Click a band to say what it is."
            : "Click a band to say what it stands for. That is kept beside the file.");
    confirm.setVisible(guessed);
    confirm.setOnAction(e -> tell(shown, all.stream().map(Band::role).toList()));
  }

  private MenuButton box(Result shown, List<Band> all, int b) {
    Band band = all.get(b);
    MenuButton box = new MenuButton((b + 1) + " "
        + (band.role() == BandRole.OTHER ? "unknown" : band.role().label())
        + (band.roleGuessed() ? " ?" : ""));
    box.setId("role-" + b);
    box.getStyleClass().add("small");
    if (band.roleGuessed()) {
      box.getStyleClass().add("guessed");
    }
    box.setTooltip(new Tooltip(band.name()));
    for (BandRole role : BandRole.values()) {
      MenuItem item = new MenuItem(role.label());
      item.setId("role-" + b + "-" + role.key());
      item.setOnAction(e -> tell(shown, with(all, b, role)));
      box.getItems().add(item);
    }
    return box;
  }

  /** A role stands once: whichever band had it before has none then. */
  private static List<BandRole> with(List<Band> all, int changed, BandRole role) {
    return IntStream.range(0, all.size())
        .mapToObj(b -> b == changed
            ? role
            : all.get(b).role() == role ? BandRole.OTHER : all.get(b).role())
        .toList();
  }

  private void tell(Result shown, List<BandRole> roles) {
    Path file = Path.of(shown.settings().get("file"));
    Map<Integer, Description.OfBand> told = new HashMap<>();
    for (int b = 0; b < roles.size(); b++) {
      told.put(
          b,
          new Description.OfBand(
              Optional.empty(),
              Optional.of(roles.get(b)),
              Optional.empty(),
              Double.NaN,
              1,
              0,
              Optional.empty()));
    }
    workspace
        .lanes()
        .run()
        .run(
            "Roles of " + shown.title(),
            job -> {
              Description before = Descriptions.read(file);
              Descriptions.write(file, Description.NONE.withBands(told).over(before), roles.size());
              return roles;
            },
            done -> workspace.named(shown.name()).ifPresent(workspace.maker()::remake),
            failure -> workspace.messages().tell(failure.getMessage()));
  }
}
