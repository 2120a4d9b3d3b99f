package sharpkestrel.app.tools.builtup;

import javafx.scene.Node;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import sharpkestrel.app.step.StepPanel;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;
import sharpkestrel.flow.StepCatalogue;

/** The built-up index with its threshold over the picture. */
public final class BuiltUpTool extends Tool {

  private final Desk desk;
  private ThresholdCard threshold;

  public BuiltUpTool(Desk desk) {
    super(StepCatalogue.get("builtup"));
    this.desk = desk;
  }

  @Override
  protected Node makePanel() {
    StepPanel panel = new StepPanel(desk, watch(), StepCatalogue.get(id())).brief();
    HBox.setHgrow(panel, Priority.ALWAYS);
    threshold = new ThresholdCard(desk, panel);
    return new HBox(10, threshold, panel);
  }

  @Override
  protected void hidden() {
    desk.workspace().lanes().trial().drop(threshold);
    desk.picture().clearOver();
  }
}
