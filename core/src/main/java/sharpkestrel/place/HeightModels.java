package sharpkestrel.place;

import java.util.Optional;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Resampling;
import sharpkestrel.step.In;
import sharpkestrel.step.Suits;

/** The two models that tell how high things stand: of what is seen from above, and of the ground. */
public record HeightModels(
    @In(
        does =
            "Surface model, one band in metres. With a height model under it what stands is told from what lies: the best"
                + " there is for roofs, on a true ortho.",
        optional = true,
        ofPlace = true,
        byHand = true,
        suits = {Suits.PLACED, Suits.ONE_BAND})
    Optional<Raster> surface,

    @In(
        does =
            "Height model of the ground, one band in metres, above the same datum as the surface.",
        optional = true,
        ofPlace = true,
        suits = {Suits.PLACED, Suits.ONE_BAND})
    Optional<Raster> heights) {

  public static final HeightModels NONE = new HeightModels(Optional.empty(), Optional.empty());

  /**
   * Heights above the ground on the pixels of a scene; empty where there is no surface model.
   *
   * @throws RasterException where there is a surface but no ground, or something has no place
   */
  public Optional<Raster> aboveGround(Grid grid) {
    return surface.map(top -> HeightAboveGround.of(
        grid,
        top,
        heights.orElseThrow(() -> new RasterException(
            "The surface model alone does not tell what stands from a hill. Give the height model of the ground too"
                + " (--heights)."))));
  }

  /** The surface on the pixels of a scene; empty where there is none. */
  public Optional<Raster> surfaceOn(Grid grid) {
    return surface.map(
        top -> HeightAboveGround.onGrid(grid, top, "surface model", Resampling.BILINEAR));
  }
}
