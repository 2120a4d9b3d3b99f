package sharpkestrel.app.tools.texture;

import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import sharpkestrel.app.model.ResultMaker;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.plot.LevelsBox;
import sharpkestrel.app.step.StepPanel;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.sharpen.Texture;
import sharpkestrel.sharpen.texture.Binning;

/** How a band is sorted into grey levels for its texture: by the settings, or by cuts drawn on its histogram. */
final class LevelsCard extends VBox {

  private static final String HINT =
      "Click to set a cut, drag to move it, right-click to take it away: cuts of your own replace levels of one width.";
  private static final String CUTS = Binning.CUTS.name().toLowerCase(Locale.ROOT);

  private final Workspace workspace;
  private final StepPanel panel;
  private final LevelsBox box = new LevelsBox(550, 118);
  private final Label count = new Label("");

  LevelsCard(Workspace workspace, StepPanel panel) {
    super(5);
    this.workspace = workspace;
    this.panel = panel;
    count.setId("levels-count");
    count.getStyleClass().add("mono");
    Label hint = new Label(HINT);
    hint.getStyleClass().addAll("soft", "small");
    hint.setWrapText(true);
    hint.setMinHeight(USE_PREF_SIZE);
    getChildren().addAll(box, count, hint);
    box.onDrawn(this::take);
  }

  private void take(List<Double> cuts) {
    panel.settings().set("cuts", LevelsBox.text(cuts));
    panel.settings().set("binning", CUTS);
  }

  /** Shows the levels that the settings make of the scene, away from the interface thread. */
  void refresh() {
    Map<String, String> texts = new HashMap<>(panel.settingTexts());
    if (!texts.containsKey("cuts")) {
      // until a cut is set, those of one width stand to be moved
      texts.remove("binning", CUTS);
    }
    var results = panel.inputs().results();
    var files = panel.inputs().files();
    var step = StepCatalogue.get("texture");
    workspace
        .lanes()
        .trial()
        .ask(
            this,
            "Grey levels",
            job ->
                ((Texture) step.make(ResultMaker.values(step, results, files), texts)).grouped(job),
            made -> {
              box.show(made.statistics().histogram(), made.levels().edges(), "");
              count.setText(made.levels().count() + " grey levels of "
                  + String.format(
                      Locale.ROOT,
                      "%.5g to %.5g",
                      made.statistics().min(),
                      made.statistics().max()));
            },
            failure -> count.setText(failure.getMessage()));
  }
}
