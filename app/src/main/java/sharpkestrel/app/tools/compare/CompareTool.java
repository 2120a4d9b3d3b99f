package sharpkestrel.app.tools.compare;

import javafx.scene.Node;
import sharpkestrel.app.step.EvidenceTool;
import sharpkestrel.app.step.StepPanel;
import sharpkestrel.app.tools.Desk;

/** Outlines against the truth, with the scores of the last comparison. */
public final class CompareTool extends EvidenceTool {

  public CompareTool(Desk desk) {
    super(desk, "compare");
  }

  @Override
  protected Node evidence(StepPanel panel) {
    return new ScoresPanel(desk().workspace(), watch());
  }
}
