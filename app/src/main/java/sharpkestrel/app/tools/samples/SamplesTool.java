package sharpkestrel.app.tools.samples;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import sharpkestrel.app.samples.SampleBook;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;
import sharpkestrel.app.tools.ToolKey;
import sharpkestrel.app.viewer.PaneTool;
import sharpkestrel.flow.StepCatalogue;

/** Labels objects by clicks and digits, and classifies all others as one goes. */
public final class SamplesTool extends Tool {

  private final Desk desk;
  private final Supplier<SampleBook> book;
  private SamplesModel model;
  private SampleMarks marks;
  private SamplesPanel panel;

  SamplesTool(Desk desk, Supplier<SampleBook> book) {
    super(StepCatalogue.get("classify-objects"));
    this.desk = desk;
    this.book = book;
  }

  @Override
  protected Node makePanel() {
    model = whileInHand(new SamplesModel(desk.workspace(), watch(), book.get()));
    marks = new SampleMarks(desk.workspace(), model);
    panel = whileInHand(new SamplesPanel(desk, watch(), model));
    return panel;
  }

  /** Labels an object of what pane A shows, with a class that is added where it is new; the tool is in hand. */
  public void label(int row, String ofClass) {
    if (model.book().classesProperty().get().of(ofClass).isEmpty()) {
      model.addClass(ofClass);
    }
    model.label(row, ofClass);
  }

  @Override
  public Optional<PaneTool> inPicture() {
    return Optional.ofNullable(marks);
  }

  @Override
  public List<ToolKey> keys() {
    List<ToolKey> keys = new ArrayList<>(ToolKey.digits(
        "1 to 9: the class that answers what is asked, or that clicks give",
        digit -> model.digit(digit)));
    keys.add(new ToolKey(KeyCode.A, "ask me about an object", () -> model.askNext()));
    keys.add(new ToolKey(KeyCode.DIGIT0, "pass over what is asked", () -> model.pass()));
    keys.add(new ToolKey(
        KeyCode.C,
        "give all that is chosen in table or plots the class in hand",
        () -> panel.labelChosen()));
    return keys;
  }

  @Override
  protected void hidden() {
    desk.paintChoice();
  }

  @Override
  public void drop() {
    model.stopAsking();
  }
}
