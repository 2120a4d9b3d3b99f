package sharpkestrel.app.objects;

import java.util.Set;
import javafx.scene.Node;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;

/** Features of objects as plots. */
public final class PlotsTool extends Tool {

  private final Desk desk;

  public PlotsTool(Desk desk) {
    super("plots", "Plots", null);
    this.desk = desk;
  }

  @Override
  public Set<String> steps() {
    return Set.of("tell-apart");
  }

  @Override
  protected Node makePanel() {
    return whileInHand(new PlotsPanel(desk.workspace(), desk.choice()));
  }
}
