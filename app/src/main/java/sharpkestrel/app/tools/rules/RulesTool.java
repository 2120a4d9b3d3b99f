package sharpkestrel.app.tools.rules;

import javafx.scene.Node;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;
import sharpkestrel.flow.StepCatalogue;

/** Classes by sentences, tried as they are written. */
public final class RulesTool extends Tool {

  private final Desk desk;

  public RulesTool(Desk desk) {
    super(StepCatalogue.get("rules"));
    this.desk = desk;
  }

  @Override
  protected Node makePanel() {
    RulesModel model = whileInHand(new RulesModel(desk.workspace(), watch()));
    return whileInHand(new RulesPanel(desk, watch(), model));
  }

  @Override
  protected void hidden() {
    desk.paintChoice();
  }
}
