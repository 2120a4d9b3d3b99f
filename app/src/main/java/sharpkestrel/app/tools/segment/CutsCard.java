package sharpkestrel.app.tools.segment;

import java.util.Arrays;
import java.util.Map;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import sharpkestrel.app.model.ResultMaker;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.plot.LevelsBox;
import sharpkestrel.app.step.StepPanel;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandsOf;
import sharpkestrel.raster.Histogram;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Statistics;

/** The values that a scene is segmented at, drawn on the histogram of what is cut: the further raster, else the first band. */
final class CutsCard extends VBox {

  private static final double WIDTH = 258;
  private static final double HEIGHT = 96;

  /** What is cut, as it is called and how its values are distributed. */
  private record Distribution(Band band, Histogram histogram) {}

  private final Workspace workspace;
  private final StepPanel panel;
  private final LevelsBox box = new LevelsBox(WIDTH, HEIGHT);
  private final Label title = new Label("Cuts");

  CutsCard(Workspace workspace, StepPanel panel) {
    super(5);
    this.workspace = workspace;
    this.panel = panel;
    getStyleClass().add("card");
    title.getStyleClass().add("title");
    title.setId("cuts-title");
    Label hint = new Label(
        "Click to set a cut, drag to move it, right-click to take it away. Regions lie between cuts.");
    hint.getStyleClass().addAll("soft", "small");
    hint.setWrapText(true);
    hint.setMinHeight(USE_PREF_SIZE);
    getChildren().addAll(title, box, hint);
    box.onDrawn(cuts -> panel.settings().set("cuts", LevelsBox.text(cuts)));
  }

  /** Shows the distribution of what is cut, away from the interface thread. */
  void refresh() {
    String cuts = panel.settingTexts().getOrDefault("cuts", "");
    var results = panel.inputs().results();
    var files = panel.inputs().files();
    workspace
        .lanes()
        .trial()
        .ask(
            this,
            "Histogram",
            job -> {
              Map<String, Object> values =
                  ResultMaker.values(StepCatalogue.get("segment"), results, files);
              Object cut = values.getOrDefault("layer", values.get("scene"));
              if (!(cut instanceof Raster raster)) {
                throw new IllegalStateException("Choose a scene first.");
              }
              BandsOf first = new BandsOf(raster, 0);
              Statistics[] statistics = Statistics.kept(first, raster, "first band", job);
              return new Distribution(first.bands().getFirst(), statistics[0].histogram());
            },
            made -> {
              title.setText(("Cuts of " + made.band.name() + " " + made.band.unit()).strip());
              box.show(made.histogram, numbers(cuts), "");
            },
            failure -> title.setText(String.valueOf(failure.getMessage())));
  }

  private static double[] numbers(String cuts) {
    try {
      return Arrays.stream(cuts.split(","))
          .map(String::strip)
          .filter(text -> !text.isEmpty())
          .mapToDouble(Double::parseDouble)
          .toArray();
    } catch (NumberFormatException unfinished) {
      // what is being typed is no list of numbers yet
      return new double[0];
    }
  }
}
