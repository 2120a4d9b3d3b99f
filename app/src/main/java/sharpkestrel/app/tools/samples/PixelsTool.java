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

/** Areas drawn for some classes, and every other pixel told by them. */
public final class PixelsTool extends Tool {

  private final Desk desk;
  private final Supplier<SampleBook> book;
  private AreaMarks marks;
  private AreasModel model;

  PixelsTool(Desk desk, Supplier<SampleBook> book) {
    super(StepCatalogue.get("classify-pixels"));
    this.desk = desk;
    this.book = book;
  }

  @Override
  protected Node makePanel() {
    model = new AreasModel(desk.workspace(), watch(), book.get());
    marks = new AreaMarks(model, desk.picture()::repaint);
    return whileInHand(new PixelsPanel(desk, watch(), model, marks));
  }

  @Override
  public Optional<PaneTool> inPicture() {
    return Optional.ofNullable(marks);
  }

  @Override
  public List<ToolKey> keys() {
    List<ToolKey> keys = new ArrayList<>(
        ToolKey.digits("1 to 9: the class of what is drawn", digit -> model.digit(digit)));
    keys.add(new ToolKey(
        KeyCode.ENTER, "close what has corners: a point, a line or an area", () -> marks.finish()));
    keys.add(new ToolKey(KeyCode.BACK_SPACE, "take the last corner back", () -> marks.back()));
    return keys;
  }

  @Override
  protected void hidden() {
    marks.drop();
  }

  @Override
  public void drop() {
    marks.drop();
  }
}
