package sharpkestrel.app.tools.find;

import javafx.scene.Node;
import sharpkestrel.app.step.EvidenceTool;
import sharpkestrel.app.step.StepPanel;
import sharpkestrel.app.tools.Desk;

/** Things of every size, with the least score slid over the picture. */
public final class FindTool extends EvidenceTool {

  public FindTool(Desk desk) {
    super(desk, "find-objects");
  }

  @Override
  protected Node evidence(StepPanel panel) {
    return whileInHand(new SearchCard(desk(), panel));
  }

  @Override
  protected void hidden() {
    desk().paintChoice();
  }
}
