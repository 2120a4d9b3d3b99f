package sharpkestrel.app.tools.samples;

import java.util.List;
import java.util.Optional;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import sharpkestrel.app.samples.Sample;
import sharpkestrel.app.viewer.PaneTool;
import sharpkestrel.raster.Affine;

/** Samples in the colours of their classes, those that are picked out in another; a click picks one out, a drag then moves it. */
final class EvidenceMarks implements PaneTool {

  private static final Color PICKED = Color.web("#ffd98a");

  private final EvidenceModel model;
  private final Runnable repaint;
  private Optional<Sample> dragged = Optional.empty();
  private double fromCol;
  private double fromRow;
  private double cols;
  private double rows;

  /**
   * @param repaint draws the picture again
   */
  EvidenceMarks(EvidenceModel model, Runnable repaint) {
    this.model = model;
    this.repaint = repaint;
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
    dragged.ifPresent(sample -> {
      Sample there = new Sample(model.moved(sample, cols, rows), sample.ofClass(), sample.scene());
      SampleRings.draw(g, List.of(there), map, each -> PICKED);
    });
  }

  @Override
  public boolean grab(boolean inB, double col, double row, double reach) {
    dragged = inB
        ? Optional.empty()
        : model.at(col, row).filter(model.pickedProperty().get()::contains);
    fromCol = col;
    fromRow = row;
    cols = 0;
    rows = 0;
    return dragged.isPresent();
  }

  @Override
  public void drag(boolean inB, double col, double row) {
    cols = col - fromCol;
    rows = row - fromRow;
    repaint.run();
  }

  @Override
  public void let() {
    dragged
        .filter(sample -> cols != 0 || rows != 0)
        .ifPresent(sample -> model.move(sample, cols, rows));
    dragged = Optional.empty();
    repaint.run();
  }

  @Override
  public void click(boolean inB, double col, double row) {
    if (!inB) {
      model.pickAt(col, row);
    }
  }
}
