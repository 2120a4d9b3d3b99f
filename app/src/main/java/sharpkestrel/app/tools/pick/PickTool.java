package sharpkestrel.app.tools.pick;

import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;
import sharpkestrel.app.tools.ToolKey;
import sharpkestrel.app.viewer.PaneTool;
import sharpkestrel.flow.StepCatalogue;

/** Objects picked out of a merge tree by clicks. */
public final class PickTool extends Tool {

  private final Desk desk;
  private PickModel model;
  private PickMarks marks;

  public PickTool(Desk desk) {
    super(StepCatalogue.get("pick-objects"));
    this.desk = desk;
  }

  /** What is picked; null before the tool was first in hand. */
  public PickModel model() {
    return model;
  }

  @Override
  protected Node makePanel() {
    model = new PickModel(desk.workspace(), watch());
    marks = new PickMarks(desk.workspace(), model);
    return new PickPanel(desk, watch(), model);
  }

  @Override
  public Optional<PaneTool> inPicture() {
    return Optional.ofNullable(marks);
  }

  @Override
  public List<ToolKey> keys() {
    return List.of(
        new ToolKey(KeyCode.ENTER, "accept the picked object", () -> model.accept()),
        new ToolKey(
            KeyCode.OPEN_BRACKET, "take a smaller object of the branch", () -> model.climb(-1)),
        new ToolKey(KeyCode.CLOSE_BRACKET, "take a larger one", () -> model.climb(1)));
  }

  @Override
  public void drop() {
    model.drop();
  }
}
