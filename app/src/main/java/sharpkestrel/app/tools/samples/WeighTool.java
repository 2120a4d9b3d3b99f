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

/** Looks over the samples: what speaks against each, a click away. */
public final class WeighTool extends Tool {

  private final Desk desk;
  private final Supplier<SampleBook> book;
  private EvidenceModel model;
  private EvidenceMarks marks;

  WeighTool(Desk desk, Supplier<SampleBook> book) {
    super(StepCatalogue.get("weigh-samples"));
    this.desk = desk;
    this.book = book;
  }

  @Override
  protected Node makePanel() {
    model = whileInHand(new EvidenceModel(desk.workspace(), watch(), book.get()));
    marks = new EvidenceMarks(model, desk.picture()::repaint);
    return new EvidencePanel(desk, model);
  }

  @Override
  public Optional<PaneTool> inPicture() {
    return Optional.ofNullable(marks);
  }

  @Override
  public List<ToolKey> keys() {
    List<ToolKey> keys = new ArrayList<>(ToolKey.digits(
        "1 to 9: another class for the samples that are picked out", digit -> model.digit(digit)));
    keys.add(
        new ToolKey(KeyCode.DELETE, "take the picked samples away", () -> model.removePicked()));
    return keys;
  }
}
