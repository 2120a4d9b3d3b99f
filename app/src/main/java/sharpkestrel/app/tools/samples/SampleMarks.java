package sharpkestrel.app.tools.samples;

import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.viewer.PaneTool;
import sharpkestrel.app.viewer.Ring;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Affine;

/** Samples in the colours of their classes, and the object that is asked about; a click labels. */
final class SampleMarks implements PaneTool {

  private static final Color ASKED = Color.web("#ffd98a");

  private final Workspace workspace;
  private final SamplesModel model;

  SampleMarks(Workspace workspace, SamplesModel model) {
    this.workspace = workspace;
    this.model = model;
  }

  @Override
  public boolean isInHand() {
    return model.hasObjects();
  }

  @Override
  public void draw(GraphicsContext g, boolean inB, Affine toScreen) {
    if (inB || !(workspace.display().paneAProperty().get().value() instanceof ObjectSet set)) {
      return;
    }
    Affine map = toScreen.after(set.labels().grid().affine().inverse());
    SampleRings.draw(g, model.here(), map, sample -> model.book().colourOf(sample.ofClass()));
    SamplesModel.Question asked = model.questionProperty().get();
    if (asked != null) {
      Ring.draw(g, asked.outline(), map, ASKED);
    }
  }

  @Override
  public void hover(boolean inB, double col, double row) {
    if (!inB) {
      model.lookAt((int) Math.floor(col), (int) Math.floor(row));
    }
  }

  @Override
  public void click(boolean inB, double col, double row) {
    if (!inB) {
      model.click((int) Math.floor(col), (int) Math.floor(row));
    }
  }
}
