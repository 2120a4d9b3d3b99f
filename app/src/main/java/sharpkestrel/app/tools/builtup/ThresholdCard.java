package sharpkestrel.app.tools.builtup;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import sharpkestrel.app.model.ResultMaker;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.plot.HistogramBox;
import sharpkestrel.app.step.StepPanel;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.app.viewer.Trials;
import sharpkestrel.expr.Cql2;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.raster.Otsu;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Window;

/** The built-up index over the picture, its threshold dragged along the histogram of what is in view. */
final class ThresholdCard extends VBox {

  private static final int MOST_SIDE = 1024;
  private static final String START =
      "Shows where there are edges in every direction, as among buildings. Drag the threshold; the picture follows.";

  private final Workspace workspace;
  private final PictureView picture;
  private final StepPanel panel;
  private final HistogramBox box = new HistogramBox(336, 104);
  private final Label share = new Label();
  private final Label note = new Label(START);
  private final Button show = new Button("Show over the picture");
  private float[] values = new float[0];
  private double[] shown = new double[0];
  private Raster index;

  ThresholdCard(Desk desk, StepPanel panel) {
    workspace = desk.workspace();
    picture = desk.picture();
    this.panel = panel;
    getStyleClass().add("card");
    setSpacing(6);
    setPrefWidth(360);
    setMinWidth(360);
    show.setId("builtup-show");
    show.setOnAction(e -> show());
    Button hide = new Button("Hide");
    hide.setId("builtup-hide");
    hide.setOnAction(e -> {
      picture.clearOver();
      index = null;
    });
    HBox head = new HBox(8, show, hide);
    head.setAlignment(Pos.CENTER_LEFT);
    box.setId("builtup-histogram");
    box.onMoved((low, high) -> set(low));
    share.getStyleClass().add("mono");
    share.setId("builtup-share");
    note.getStyleClass().add("soft");
    note.setWrapText(true);
    getChildren().addAll(head, box, share, note);
  }

  private void show() {
    Map<String, String> texts = new HashMap<>(panel.settingTexts());
    texts.remove("threshold");
    var results = panel.inputs().results();
    Optional<Window> seen = panel.scene().map(raster -> picture.trials().window(raster, MOST_SIDE));
    var files = panel.inputs().files();
    workspace
        .lanes()
        .trial()
        .ask(
            this,
            "Built-up index",
            job -> {
              var step = StepCatalogue.get("builtup");
              Raster made = (Raster) ResultMaker.cached(
                  step.make(ResultMaker.values(step, results, files), texts).run(job));
              Window middle = seen.orElseGet(() -> Trials.middle(made.grid().window(), MOST_SIDE));
              return new Sampled(made, made.read(0, middle, job.request())[0]);
            },
            this::took,
            failure -> workspace.messages().tell(failure.getMessage()));
  }

  /** The index, and its values in the middle of what was in view. */
  private record Sampled(Raster index, float[] values) {}

  private void took(Sampled made) {
    index = made.index();
    values = made.values();
    double start = Otsu.threshold(values);
    shown = new double[values.length];
    Arrays.setAll(shown, i -> values[i]);
    note.setText("Begins where what is in view parts best (Otsu).");
    draw(Double.isNaN(start) ? 0 : start);
    picture.showOver(index, Double.isNaN(start) ? 0 : start);
    put(Double.isNaN(start) ? 0 : start);
  }

  private void draw(double threshold) {
    double[] sorted =
        Arrays.stream(shown).filter(v -> !Double.isNaN(v)).sorted().toArray();
    double top = sorted.length == 0 ? 1 : sorted[(int) (0.995 * (sorted.length - 1))];
    int[] all = new int[shown.length];
    Arrays.fill(all, Integer.MAX_VALUE);
    box.show(shown, all, 0, 0, top, "", threshold, Double.POSITIVE_INFINITY);
  }

  private void set(double low) {
    double threshold = Double.isInfinite(low) ? 0 : low;
    draw(threshold);
    if (index != null) {
      picture.setThresholdOver(threshold);
    }
    put(threshold);
  }

  private void put(double threshold) {
    double rounded = Double.parseDouble(String.format(Locale.ROOT, "%.4g", threshold));
    panel.settings().set("threshold", Cql2.number(rounded));
    int above = 0;
    int valid = 0;
    for (float v : values) {
      valid += Float.isNaN(v) ? 0 : 1;
      above += v >= rounded ? 1 : 0;
    }
    share.setText(String.format(
        Locale.ROOT,
        "from %s on: %.1f %% of what is in view",
        Cql2.number(rounded),
        valid == 0 ? 0 : 100.0 * above / valid));
  }
}
