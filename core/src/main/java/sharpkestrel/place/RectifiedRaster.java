package sharpkestrel.place;

import java.util.Optional;
import sharpkestrel.geo.ImageModel;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Resampling;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/**
 * A scene as it lies on the ground: each pixel of the result is followed to the ground, its height looked up, and the
 * scene's model asked where the scene saw it.
 */
public final class RectifiedRaster extends DerivedRaster {

  /** Rows that are done at a time, so that what they need of the scene stays in the processor's cache. */
  private static final int ROWS = 64;

  private final Raster scene;
  private final ImageLattice lattice;
  private final Resampling resampling;
  private final double nativeRatio;

  /**
   * @param heights where the model uses them
   */
  public RectifiedRaster(
      Raster scene,
      ImageModel model,
      Optional<Heights> heights,
      Grid grid,
      Attachments attachments,
      Resampling resampling) {
    super(grid, scene.bands(), attachments, Zoom.RESAMPLING.over(scene.zoom()));
    this.scene = scene;
    this.resampling = resampling;
    lattice = new ImageLattice(model, heights, grid);
    nativeRatio = lattice.pixelsOfSceneInOne();
  }

  /** The raw scene's level whose pixels are nearest below the result's in size. */
  private int sourceLevel(int level) {
    double ratio = nativeRatio * (1 << level);
    int source = (int) Math.floor(Math.log(ratio) / Math.log(2) + 0.1);
    return Math.max(0, Math.min(scene.levels() - 1, source));
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    if (window.height() <= ROWS) {
      computeRows(level, window, target, request);
      return;
    }
    for (int y = 0; y < window.height(); y += ROWS) {
      int rows = Math.min(ROWS, window.height() - y);
      Window part = new Window(window.x(), window.y() + y, window.width(), rows);
      float[][] some = Planes.like(target, part.area());
      computeRows(level, part, some, request);
      for (int b = 0; b < target.length; b++) {
        if (target[b] != null) {
          System.arraycopy(some[b], 0, target[b], y * window.width(), part.area());
        }
      }
    }
  }

  private void computeRows(int level, Window window, float[][] target, Request request) {
    int count = window.area();
    double[] cols = new double[count];
    double[] rows = new double[count];
    toImage(level, window, cols, rows, request);
    int sourceLevel = sourceLevel(level);
    double scale = 1.0 / (1 << sourceLevel);
    if (sourceLevel > 0) {
      for (int i = 0; i < count; i++) {
        cols[i] *= scale;
        rows[i] *= scale;
      }
    }
    Window whole = scene.grid().atLevel(sourceLevel).window();
    Window source = Window.under(cols, rows, count, resampling.reach(), whole);
    if (source.isEmpty()) {
      Planes.fillNaN(target);
      return;
    }
    float[][] planes = Planes.like(target, source.area());
    scene.read(sourceLevel, source, planes, request);
    for (int i = 0; i < count; i++) {
      cols[i] -= source.x();
      rows[i] -= source.y();
    }
    resampling.sample(planes, source.width(), source.height(), cols, rows, count, target);
  }

  /**
   * Image coordinates at full size of the window's pixel centres; NaN where no height is known.
   *
   * @param cols (output) one for each pixel of the window, row by row
   */
  public void toImage(int level, Window window, double[] cols, double[] rows, Request request) {
    lattice.toImage(level, window, cols, rows, request);
  }
}
