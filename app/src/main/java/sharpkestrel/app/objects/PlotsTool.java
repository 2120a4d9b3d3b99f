package sharpkestrel.app.objects;

import java.util.Set;
import javafx.scene.Node;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;

/** Features of objects as plots. */
public final class PlotsTool extends Tool {

  private final Desk desk;
  private PlotsPanel panel;

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
    panel = new PlotsPanel(desk.workspace(), desk.choice());
    return panel;
  }

  @Override
  protected void shown() {
    panel.setInHand(true);
  }

  @Override
  protected void hidden() {
    panel.setInHand(false);
  }
}
