package sharpkestrel.app.tools.winnow;

import javafx.scene.Node;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;
import sharpkestrel.flow.StepCatalogue;

/** An ordered stack of tests that objects must pass. */
public final class WinnowTool extends Tool {

  private final Desk desk;
  private WinnowPanel panel;

  public WinnowTool(Desk desk) {
    super(StepCatalogue.get("winnow"));
    this.desk = desk;
  }

  @Override
  protected Node makePanel() {
    panel = new WinnowPanel(desk, watch());
    return panel;
  }

  @Override
  protected void shown() {
    panel.paintAgain();
  }

  @Override
  protected void hidden() {
    panel.putAway();
    desk.paintChoice();
  }
}
