package sharpkestrel.app.tools.pansharpen;

import java.util.List;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import sharpkestrel.app.step.StepPanel;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.sharpen.pan.PanModel;

/** Pan-sharpening, with what each method is worth on the trial patch. */
public final class PansharpenTool extends Tool {

  private static final String METHOD = "method";
  private static final String WEIGHTS = "weights";

  private final Desk desk;

  public PansharpenTool(Desk desk) {
    super(StepCatalogue.get("pansharpen"));
    this.desk = desk;
  }

  @Override
  public Set<String> steps() {
    return Set.of(id(), "rate-sharpening");
  }

  @Override
  protected Node makePanel() {
    StepPanel panel = new StepPanel(desk, watch(), StepCatalogue.get(id())).brief();
    RatingCard ratings = new RatingCard(desk, panel);
    String usual = StepCatalogue.get(id()).optionCalled(METHOD).initial();
    ratings.choose(usual);
    panel.onSettings(() -> ratings.choose(panel.settingTexts().getOrDefault(METHOD, usual)));
    panel.onTried(sharp -> sharp
        .attachments()
        .get(PanModel.class)
        .ifPresent(model -> panel
            .settings()
            .hint(
                WEIGHTS, model.weightsText().isEmpty() ? "none" : "auto " + model.weightsText())));
    panel.onRanking(setting -> setting.equals(METHOD) ? ratings.ranking() : List.of());
    ratings.onTaken(method -> {
      panel.settings().set(METHOD, method);
      panel.tryHere();
    });
    HBox.setHgrow(panel, Priority.ALWAYS);
    return new HBox(10, ratings, panel);
  }
}
