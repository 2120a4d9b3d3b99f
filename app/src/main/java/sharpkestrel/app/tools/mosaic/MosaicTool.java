package sharpkestrel.app.tools.mosaic;

import java.util.Optional;
import javafx.scene.Node;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;
import sharpkestrel.app.viewer.PaneTool;
import sharpkestrel.flow.StepCatalogue;

/** Scenes laid together along seams that can be changed by hand. */
public final class MosaicTool extends Tool {

  private final Desk desk;
  private final SeamModel model;
  private final SeamMarks marks;

  public MosaicTool(Desk desk) {
    super(StepCatalogue.get("mosaic"));
    this.desk = desk;
    model = new SeamModel(desk.workspace());
    marks = new SeamMarks(desk.workspace(), model);
  }

  @Override
  protected Node makePanel() {
    return new MosaicPanel(desk, watch(), model, marks);
  }

  @Override
  public Optional<PaneTool> inPicture() {
    return Optional.of(marks);
  }
}
