package sharpkestrel.gather;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Window;

/** Parts of one image put together by where each says it lies. */
final class PlacedParts {

  /** Pixels by which parts may be off a common lattice. */
  private static final double OFF = 0.01;

  private PlacedParts() {}

  /**
   * @throws RasterException where a part does not say where it lies, or its pixels do not fall on those of the others
   */
  static Raster of(List<Path> files, Attachments attachments, Job job) {
    List<Raster> rasters = new ArrayList<>();
    for (Path file : files) {
      rasters.add(RasterFiles.open(file));
    }
    Raster first = rasters.getFirst();
    Extent all = null;
    for (int i = 0; i < files.size(); i++) {
      check(files.get(i), rasters.get(i), first);
      Extent here = rasters.get(i).grid().extent();
      all = all == null ? here : all.union(here);
    }
    double size = first.grid().affine().pixelWidth();
    CrsName crs = first.grid().crs();
    Grid grid = new Grid(
        (int) Math.round(all.width() / size),
        (int) Math.round(all.height() / size),
        Affine.northUp(all.west(), all.north(), size),
        crs);
    List<PartedRaster.Placed> placed = new ArrayList<>();
    long covered = 0;
    for (int i = 0; i < files.size(); i++) {
      Extent here = rasters.get(i).grid().extent();
      double x = (here.west() - all.west()) / size;
      double y = (all.north() - here.north()) / size;
      if (Math.abs(x - Math.rint(x)) > OFF || Math.abs(y - Math.rint(y)) > OFF) {
        throw new RasterException(
            files.get(i) + ": its pixels lie between those of " + files.getFirst()
                + ". Warp it to that one's pixels, or lay them together with the step 'mosaic'.");
      }
      PartedRaster.Placed part =
          new PartedRaster.Placed(rasters.get(i), (int) Math.rint(x), (int) Math.rint(y));
      if (placed.stream().anyMatch(before -> window(before).equals(window(part)))) {
        job.warn(files.get(i) + " lies where another part lies and is left out.");
        continue;
      }
      if (placed.stream().anyMatch(b -> !window(b).intersect(window(part)).isEmpty())) {
        job.warn(files.get(i) + " lies partly over another part and is shown there.");
      }
      covered += rasters.get(i).grid().pixels();
      placed.add(part);
    }
    if (covered < grid.pixels()) {
      job.warn(
          Math.round(100.0 * (grid.pixels() - covered) / grid.pixels())
              + " % of the frame of all parts is in none of them and left without data: parts may be missing.");
    }
    return new PartedRaster(grid, first.bands(), attachments, placed);
  }

  private static Window window(PartedRaster.Placed part) {
    Grid grid = part.raster().grid();
    return new Window(part.x(), part.y(), grid.width(), grid.height());
  }

  private static void check(Path file, Raster part, Raster first) {
    Grid own = part.grid();
    if (!own.crs().isKnown()) {
      throw new RasterException(file
          + " tells neither row and column in its name (NAME-R1C2.tif) nor where it lies, so its place among the parts is"
          + " not known.");
    }
    boolean alike = own.crs().equals(first.grid().crs())
        && own.affine().isNorthUp()
        && Math.abs(own.affine().pixelWidth() / first.grid().affine().pixelWidth() - 1) < 1e-6;
    if (!alike || part.bands().size() != first.bands().size()) {
      throw new RasterException(
          file + " has another system, pixel size or number of bands than the parts before it ("
              + first.grid().crs() + ", " + first.grid().affine().pixelWidth() + ", "
              + first.bands().size()
              + "). Parts of one image are alike; to join unlike ones use the step 'mosaic'.");
    }
  }
}
