package sharpkestrel.app.tools.pansharpen;

import java.util.List;
import java.util.Set;
import javafx.scene.Node;
import sharpkestrel.app.step.EvidenceTool;
import sharpkestrel.app.step.StepPanel;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.sharpen.pan.PanModel;

/** Pan-sharpening, with what each method is worth on the trial patch. */
public final class PansharpenTool extends EvidenceTool {

  private static final String METHOD = "method";
  private static final String WEIGHTS = "weights";

  public PansharpenTool(Desk desk) {
    super(desk, "pansharpen");
  }

  @Override
  public Set<String> steps() {
    return Set.of(id(), "rate-sharpening");
  }

  @Override
  protected Node evidence(StepPanel panel) {
    RatingCard ratings = new RatingCard(desk(), panel);
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
    return ratings;
  }
}
