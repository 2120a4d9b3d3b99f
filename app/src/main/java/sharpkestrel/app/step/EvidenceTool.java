package sharpkestrel.app.step;

import javafx.scene.Node;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;
import sharpkestrel.flow.StepCatalogue;

/** The tool of a step whose panel is made from the declaration, with evidence of its own beside it. */
public abstract class EvidenceTool extends Tool {

  private static final double GAP = 10;

  private final Desk desk;

  /**
   * @param step its id
   */
  protected EvidenceTool(Desk desk, String step) {
    super(StepCatalogue.get(step));
    this.desk = desk;
  }

  protected final Desk desk() {
    return desk;
  }

  /** What stands before the settings. */
  protected abstract Node evidence(StepPanel panel);

  @Override
  protected final Node makePanel() {
    StepPanel panel = new StepPanel(desk, watch(), StepCatalogue.get(id())).brief();
    HBox.setHgrow(panel, Priority.ALWAYS);
    return new HBox(GAP, evidence(panel), panel);
  }
}
