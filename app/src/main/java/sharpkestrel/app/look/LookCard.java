package sharpkestrel.app.look;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import javafx.collections.ListChangeListener;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import sharpkestrel.app.controls.RoleBox;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.StretchRule;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;

/** The look in hand: which bands, how they are stretched, the looks that one has made, and how
 * objects are drawn over them. */
public final class LookCard extends VBox {

  private static final double WIDTH = 356;

  private final Workspace workspace;
  private final PictureView picture;
  private final FlowPane looks = new FlowPane(6, 6);
  private final List<RoleBox> roles = new ArrayList<>();
  private final TextField name = new TextField();
  private final Map<StretchRule.Kind, ToggleButton> kinds = new EnumMap<>(StretchRule.Kind.class);
  private final TextField low = new TextField();
  private final TextField high = new TextField();
  private final Label unit = new Label();
  private final CheckBox fromView = new CheckBox("from view");
  private final CheckBox linked = new CheckBox("bands alike");
  private final StretchBox box = new StretchBox(WIDTH - 20, 118);
  private final Slider gamma = new Slider(Math.log(0.4), Math.log(4), 0);
  private final Label gammaText = new Label();
  private final BandRoles bandRoles;
  private boolean setting;

  public LookCard(Workspace workspace, PictureView picture) {
    this.workspace = workspace;
    this.picture = picture;
    setId("look-card");
    getStyleClass().add("card");
    setSpacing(8);
    setPrefWidth(WIDTH);
    setMaxSize(USE_PREF_SIZE, USE_PREF_SIZE);
    getChildren().addAll(looks, roleRow(), keepRow(), kindRow(), box, endsRow(), gammaRow());
    getChildren().add(new ObjectsBox(workspace));
    bandRoles = new BandRoles(workspace);
    getChildren().add(1, bandRoles);
    workspace.display().paneAProperty().addListener((p, before, now) -> refresh());
    box.onMoved(ends -> change(rule().byHand(ends)));
    workspace.display().lookProperty().addListener((p, before, now) -> refresh());
    workspace.display().ownLooks().addListener((ListChangeListener<Look>) change -> fillLooks());
    picture.onRestretched(this::refresh);
    visibleProperty().addListener((p, before, now) -> refresh());
    fillLooks();
  }

  private StretchRule rule() {
    return workspace.display().lookProperty().get().stretch();
  }

  private void change(StretchRule rule) {
    if (!setting) {
      Look now = workspace.display().lookProperty().get();
      workspace.display().lookProperty().set(now.with(rule));
    }
  }

  private void fillLooks() {
    looks.getChildren().clear();
    String[] keys = {"N", "I", "G", ""};
    for (int k = 0; k < Look.standard().size(); k++) {
      looks.getChildren().add(button(Look.standard().get(k), keys[k]));
    }
    for (int k = 0; k < workspace.display().ownLooks().size(); k++) {
      looks.getChildren().add(button(workspace.display().ownLooks().get(k), "Ctrl " + (k + 1)));
    }
  }

  private Node button(Look look, String key) {
    ToggleButton button = new ToggleButton(look.name());
    button.setId("look-" + look.name().toLowerCase(Locale.ROOT).replace(' ', '-'));
    button.setMinWidth(USE_PREF_SIZE);
    if (!key.isEmpty()) {
      button.setTooltip(new Tooltip("Key " + key));
    }
    button.setUserData(look);
    button.setOnAction(e -> workspace
        .display()
        .lookProperty()
        .set(workspace.display().lookProperty().get().changedTo(look)));
    return button;
  }

  private Node roleRow() {
    HBox row = new HBox(6);
    row.setAlignment(Pos.CENTER_LEFT);
    String[] titles = {"Red", "Green", "Blue"};
    for (int c = 0; c < 3; c++) {
      RoleBox combo = new RoleBox("look-role-" + titles[c].toLowerCase(Locale.ROOT), 108);
      combo.valueProperty().addListener((p, before, now) -> takeRoles());
      roles.add(combo);
      Label title = new Label(titles[c]);
      title.getStyleClass().addAll("soft", "channel-" + titles[c].toLowerCase(Locale.ROOT));
      row.getChildren().add(new VBox(2, title, combo));
    }
    return row;
  }

  private void takeRoles() {
    if (setting || roles.stream().anyMatch(r -> r.getValue() == null)) {
      return;
    }
    List<BandRole> chosen = roles.stream().map(RoleBox::getValue).toList();
    Look now = workspace.display().lookProperty().get();
    Look other = new Look("Own", chosen, now.stretch(), false);
    workspace.display().lookProperty().set(now.changedTo(other));
  }

  private Node keepRow() {
    name.setId("look-name");
    name.setPromptText("name of this look");
    HBox.setHgrow(name, Priority.ALWAYS);
    Button keep = new Button("Keep look");
    keep.setId("look-keep");
    keep.setMinWidth(USE_PREF_SIZE);
    keep.setOnAction(e -> keep());
    name.setOnAction(e -> keep());
    HBox row = new HBox(6, name, keep);
    row.setAlignment(Pos.CENTER_LEFT);
    return row;
  }

  private void keep() {
    String text = name.getText().strip();
    if (text.isEmpty()) {
      workspace.messages().warn("Give the look a name first.");
      return;
    }
    Look now = workspace.display().lookProperty().get();
    Look own = new Look(text, now.roles(), now.stretch(), now.ramp());
    workspace.display().keepLook(own);
    workspace.display().lookProperty().set(own);
    name.clear();
  }

