package sharpkestrel.segment.regions;

import java.util.List;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.PolygonFill;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.raster.Window;

/** Regions that do not come from pixels: outlines, and the cells of a regular grid. */
public final class DrawnRegions {

  private static final int STRIP = 256;

  private DrawnRegions() {}

  /**
   * Draws outlines, the pixels whose centres they cover, later ones over earlier ones.
   *
   * @param labels (output) 1 to {@code outlines.size()} by outline; 0 beside them
   */
  public static void draw(List<Geometry> outlines, ScratchLabels labels, Job job) {
    Grid grid = labels.grid();
    for (int i = 0; i < outlines.size(); i++) {
      job.cancellation().check();
      PolygonFill fill = new PolygonFill(outlines.get(i), grid);
      Window window = fill.bounds(0).intersect(grid.window());
      if (window.isEmpty()) {
        continue;
      }
      int[] values = new int[window.area()];
      labels.read(window, values);
      boolean[] inside = fill.fill(0, window);
      for (int k = 0; k < values.length; k++) {
        values[k] = inside[k] ? i + 1 : values[k];
      }
      labels.write(window, values);
    }
    labels.setMaxLabel(outlines.size());
  }

  /**
   * @throws RasterException where outlines are in another system than a scene
   */
  public static void requireSystemOf(Grid grid, OutlineSet outlines) {
    if (!outlines.crs().equals(grid.crs())) {
      throw new RasterException("The outlines are in " + outlines.crs() + ", the scene in "
          + grid.crs() + ". Give outlines in the scene's system.");
    }
  }

  /**
   * Outlines that have pixels in the scene.
   *
   * @param labels (output) 1 to the returned count; 0 for no-data and beside outlines
   */
  static int ofOutlines(FeatureSpace space, OutlineSet outlines, ScratchLabels labels, Job job) {
    requireSystemOf(labels.grid(), outlines);
    draw(outlines.outlines(), labels, job);
    int count = leaveOutNoData(space, labels, outlines.count(), job);
    if (count == 0) {
      throw new RasterException("None of the " + outlines.count()
          + " outlines has a pixel of the scene in it: they lie elsewhere.");
    }
    return count;
  }

  /**
   * Cells from the scene's origin.
   *
   * @param cellPixels side of a cell in pixels
   */
  static int ofGrid(FeatureSpace space, double cellPixels, ScratchLabels labels, Job job) {
    Grid grid = labels.grid();
    int across = (int) Math.ceil(grid.width() / cellPixels);
    int down = (int) Math.ceil(grid.height() / cellPixels);
    int[] row = new int[grid.width()];
    for (int y = 0; y < grid.height(); y++) {
      int cellRow = (int) ((y + 0.5) / cellPixels);
      for (int x = 0; x < row.length; x++) {
        row[x] = cellRow * across + (int) ((x + 0.5) / cellPixels) + 1;
      }
      labels.write(new Window(0, y, grid.width(), 1), row);
    }
    labels.setMaxLabel(across * down);
    return leaveOutNoData(space, labels, across * down, job);
  }

  private static int leaveOutNoData(
      FeatureSpace space, ScratchLabels labels, int regions, Job job) {
    int width = labels.grid().width();
    int d = space.spectralDimensions();
    int[] number = new int[regions + 1];
    int count = 0;
    for (int pass = 0; pass < 2; pass++) {
      for (int top = 0; top < labels.grid().height(); top += STRIP) {
        job.cancellation().check();
        Window rows = new Window(0, top, width, STRIP).intersect(labels.grid().window());
        int[] values = new int[rows.area()];
        labels.read(rows, values);
        if (pass == 0) {
          float[] features = space.readSpectral(rows, job.request());
          for (int i = 0; i < values.length; i++) {
            values[i] = Float.isNaN(features[i * d]) ? 0 : values[i];
            if (values[i] != 0 && number[values[i]] == 0) {
              number[values[i]] = 1;
            }
          }
        } else {
          for (int i = 0; i < values.length; i++) {
            values[i] = number[values[i]];
          }
        }
        labels.write(rows, values);
      }
      for (int i = 1; i <= regions && pass == 0; i++) {
        number[i] = number[i] == 0 ? 0 : ++count;
      }
    }
    labels.setMaxLabel(count);
    return count;
  }
}
