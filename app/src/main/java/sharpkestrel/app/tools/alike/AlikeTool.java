package sharpkestrel.app.tools.alike;

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

/** Objects like a few that are clicked, accepted and rejected by keys. */
public final class AlikeTool extends Tool {

  private final Desk desk;
  private final Supplier<SampleBook> book;
  private AlikeModel model;

  public AlikeTool(Desk desk, Supplier<SampleBook> book) {
    super(StepCatalogue.get("rank-alike"));
    this.desk = desk;
    this.book = book;
  }

  @Override
  protected Node makePanel() {
    model = whileInHand(new AlikeModel(desk.workspace(), watch(), book.get()));
    return whileInHand(new AlikePanel(desk, model));
  }

  @Override
  public Optional<PaneTool> inPicture() {
    return model == null ? Optional.empty() : Optional.of(new Clicks());
  }

  @Override
  public List<ToolKey> keys() {
    return List.of(
        new ToolKey(KeyCode.DIGIT1, "the most alike one is wanted", () -> model.judgeNext(true)),
        new ToolKey(KeyCode.DIGIT2, "the most alike one is not", () -> model.judgeNext(false)));
  }

  @Override
  protected void hidden() {
    desk.paintChoice();
  }

  /** A click picks an object, or takes what was said of it back. */
  private final class Clicks implements PaneTool {

    @Override
    public boolean isInHand() {
      return model.hasObjects();
    }

    @Override
    public void click(boolean inB, double col, double row) {
      if (!inB) {
        model.pickAt((int) Math.floor(col), (int) Math.floor(row));
      }
    }
  }
}