  private Node kindRow() {
    HBox row = new HBox();
    row.getStyleClass().add("segmented");
    for (StretchRule.Kind kind : StretchRule.Kind.values()) {
      ToggleButton button = new ToggleButton(kind.title());
      button.setId("stretch-" + kind.name().toLowerCase(Locale.ROOT).replace('_', '-'));
      button.setMinWidth(USE_PREF_SIZE);
      button.setOnAction(e -> {
        if (kind == StretchRule.Kind.BY_HAND) {
          picture.ends().ifPresent(ends -> change(rule().byHand(ends)));
        } else {
          change(rule().as(kind));
        }
        refresh();
      });
      kinds.put(kind, button);
      row.getChildren().add(button);
    }
    return row;
  }

  private Node endsRow() {
    for (TextField field : List.of(low, high)) {
      field.setPrefWidth(50);
      field.setMinWidth(50);
      field.setOnAction(e -> takeEnds());
      field.focusedProperty().addListener((p, before, now) -> {
        if (!now) {
          takeEnds();
        }
      });
    }
    low.setId("stretch-low");
    high.setId("stretch-high");
    unit.getStyleClass().add("soft");
    fromView.setId("stretch-view");
    fromView.setOnAction(e -> change(rule().ofView(fromView.isSelected())));
    linked.setId("stretch-linked");
    linked.setOnAction(e -> change(rule().linked(linked.isSelected())));
    for (Region part : List.of(unit, fromView, linked)) {
      part.setMinWidth(USE_PREF_SIZE);
    }
    Region gap = new Region();
    HBox.setHgrow(gap, Priority.ALWAYS);
    HBox row = new HBox(6, low, high, unit, gap, fromView, linked);
    row.setAlignment(Pos.CENTER_LEFT);
    return row;
  }

  private void takeEnds() {
    if (setting || !low.isVisible()) {
      return;
    }
    try {
      double a = Double.parseDouble(low.getText().strip());
      double b = Double.parseDouble(high.getText().strip());
      boolean percent = rule().kind() == StretchRule.Kind.PERCENT;
      boolean possible = percent ? a >= 0 && b <= 100 && a < b : a >= 0 && b >= 0 && a + b > 0;
      if (!possible) {
        workspace
            .messages()
            .warn(
                percent
                    ? "The ends lie between 0 and 100 %, the lower one first."
                    : "Deviations are numbers from 0 on, at least one of them above it.");
      } else if (a != rule().low() || b != rule().high()) {
        change(rule().between(a, b));
      }
    } catch (NumberFormatException notANumber) {
      workspace.messages().warn("The ends of a stretch are numbers.");
    }
    refresh();
  }

  private Node gammaRow() {
    Label title = new Label("Gamma");
    title.getStyleClass().add("soft");
    gammaText.getStyleClass().add("mono");
    gammaText.setMinWidth(34);
    gamma.setId("stretch-gamma");
    HBox.setHgrow(gamma, Priority.ALWAYS);
    gamma
        .valueProperty()
        .addListener((p, before, now) -> change(rule().withGamma(Math.exp(now.doubleValue()))));
    HBox row = new HBox(8, title, gamma, gammaText);
    row.setAlignment(Pos.CENTER_LEFT);
    return row;
  }

  /** Shows the look as it is now. */
  private void refresh() {
    if (!isVisible() || setting) {
      return;
    }
    setting = true;
    bandRoles.refresh();
    Look look = workspace.display().lookProperty().get();
    StretchRule rule = look.stretch();
    looks.getChildren().forEach(node -> {
      Look of = (Look) node.getUserData();
      ((ToggleButton) node).setSelected(of.name().equals(look.name()));
    });
    showRoles(look);
    kinds.forEach((kind, button) -> button.setSelected(kind == rule.kind()));
    boolean numbers =
        rule.kind() == StretchRule.Kind.PERCENT || rule.kind() == StretchRule.Kind.DEVIATIONS;
    for (Node node : List.of(low, high, unit)) {
      node.setVisible(numbers);
    }
    low.setText(plain(rule.low()));
    high.setText(plain(rule.high()));
    unit.setText(rule.kind() == StretchRule.Kind.PERCENT ? "%" : "\u03c3");
    fromView.setSelected(rule.fromView());
    linked.setSelected(rule.linked());
    gamma.setValue(Math.log(rule.gamma()));
    gammaText.setText(String.format(Locale.ROOT, "%.2f", rule.gamma()));
    setting = false;
    picture
        .sample()
        .ifPresent(sample -> picture
            .ends()
            .ifPresent(ends -> picture.shown().ifPresent(raster -> {
              int[] bands = look.bandsOf(raster);
              boolean oneBand = bands[0] == bands[1] && bands[1] == bands[2];
              box.show(sample, ends, oneBand, rule.linked());
            })));
  }

  private void showRoles(Look look) {
    List<BandRole> known = picture
        .shown()
        .map(raster -> raster.bands().stream().map(Band::role).distinct().toList())
        .orElse(List.of());
    for (int c = 0; c < 3; c++) {
      BandRole role = look.roles().get(Math.min(c, look.roles().size() - 1));
      List<BandRole> offered = new ArrayList<>(known);
      if (!offered.contains(role)) {
        offered.add(role);
      }
      RoleBox combo = roles.get(c);
      if (!combo.getItems().equals(offered)) {
        combo.setValue(null);
        combo.getItems().setAll(offered);
      }
      combo.setValue(role);
    }
  }

  private static String plain(double value) {
    return value == Math.rint(value)
        ? Long.toString(Math.round(value))
        : String.format(Locale.ROOT, "%.2f", value);
  }
}
