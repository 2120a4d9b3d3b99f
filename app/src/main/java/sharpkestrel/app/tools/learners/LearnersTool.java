package sharpkestrel.app.tools.learners;

import javafx.scene.Node;
import sharpkestrel.app.step.EvidenceTool;
import sharpkestrel.app.step.StepPanel;
import sharpkestrel.app.tools.Desk;

/** Which way of learning is worth most on the samples there are, with what the last comparison said. */
public final class LearnersTool extends EvidenceTool {

  public LearnersTool(Desk desk) {
    super(desk, "compare-learners");
  }

  @Override
  protected Node evidence(StepPanel panel) {
    return new LearnersCard(desk().workspace(), watch());
  }
}
