package sharpkestrel.app.tools.tie;

import java.io.File;
import java.nio.file.Path;
import javafx.geometry.Pos;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.stage.FileChooser;
import javafx.util.StringConverter;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;

/** The heights under tie points, and what lifts them to the ellipsoid. */
final class TieHeights extends HBox {

  private static final String OTHER = "file\u2026";
  private static final String UNDULATION = "undulation";

  private final Workspace workspace;
  private final TieModel model;
  private final ComboBox<String> heights = new ComboBox<>();
  private final TextField undulation = new TextField();

  TieHeights(Workspace workspace, TieModel model) {
    super(6);
    this.workspace = workspace;
    this.model = model;
    heights.setId("tie-heights");
    heights.setPrefWidth(132);
    heights.setConverter(new FileNames());
    heights.getItems().setAll("", OTHER);
    String offered = workspace.suggestions().all().getOrDefault("heights", "");
    if (!offered.isEmpty()) {
      heights.getItems().add(0, offered);
    }
    heights.setValue(offered);
    heights.setOnAction(e -> choose());
    undulation.setId("tie-undulation");
    undulation.setPromptText("auto");
    undulation.setPrefWidth(54);
    undulation.focusedProperty().addListener((p, before, now) -> {
      if (!now) {
        take();
      }
    });
    undulation.setOnAction(e -> take());
    getChildren().addAll(soft("Heights"), heights, soft(UNDULATION), undulation, soft("m"));
    setAlignment(Pos.CENTER_LEFT);
  }

  private static Label soft(String text) {
    Label label = new Label(text);
    label.getStyleClass().add("soft");
    label.setMinWidth(USE_PREF_SIZE);
    return label;
  }

  /** Gives the model what is set; an undulation that was given elsewhere is taken up. */
  void take() {
    if (undulation.getText().isBlank() && !undulation.isFocused()) {
      undulation.setText(workspace.suggestions().all().getOrDefault(UNDULATION, ""));
    }
    String text = undulation.getText().strip();
    try {
      model.setHeights(
          heights.getValue() == null ? "" : heights.getValue(),
          text.isEmpty() ? Double.NaN : Double.parseDouble(text));
    } catch (NumberFormatException notANumber) {
      workspace
          .messages()
          .tell("The undulation is '" + text + "'; it should be a number of metres, such as 47.");
      return;
    }
    StepSpec step = StepCatalogue.get("tiepoints");
    step.options().stream()
        .filter(option -> option.name().equals(UNDULATION))
        .forEach(option -> workspace.suggestions().offer(step, option, text));
  }

  private void choose() {
    if (OTHER.equals(heights.getValue())) {
      File chosen = new FileChooser().showOpenDialog(getScene().getWindow());
      String path = chosen == null ? "" : chosen.getPath();
      if (chosen != null && !heights.getItems().contains(path)) {
        heights.getItems().add(0, path);
      }
      heights.setValue(path);
    }
    take();
  }

  /** Shows files by their names. */
  private static final class FileNames extends StringConverter<String> {
    @Override
    public String toString(String path) {
      return path == null || path.isEmpty()
          ? "none"
          : path.equals(OTHER) ? OTHER : String.valueOf(Path.of(path).getFileName());
    }

    @Override
    public String fromString(String text) {
      return text;
    }
  }
}
