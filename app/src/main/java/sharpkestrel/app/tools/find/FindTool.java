package sharpkestrel.app.tools.find;

import javafx.scene.Node;
import sharpkestrel.app.step.EvidenceTool;
import sharpkestrel.app.step.StepPanel;
import sharpkestrel.app.tools.Desk;

/** Things of every size, with the least score slid over the picture. */
public final class FindTool extends EvidenceTool {

  private SearchCard search;

  public FindTool(Desk desk) {
    super(desk, "find-objects");
  }

  @Override
  protected Node evidence(StepPanel panel) {
    search = new SearchCard(desk(), panel);
    return search;
  }

  @Override
  protected void shown() {
    search.setInHand(true);
  }

  @Override
  protected void hidden() {
    search.setInHand(false);
    desk().paintChoice();
  }
}
