package sharpkestrel.app.tools.tie;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.place.fit.TiePoint;
import sharpkestrel.place.fit.TiePoints;

/** Where the picked tie point lies on the ground, as numbers that can be typed: ground control from a survey. */
final class SurveyedPlace extends HBox {

  private final Workspace workspace;
  private final TieModel model;
  private final TextField east = field("tie-east", "x in the reference's system", 74);
  private final TextField north = field("tie-north", "y in the reference's system", 80);
  private final TextField height = field("tie-height", "metres above the ellipsoid", 48);

  SurveyedPlace(Workspace workspace, TieModel model) {
    super(4);
    this.workspace = workspace;
    this.model = model;
    setAlignment(Pos.CENTER_LEFT);
    getChildren().addAll(soft("E"), east, soft("N"), north, soft("h"), height);
    managedProperty().bind(visibleProperty());
    model.selectedProperty().addListener((p, before, now) -> show());
    model.pointsProperty().addListener((p, before, now) -> show());
    show();
  }

  private static Label soft(String text) {
    Label label = new Label(text);
    label.getStyleClass().add("soft");
    label.setMinWidth(USE_PREF_SIZE);
    return label;
  }

  private TextField field(String id, String what, double width) {
    TextField field = new TextField();
    field.setId(id);
    field.setPrefWidth(width);
    field.setTooltip(new Tooltip(what + "; Enter takes it"));
    field.setOnAction(e -> take());
    return field;
  }

  private Optional<TiePoint> picked() {
    TiePoints points = model.pointsProperty().get();
    return points == null
        ? Optional.empty()
        : points.points().stream()
            .filter(p -> p.id() == model.selectedProperty().get())
            .findFirst();
  }

  private void show() {
    Optional<TiePoint> point = picked();
    setVisible(point.isPresent());
    point.ifPresent(p -> {
      east.setText(number(p.x()));
      north.setText(number(p.y()));
      height.setText(number(p.height()));
    });
  }

  private static String number(double value) {
    return Double.isNaN(value)
        ? ""
        : String.format(Locale.ROOT, Math.abs(value) <= 360 ? "%.8f" : "%.3f", value)
            .replaceFirst("(\\.\\d*?)0+$", "$1")
            .replaceFirst("\\.$", "");
  }

  private void take() {
    for (TextField field : List.of(east, north)) {
      if (Double.isNaN(value(field))) {
        workspace
            .messages()
            .tell("'" + field.getText()
                + "' is no place on the ground: it should be a number in the reference's system.");
        return;
      }
    }
    if (!height.getText().isBlank() && Double.isNaN(value(height))) {
      workspace
          .messages()
          .tell("'" + height.getText()
              + "' is no height; it should be metres above the ellipsoid, or empty.");
      return;
    }
    picked().ifPresent(p -> model.survey(p.id(), value(east), value(north), value(height)));
  }

  private static double value(TextField field) {
    try {
      return Double.parseDouble(field.getText().strip());
    } catch (NumberFormatException notANumber) {
      return Double.NaN;
    }
  }
}
