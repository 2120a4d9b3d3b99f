package sharpkestrel.place;

import java.util.Optional;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Suits;

/** The heights a step works over, and what lifts them to the ellipsoid. */
public record Relief(
    @In(
        does =
            "Height model, one band in metres. What has a sensor model, and a camera, cannot do without.",
        optional = true,
        ofPlace = true,
        suits = {Suits.PLACED, Suits.ONE_BAND})
    Optional<Raster> heights,

    @In(
        does =
            "Undulation as a grid: height of the geoid above the ellipsoid, one band in metres, in place of one number.",
        optional = true,
        ofPlace = true,
        suits = {Suits.PLACED, Suits.ONE_BAND})
    Optional<Raster> undulationGrid,

    @Setting(
        label = "Undulation",
        does =
            "Height of the height model's datum above the ellipsoid; auto: nothing for heights above the ellipsoid, the geoid"
                + " EGM96 for those above a geoid.",
        unit = "m",
        min = -120,
        max = 100,
        ofPlace = true,
        initial = "auto")
    double undulation) {

  /**
   * Empty where no model is given.
   *
   * @throws RasterException where it has no place, or its datum leaves open what its heights mean
   */
  public Optional<Heights> read(Job job) {
    if (heights.isPresent() && !heights.get().grid().crs().isKnown()) {
      throw new RasterException(
          "The height model does not say where it lies (no coordinate system). Give one that does.");
    }
    if (heights.isEmpty() && lifts()) {
      throw new RasterException(
          "An undulation lifts the heights of a model, and there is none. Give the height model, or leave the undulation"
              + " out.");
    }
    return heights.map(model -> Heights.of(model, undulation, undulationGrid, job));
  }

  /** Another model of the same datum, such as one of the surface. */
  Heights lifted(Raster model, Job job) {
    if (!model.grid().crs().isKnown()) {
      throw new RasterException(
          "The surface model does not say where it lies (no coordinate system). Give one that does.");
    }
    return Heights.of(model, undulation, undulationGrid, job);
  }

  private boolean lifts() {
    return undulationGrid.isPresent() || !Double.isNaN(undulation);
  }
}
