package sharpkestrel.app.step;

import javafx.scene.Node;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;
import sharpkestrel.flow.StepSpec;

/** The tool of a step that has no other: its panel is made from the declaration. */
public final class StepTool extends Tool {

  private final Desk desk;
  private final StepSpec step;

  public StepTool(Desk desk, StepSpec step) {
    super(step);
    this.desk = desk;
    this.step = step;
  }

  @Override
  protected Node makePanel() {
    return new StepPanel(desk, watch(), step);
  }
}
