package sharpkestrel.app.tools.tie;

import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import sharpkestrel.app.model.Display;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;
import sharpkestrel.app.tools.ToolKey;
import sharpkestrel.app.viewer.PaneTool;
import sharpkestrel.flow.StepCatalogue;

/** Tie points between a scene and its reference, and what is made of them. */
public final class TieTool extends Tool {

  private final Desk desk;
  private final TieModel model;
  private final TieMarks marks;

  public TieTool(Desk desk) {
    super(StepCatalogue.get("tiepoints"));
    this.desk = desk;
    model = new TieModel(desk.workspace());
    marks = new TieMarks(desk.workspace(), model);
  }

  /** The points in hand. */
  public TieModel model() {
    return model;
  }

  @Override
  protected Node makePanel() {
    return new TiePanel(desk, watch(), model, marks);
  }

  @Override
  public Optional<PaneTool> inPicture() {
    return Optional.of(marks);
  }

  @Override
  public boolean isBetweenPanes() {
    return true;
  }

  @Override
  public List<ToolKey> keys() {
    return List.of(
        new ToolKey(KeyCode.ENTER, "set the other half where it is expected", model::takeExpected),
        new ToolKey(KeyCode.DELETE, "switch the picked tie point off", model::switchPickedOff));
  }

  @Override
  protected void shown() {
    if (desk.workspace().display().paneBProperty().get() != null) {
      desk.workspace().display().compareProperty().set(Display.Compare.SIDE_BY_SIDE);
    }
  }

  @Override
  public void drop() {
    model.dropPending();
  }
}
