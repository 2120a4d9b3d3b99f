package sharpkestrel.app.tools.segment;

import java.util.List;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import sharpkestrel.app.step.StepPanel;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;
import sharpkestrel.app.tools.ToolKey;
import sharpkestrel.flow.StepCatalogue;

/** Segmentation: its settings beside the grain of the tree that is shown, or the cuts on a histogram. */
public final class SegmentTool extends Tool {

  private static final double CARD_WIDTH = 280;

  private final Desk desk;
  private GrainPanel grain;

  public SegmentTool(Desk desk) {
    super(StepCatalogue.get("segment"));
    this.desk = desk;
  }

  @Override
  protected Node makePanel() {
    StepPanel panel = new StepPanel(desk, watch(), StepCatalogue.get(id())).brief();
    HBox.setHgrow(panel, Priority.ALWAYS);
    return new HBox(10, grainOrCuts(panel), panel);
  }

  /** The grain of the tree that is shown; while a method by cuts is set up, its cuts. */
  private StackPane grainOrCuts(StepPanel panel) {
    grain = new GrainPanel(desk, watch());
    CutsCard cuts = new CutsCard(desk.workspace(), panel);
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
