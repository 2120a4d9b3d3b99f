package sharpkestrel.app.tools.pick;

import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.viewer.PaneTool;
import sharpkestrel.app.viewer.Ring;
import sharpkestrel.raster.Affine;
import sharpkestrel.segment.Cut;

/** Picks objects out of a merge tree by clicks, and draws what is picked and what was accepted. */
public final class PickMarks implements PaneTool {

  private static final Color ACCEPTED = Color.web("#8fb56a");
  private static final Color IN_HAND = Color.web("#ffd98a");

  private final Workspace workspace;
  private final PickModel model;

  public PickMarks(Workspace workspace, PickModel model) {
    this.workspace = workspace;
    this.model = model;
  }

  @Override
  public boolean isInHand() {
    return model.hasTree();
  }

  @Override
  public void draw(GraphicsContext g, boolean inB, Affine toScreen) {
    if (inB || !(workspace.display().paneAProperty().get().value() instanceof Cut cut)) {
      return;
    }
    Affine map = toScreen.after(cut.superpixels().grid().affine().inverse());
    for (PickModel.Picked each : model.accepted()) {
      draw(g, each, map, ACCEPTED);
    }
    if (model.pickedProperty().get() != null) {
      draw(g, model.pickedProperty().get(), map, IN_HAND);
    }
  }

  private static void draw(GraphicsContext g, PickModel.Picked picked, Affine map, Color colour) {
    picked.outlines().forEach(outline -> Ring.draw(g, outline, map, colour));
  }

  @Override
  public void click(boolean inB, double col, double row) {
    click(inB, col, row, Click.PLAIN);
  }

  @Override
  public void click(boolean inB, double col, double row, Click how) {
    if (inB) {
      return;
    }
    int x = (int) Math.floor(col);
    int y = (int) Math.floor(row);
    switch (how) {
      case PLAIN -> model.pick(x, y);
      case ADD -> model.addInside(x, y);
      case LEAVE_OUT -> model.addOutside(x, y);
    }
  }
}
