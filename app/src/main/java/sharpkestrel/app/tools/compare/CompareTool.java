package sharpkestrel.app.tools.compare;

import javafx.scene.Node;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import sharpkestrel.app.step.StepPanel;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;
import sharpkestrel.flow.StepCatalogue;

/** Outlines against the truth, with the scores of the last comparison. */
public final class CompareTool extends Tool {

  private final Desk desk;

  public CompareTool(Desk desk) {
    super(StepCatalogue.get("compare"));
    this.desk = desk;
  }

  @Override
  protected Node makePanel() {
    StepPanel panel = new StepPanel(desk, watch(), StepCatalogue.get(id()));
    HBox.setHgrow(panel, Priority.ALWAYS);
    return new HBox(10, new ScoresPanel(desk.workspace(), watch()), panel);
  }
}
