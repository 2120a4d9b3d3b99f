package sharpkestrel.app.tools.builtup;

import javafx.scene.Node;
import sharpkestrel.app.step.EvidenceTool;
import sharpkestrel.app.step.StepPanel;
import sharpkestrel.app.tools.Desk;

/** The built-up index with its threshold over the picture. */
public final class BuiltUpTool extends EvidenceTool {

  private ThresholdCard threshold;

  public BuiltUpTool(Desk desk) {
    super(desk, "builtup");
  }

  @Override
  protected Node evidence(StepPanel panel) {
    threshold = new ThresholdCard(desk(), panel);
    return threshold;
  }

  @Override
  protected void hidden() {
    desk().workspace().lanes().trial().drop(threshold);
    desk().picture().clearOver();
  }
}
