package sharpkestrel.app.tools.segment;

import java.util.List;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.StackPane;
import sharpkestrel.app.step.EvidenceTool;
import sharpkestrel.app.step.StepPanel;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.ToolKey;

/** Segmentation: its settings beside the grain of the tree that is shown, or the cuts on a histogram. */
public final class SegmentTool extends EvidenceTool {

  private static final double CARD_WIDTH = 280;

  private GrainPanel grain;

  public SegmentTool(Desk desk) {
    super(desk, "segment");
  }

  /** The grain of the tree that is shown; while a method by cuts is set up, its cuts. */
  @Override
  protected Node evidence(StepPanel panel) {
    grain = new GrainPanel(desk(), watch());
    CutsCard cuts = new CutsCard(desk().workspace(), panel);
    Runnable choose = () -> {
      boolean byCuts = panel.settingTexts().getOrDefault("method", "").equals("cut_values");
      cuts.setVisible(byCuts);
      grain.setVisible(!byCuts);
      if (byCuts) {
        cuts.refresh();
      }
    };
    panel.onSettings(choose);
    panel.inputs().onChange(choose);
    choose.run();
    StackPane card = new StackPane(grain, cuts);
    card.setPrefWidth(CARD_WIDTH);
    card.setMinWidth(CARD_WIDTH);
    return card;
  }

  @Override
  public List<ToolKey> keys() {
    return List.of(
        new ToolKey(KeyCode.OPEN_BRACKET, "finer grain", () -> grain.step(-1)),
        new ToolKey(KeyCode.CLOSE_BRACKET, "coarser grain", () -> grain.step(1)));
  }

  @Override
  protected void shown() {
    grain.paint();
  }

  @Override
  protected void hidden() {
    grain.paintAsKept();
  }
}
