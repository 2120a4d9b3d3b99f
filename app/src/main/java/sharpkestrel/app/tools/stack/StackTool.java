package sharpkestrel.app.tools.stack;

import javafx.scene.Node;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;
import sharpkestrel.flow.StepCatalogue;

/** Files of single bands made one scene. */
public final class StackTool extends Tool {

  private final Desk desk;

  public StackTool(Desk desk) {
    super(StepCatalogue.get("stack"));
    this.desk = desk;
  }

  @Override
  protected Node makePanel() {
    return new StackPanel(desk.workspace(), StepCatalogue.get(id()));
  }
}
