package sharpkestrel.app.tools.rules;

import javafx.scene.Node;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;
import sharpkestrel.flow.StepCatalogue;

/** Classes by sentences, tried as they are written. */
public final class RulesTool extends Tool {

  private final Desk desk;
  private RulesModel model;
  private RulesPanel panel;

  public RulesTool(Desk desk) {
    super(StepCatalogue.get("rules"));
    this.desk = desk;
  }

  @Override
  protected Node makePanel() {
    model = new RulesModel(desk.workspace(), watch());
    panel = new RulesPanel(desk, watch(), model);
    return panel;
  }

  @Override
  protected void shown() {
    panel.setInHand(true);
    model.setInHand(true);
  }

  @Override
  protected void hidden() {
    panel.setInHand(false);
    model.setInHand(false);
    desk.paintChoice();
  }
}
