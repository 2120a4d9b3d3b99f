package sharpkestrel.place;

import java.util.List;
import java.util.Optional;
import sharpkestrel.geo.GridModel;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Resampling;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/** A surface model less a terrain model on the pixels of a placed scene, in metres; NaN where either has none. */
public final class HeightAboveGround extends DerivedRaster {

  private final Raster surface;
  private final Raster terrain;

  private HeightAboveGround(Grid grid, Raster surface, Raster terrain) {
    super(
        grid,
        List.of(
            new Band("height above ground", BandRole.OTHER, "m", SampleType.FLOAT32, Double.NaN)),
        Attachments.NONE,
        Zoom.RESAMPLING);
    this.surface = surface;
    this.terrain = terrain;
  }

  /**
   * @param grid of a scene in a coordinate system
   * @param surface heights of what stands on the ground, above the same datum as the terrain's
   * @throws RasterException where something has no place
   */
  public static Raster of(Grid grid, Raster surface, Raster terrain) {
    if (!grid.crs().isKnown()) {
      throw new RasterException(
          "The scene does not say where it lies, so heights cannot be laid over it. Orthorectify it first, or leave the"
              + " height models out.");
    }
    return new HeightAboveGround(
        grid,
        onGrid(grid, surface, "surface model", Resampling.BILINEAR),
        onGrid(grid, terrain, "height model", Resampling.BILINEAR));
  }

  /**
   * A placed raster on other pixels; itself where it lies on those.
   *
   * @param what it is called where it has no place
   */
  public static Raster onGrid(Grid grid, Raster raster, String what, Resampling resampling) {
    if (raster.grid().equals(grid)) {
      return raster;
    }
    if (!raster.grid().crs().isKnown() || !grid.crs().isKnown()) {
      throw new RasterException("The " + what
          + " does not lie on the scene's pixels and does not say where it lies (no coordinate system). Give one that"
          + " does.");
    }
    return new RectifiedRaster(
        raster,
        GridModel.of(raster.grid()),
        Optional.empty(),
        grid,
        raster.attachments(),
        resampling);
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    float[] above = surface.read(level, window, request)[0];
    float[] below = terrain.read(level, window, request)[0];
    for (int i = 0; i < above.length; i++) {
      target[0][i] = above[i] - below[i];
    }
  }
}
