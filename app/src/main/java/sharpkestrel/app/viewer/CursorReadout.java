package sharpkestrel.app.viewer;

import java.util.Locale;
import java.util.concurrent.Executor;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import javafx.application.Platform;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/**
 * Reads position and band values under the cursor away from the interface thread. Only the newest place matters: a slow
 * raster must not pile up places the cursor has left.
 */
public final class CursorReadout {

  /**
   * What is under the cursor.
   *
   * @param position in the grid's coordinates, or in pixels where it has no place
   * @param values one for each band, of the level that is shown
   */
  public record Readout(String position, String pixelSize, float[] values, String zoom) {}

  private final Executor background;
  private final AtomicReference<Runnable> next = new AtomicReference<>();
  private Consumer<Readout> listener = readout -> {};

  CursorReadout(Executor background) {
    this.background = background;
  }

  void onReadout(Consumer<Readout> newListener) {
    listener = newListener;
  }

  /**
   * @param x on the screen, from the pane's left side
   */
  void ask(PaneLayer layer, Viewport view, double x, double y, String zoom) {
    if (next.getAndSet(() -> read(layer, view, x, y, zoom)) == null) {
      background.execute(() -> next.getAndSet(null).run());
    }
  }

  private void read(PaneLayer layer, Viewport view, double x, double y, String zoom) {
    Affine map = view.toPixels(layer.raster.grid(), layer.rawScale);
    double col = map.x(x, y);
    double row = map.y(x, y);
    Grid grid = layer.raster.grid();
    float[][] values = new float[layer.raster.bands().size()][1];
    int level = Compositor.levelFor(map.a(), layer.raster.levels());
    try {
      layer.raster.read(
          level,
          new Window((int) Math.floor(col) >> level, (int) Math.floor(row) >> level, 1, 1),
          values,
          Request.BACKGROUND);
    } catch (RuntimeException nothingThere) {
      return;
    }
    float[] flat = new float[values.length];
    for (int b = 0; b < flat.length; b++) {
      flat[b] = values[b][0];
    }
    String position = grid.crs().isKnown()
        ? "E " + grouped(grid.affine().x(col, row)) + "  N "
            + grouped(grid.affine().y(col, row))
        : "col " + grouped(col) + "  row " + grouped(row);
    String size = String.format(Locale.ROOT, "%.2f m", layer.rawScale * grid.pixelSize());
    Platform.runLater(() -> listener.accept(new Readout(position, size, flat, zoom)));
  }

  private static String grouped(double value) {
    return String.format(Locale.ROOT, "%,.1f", value).replace(',', '\u2009');
  }
}
