package sharpkestrel.app.tools.texture;

import javafx.scene.Node;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import sharpkestrel.app.step.StepPanel;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;
import sharpkestrel.flow.StepCatalogue;

/** Texture in a moving window: all measures on the trial patch beside the settings. */
public final class TextureTool extends Tool {

  private final Desk desk;

  public TextureTool(Desk desk) {
    super(StepCatalogue.get("texture"));
    this.desk = desk;
  }

  @Override
  protected Node makePanel() {
    StepPanel panel = new StepPanel(desk, watch(), StepCatalogue.get(id())).brief();
    HBox.setHgrow(panel, Priority.ALWAYS);
    return new HBox(10, new TextureCard(desk, watch(), panel), panel);
  }
}
