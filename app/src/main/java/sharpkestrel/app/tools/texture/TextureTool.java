package sharpkestrel.app.tools.texture;

import javafx.scene.Node;
import sharpkestrel.app.step.EvidenceTool;
import sharpkestrel.app.step.StepPanel;
import sharpkestrel.app.tools.Desk;

/** Texture in a moving window: all measures on the trial patch beside the settings. */
public final class TextureTool extends EvidenceTool {

  public TextureTool(Desk desk) {
    super(desk, "texture");
  }

  @Override
  protected Node evidence(StepPanel panel) {
    return new TextureCard(desk(), watch(), panel);
  }
}
