package sharpkestrel.gather;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/**
 * Parts side by side in rows and columns. A reduced level is taken from the parts' own where every part begins on a
 * whole pixel of it, and halved from the level below where not.
 */
final class PartedRaster extends DerivedRaster {

  /** A part and the pixels of the whole that it begins at. */
  record Placed(Raster raster, int x, int y) {}

  private final List<Placed> parts;
  private final int sharedLevels;

  PartedRaster(Grid grid, List<Band> bands, Attachments attachments, List<Placed> parts) {
    super(grid, bands, attachments, Zoom.POINTWISE);
    this.parts = parts;
    int shared = 30;
    for (Placed part : parts) {
      int offsets = part.x() | part.y();
      shared = Math.min(shared, offsets == 0 ? 30 : Integer.numberOfTrailingZeros(offsets));
    }
    sharedLevels = shared;
  }

  /**
   * @param rows parts by row and column number; gaps are left without data and warned of
   */
  static Raster of(
      Map<Integer, Map<Integer, Raster>> rows, List<Band> bands, Attachments attachments, Job job) {
    int firstRow = Integer.MAX_VALUE;
    int lastRow = 0;
    int firstColumn = Integer.MAX_VALUE;
    int lastColumn = 0;
    for (var row : rows.entrySet()) {
      firstRow = Math.min(firstRow, row.getKey());
      lastRow = Math.max(lastRow, row.getKey());
      for (int column : row.getValue().keySet()) {
        firstColumn = Math.min(firstColumn, column);
        lastColumn = Math.max(lastColumn, column);
      }
    }
    firstRow = Math.min(firstRow, 1);
    firstColumn = Math.min(firstColumn, 1);
    int[] widths = new int[lastColumn - firstColumn + 1];
    int[] heights = new int[lastRow - firstRow + 1];
    for (var row : rows.entrySet()) {
      for (var cell : row.getValue().entrySet()) {
        Grid grid = cell.getValue().grid();
        claim(
            widths, cell.getKey() - firstColumn, grid.width(), "wide", row.getKey(), cell.getKey());
        claim(heights, row.getKey() - firstRow, grid.height(), "high", row.getKey(), cell.getKey());
      }
    }
    List<Placed> placed = new ArrayList<>();
    int y = 0;
    for (int r = 0; r < heights.length; r++) {
      int x = 0;
      for (int c = 0; c < widths.length; c++) {
        Raster raster = rows.getOrDefault(r + firstRow, Map.of()).get(c + firstColumn);
        if (raster != null) {
          placed.add(new Placed(raster, x, y));
        } else {
          job.warn("Part R" + (r + firstRow) + "C" + (c + firstColumn)
              + " is missing: its area is left without data.");
          if (widths[c] == 0 || heights[r] == 0) {
            throw new RasterException("A whole row or column of parts is missing (R"
                + (r + firstRow)
                + ", C"
                + (c + firstColumn)
                + "), so the places of the others are not known. Fetch the missing parts.");
          }
        }
        x += widths[c];
      }
      y += heights[r];
    }
    int width = java.util.Arrays.stream(widths).sum();
    int height = java.util.Arrays.stream(heights).sum();
    Raster first = placed.get(0).raster();
    boolean known = first.grid().crs().isKnown();
    Affine affine = known
        ? first.grid().affine().shifted(-placed.get(0).x(), -placed.get(0).y())
        : Affine.IDENTITY;
    CrsName crs = known ? first.grid().crs() : CrsName.NONE;
    return new PartedRaster(new Grid(width, height, affine, crs), bands, attachments, placed);
  }

  private static void claim(int[] sizes, int index, int size, String which, int row, int column) {
    if (sizes[index] != 0 && sizes[index] != size) {
      throw new RasterException("Part R" + row + "C" + column + " is " + size + " pixels " + which
          + ", its neighbours in the row or column " + sizes[index]
          + ". They do not belong to one image.");
    }
    sizes[index] = size;
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    if (level > sharedLevels) {
      Planes.readByHalving(this, level, window, target, request);
      return;
    }
    Planes.fillNaN(target);
    for (Placed part : parts) {
      Grid grid = part.raster().grid();
      Window own = new Window(
          part.x() >> level,
          part.y() >> level,
          Grid.sizeAt(grid.width(), level),
          Grid.sizeAt(grid.height(), level));
      Window common = own.intersect(window);
      if (common.isEmpty()) {
        continue;
      }
      float[][] planes = Planes.like(target, common.area());
      Window inPart =
          new Window(common.x() - own.x(), common.y() - own.y(), common.width(), common.height());
      part.raster().read(level, inPart, planes, request);
      for (int b = 0; b < target.length; b++) {
        if (target[b] != null) {
          Planes.copy(planes[b], common, target[b], window);
        }
      }
    }
  }
}
