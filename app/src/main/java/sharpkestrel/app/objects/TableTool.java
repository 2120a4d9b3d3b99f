package sharpkestrel.app.objects;

import java.util.Set;
import javafx.scene.Node;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;

/** The table of what pane A shows. */
public final class TableTool extends Tool {

  private final Desk desk;

  public TableTool(Desk desk) {
    super("table", "Table", null);
    this.desk = desk;
  }

  @Override
  public Set<String> steps() {
    return Set.of("choose-objects");
  }

  @Override
  protected Node makePanel() {
    return new TablePanel(desk, watch());
  }
}
