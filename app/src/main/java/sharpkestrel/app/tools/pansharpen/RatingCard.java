package sharpkestrel.app.tools.pansharpen;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.geometry.HPos;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.ResultMaker;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.step.StepPanel;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.flow.SettingValues;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Raster;
import sharpkestrel.sharpen.pan.Rating;
import sharpkestrel.sharpen.pan.Ratings;

/** What each way of sharpening is worth on the trial patch, in numbers; clicking one takes it. */
final class RatingCard extends VBox {

  private static final String[] HEADS = {"Method", "ERGAS", "SAM", "Q2n", "D\u03bb", "Ds", "QNR"};
  private static final String[] MEANINGS = {
    "Click a method to take it",
    "Relative error over all bands of the scene reduced once more and compared with itself, %; 0 is best",
    "Mean spectral angle there, degrees; 0 is best",
    "Likeness of all bands at once there; 1 is best",
    "How much bands became more or less alike at full resolution; 0 is best",
    "How much their likeness to the panchromatic band changed there; 0 is best",
    "(1 - D\u03bb) (1 - Ds): quality without a reference; 1 is best"
  };

  private final Workspace workspace;
  private final PictureView picture;
  private final GridPane table = new GridPane(4, 0);
  private final Label title = new Label("Methods in numbers");
  private final Label note = new Label();
  private final Supplier<Map<String, Result>> inputs;
  private final Supplier<Map<String, String>> files;
  private final Supplier<Map<String, String>> settings;
  private Consumer<String> taken = method -> {};
  private String chosen = "";
  private Ratings shown;

  RatingCard(Desk desk, StepPanel panel) {
    workspace = desk.workspace();
    picture = desk.picture();
    inputs = panel.inputs()::results;
    files = panel.inputs()::files;
    settings = panel::settingTexts;
    getStyleClass().add("card");
    setSpacing(6);
    setPrefWidth(422);
    setMinWidth(422);
    title.getStyleClass().add("title");
    Button rate = new Button("Rate on the patch");
    rate.setId("pansharpen-rate");
    rate.setMinWidth(USE_PREF_SIZE);
    rate.setOnAction(e -> rate());
    Region gap = new Region();
    HBox.setHgrow(gap, Priority.ALWAYS);
    HBox head = new HBox(8, title, gap, rate);
    head.setAlignment(Pos.CENTER_LEFT);
    note.getStyleClass().add("soft");
    note.setWrapText(true);
    note.setText(
        "Ranks all methods beside plain interpolation on the trial patch: with the scene reduced once more as its"
            + " own reference, and without any reference as it is.");
    for (int c = 0; c < HEADS.length; c++) {
      ColumnConstraints column = new ColumnConstraints();
      column.setHalignment(c == 0 ? HPos.LEFT : HPos.RIGHT);
      column.setMinWidth(c == 0 ? 150 : 36);
      table.getColumnConstraints().add(column);
    }
    table.setId("ratings");
    getChildren().addAll(head, table, note);
  }

  /** Told which method is clicked. */
  void onTaken(Consumer<String> listener) {
    taken = listener;
  }

  /** Methods by name, the best first; empty before any was rated. */
  List<String> ranking() {
    return shown == null
        ? List.of()
        : shown.rows().stream().map(Rating::method).filter(m -> !m.isEmpty()).toList();
  }

  /** Marks the method in hand. */
  void choose(String method) {
    chosen = method;
    if (shown != null) {
      show(shown);
    }
  }

  private void rate() {
    Map<String, Result> results = inputs.get();
    Map<String, String> paths = files.get();
    Map<String, String> set = settings.get();
    Result bands = results.get("multispectral");
    Optional<Extent> patch =
        bands == null ? Optional.empty() : picture.trials().patchOn((Raster) bands.value());
    workspace
        .lanes()
        .trial()
        .ask(
            this,
            "Rating methods",
            job -> {
              var step = StepCatalogue.get("rate-sharpening");
              Map<String, Object> values = ResultMaker.values(step, results, paths);
              Map<String, String> texts = new LinkedHashMap<>();
              for (String name : List.of("contrast", "align")) {
                if (set.containsKey(name)) {
                  texts.put(name, set.get(name));
                }
              }
              patch.ifPresent(extent -> texts.put("extent", SettingValues.toText(extent)));
              return (Ratings) step.make(values, texts).run(job);
            },
            this::show,
            failure -> workspace.messages().tell(failure.getMessage()));
  }

  private void show(Ratings ratings) {
    shown = ratings;
    table.getChildren().clear();
    for (int c = 0; c < HEADS.length; c++) {
      Label head = new Label(HEADS[c]);
      head.getStyleClass().add("soft");
      head.setMinWidth(USE_PREF_SIZE);
      head.setTooltip(new Tooltip(MEANINGS[c]));
      table.add(head, c, 0);
    }
    for (int r = 0; r < ratings.rows().size(); r++) {
      row(ratings, r);
    }
    note.setVisible(false);
    note.setManaged(false);
    title.setText("Methods on " + Result.grouped(ratings.pixels()) + " pixels, best first");
  }

  private void row(Ratings ratings, int r) {
    Rating rating = ratings.rows().get(r);
    Label name = new Label(rating.title());
    boolean method = !rating.method().isEmpty();
    name.getStyleClass()
        .add(!method ? "soft" : rating.method().equals(chosen) ? "model-chosen" : "model");
    name.setMinWidth(USE_PREF_SIZE);
    if (method) {
      name.setId("rating-" + rating.method());
      name.setOnMouseClicked(e -> taken.accept(rating.method()));
    }
    table.add(name, 0, r + 1);
    double[] values = {
      rating.ergas(),
      rating.angle(),
      rating.q2n(),
      rating.spectral(),
      rating.spatial(),
      rating.qnr()
    };
    for (int c = 0; c < values.length; c++) {
      Label value = new Label(String.format(Locale.ROOT, c < 2 ? "%.2f" : "%.3f", values[c]));
      value.getStyleClass().add(method ? "mono" : "mono-soft");
      value.setMinWidth(USE_PREF_SIZE);
      table.add(value, c + 1, r + 1);
    }
  }
}
