package sharpkestrel.app.tools.classes;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;
import sharpkestrel.app.tools.ToolKey;
import sharpkestrel.app.viewer.PaneTool;
import sharpkestrel.flow.StepCatalogue;

/** Clusters and classes seen one by one, and called by names. */
public final class ClassesTool extends Tool {

  private final Desk desk;
  private ClassesModel model;

  public ClassesTool(Desk desk) {
    super(StepCatalogue.get("name-classes"));
    this.desk = desk;
  }

  @Override
  protected Node makePanel() {
    model = new ClassesModel(desk.workspace(), watch());
    return whileInHand(new ClassesPanel(desk, model));
  }

  @Override
  public Optional<PaneTool> inPicture() {
    return model == null ? Optional.empty() : Optional.of(new Clicks());
  }

  @Override
  public List<ToolKey> keys() {
    List<ToolKey> keys = new ArrayList<>(ToolKey.digits(
        "1 to 9: call what is chosen by a name given before", digit -> model.callByDigit(digit)));
    return keys;
  }

  @Override
  protected void hidden() {
    desk.workspace().lanes().trial().drop(model);
    desk.paintChoice();
  }

  @Override
  public void drop() {
    model.selectNone();
  }

  /** A click looks at the class under it alone, with Shift at it too. */
  private final class Clicks implements PaneTool {

    @Override
    public boolean isInHand() {
      return model.hasClasses();
    }

    @Override
    public void click(boolean inB, double col, double row) {
      click(inB, col, row, Click.PLAIN);
    }

    @Override
    public void click(boolean inB, double col, double row, Click how) {
      if (!inB) {
        model.selectAt((int) Math.floor(col), (int) Math.floor(row), how == Click.ADD);
      }
    }
  }
}
