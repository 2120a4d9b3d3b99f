package sharpkestrel.app.tools.samples;

import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import sharpkestrel.app.viewer.PaneTool;
import sharpkestrel.raster.Affine;

/** Samples in the colours of their classes, those that are picked out in another; a click picks one out. */
final class EvidenceMarks implements PaneTool {

  private static final Color PICKED = Color.web("#ffd98a");

  private final EvidenceModel model;

  EvidenceMarks(EvidenceModel model) {
    this.model = model;
  }

  @Override
  public boolean isInHand() {
    return model.hasObjects();
  }

  @Override
  public void draw(GraphicsContext g, boolean inB, Affine toScreen) {
    if (inB || !model.hasObjects()) {
      return;
    }
    Affine map = toScreen.after(model.toPixels());
    SampleRings.draw(
        g,
        model.here(),
        map,
        sample -> model.pickedProperty().get().contains(sample)
            ? PICKED
            : model.book().colourOf(sample.ofClass()));
  }

  @Override
  public void click(boolean inB, double col, double row) {
    if (!inB) {
      model.pickAt(col, row);
    }
  }
}
