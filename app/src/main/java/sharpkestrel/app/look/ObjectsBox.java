package sharpkestrel.app.look;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import sharpkestrel.app.controls.FeatureBox;
import sharpkestrel.app.model.ObjectStyle;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.expr.Table;
import sharpkestrel.objects.ObjectSet;

/** How objects are drawn over the picture: which outlines, how wide and how opaque, with what fill, and the feature that colours
 * them. */
final class ObjectsBox extends VBox {

  private final Workspace workspace;
  private final ComboBox<ObjectStyle.Which> which = new ComboBox<>();
  private final ComboBox<ObjectStyle.Fill> fill = new ComboBox<>();
  private final FeatureBox feature = new FeatureBox("no feature", column -> true);
  private boolean offering;
  private final Slider width = new Slider(1, ObjectStyle.WIDEST, 1);
  private final Slider opacity = new Slider(0, 1, 1);
  private final Slider strength = new Slider(0, 1, 1);

  ObjectsBox(Workspace workspace) {
    super(4);
    this.workspace = workspace;
    which.setId("outlines-which");
    which.getItems().setAll(ObjectStyle.Which.values());
    which.setPrefWidth(118);
    fill.setId("objects-fill");
    fill.getItems().setAll(ObjectStyle.Fill.values());
    fill.setPrefWidth(118);
    width.setId("outlines-width");
    width.setPrefWidth(70);
    width.setTooltip(new Tooltip("How wide outlines are"));
    opacity.setId("outlines-opacity");
    opacity.setPrefWidth(70);
    opacity.setTooltip(new Tooltip("How opaque outlines are"));
    strength.setId("objects-strength");
    strength.setPrefWidth(48);
    strength.setTooltip(new Tooltip("How opaque fills are, of classes too"));
    strength
        .valueProperty()
        .addListener((p, before, now) -> change(style().withStrength(now.doubleValue())));
    feature.setId("objects-feature");
    feature.setPrefWidth(118);
    feature.setTooltip(new Tooltip("The feature or class that fills objects, over any other fill"));
    getChildren()
        .addAll(row("Outlines", which, width, opacity), row("Fill", fill, feature, strength));
    refresh();
    offer();
    feature.valueProperty().addListener((p, before, now) -> {
      if (!offering && now != null) {
        workspace.display().featureShownProperty().set(now);
      }
    });
    workspace.display().featureShownProperty().addListener((p, before, now) -> feature.choose(now));
    workspace.display().paneAProperty().addListener((p, before, now) -> offer());
    which.valueProperty().addListener((p, before, now) -> change(style().with(now)));
    fill.valueProperty().addListener((p, before, now) -> change(style().with(now)));
    width
        .valueProperty()
        .addListener(
            (p, before, now) -> change(style().withWidth((int) Math.round(now.doubleValue()))));
    opacity
        .valueProperty()
        .addListener((p, before, now) -> change(style().withOpacity(now.doubleValue())));
    workspace.display().objectStyleProperty().addListener((p, before, now) -> refresh());
  }

  private void offer() {
    Result shown = workspace.display().paneAProperty().get();
    boolean measured = shown != null && shown.value() instanceof ObjectSet;
    offering = true;
    feature.offer(measured ? ((ObjectSet) shown.value()).table() : new Table(0, List.of()));
    offering = false;
    feature.choose(workspace.display().featureShownProperty().get());
    feature.setDisable(!measured);
  }

  private ObjectStyle style() {
    return workspace.display().objectStyleProperty().get();
  }

  private void change(ObjectStyle style) {
    workspace.display().objectStyleProperty().set(style);
  }

  private static HBox row(String title, Region... controls) {
    Label label = new Label(title);
    label.getStyleClass().add("soft");
    label.setMinWidth(58);
    HBox row = new HBox(8, label);
    row.getChildren().addAll(controls);
    row.setAlignment(Pos.CENTER_LEFT);
    return row;
  }

  private void refresh() {
    ObjectStyle style = style();
    which.setValue(style.which());
    fill.setValue(style.fill());
    if (Math.round(width.getValue()) != style.width()) {
      width.setValue(style.width());
    }
    opacity.setValue(style.opacity());
    strength.setValue(style.strength());
  }
}
