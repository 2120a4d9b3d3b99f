package sharpkestrel.place;

import java.util.Locale;
import java.util.Optional;
import sharpkestrel.geo.Egm96;
import sharpkestrel.geo.VerticalDatum;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Statistics;

/**
 * A height model and what must be added to its heights to reach the ellipsoid, which is where an RPC wants them.
 *
 * @param model one band, metres
 * @param undulation metres of the model's datum above the ellipsoid; 0 for ellipsoidal heights
 * @param lowest ellipsoidal height in metres, of the model
 * @param highest likewise
 */
public record Heights(Raster model, double undulation, double lowest, double highest) {

  /**
   * @param undulation NaN where not given
   * @param grid heights of the geoid above the ellipsoid, in place of one number
   */
  public static Heights of(Raster model, double undulation, Optional<Raster> grid, Job job) {
    VerticalDatum datum =
        model.attachments().get(VerticalDatum.class).orElse(VerticalDatum.UNKNOWN);
    if (grid.isEmpty() && Double.isNaN(undulation) && datum == VerticalDatum.GEOID) {
      return overGeoid(model, job);
    }
    if (grid.isEmpty()) {
      return of(model, undulation, datum, job);
    }
    if (!Double.isNaN(undulation)) {
      throw new RasterException("Give the undulation as one number or as a grid, not both.");
    }
    if (!grid.get().grid().crs().isKnown()) {
      throw new RasterException(
          "The undulation grid does not say where it lies (no coordinate system). Give one that does.");
    }
    if (datum == VerticalDatum.ELLIPSOID) {
      throw new RasterException(
          "The height model says its heights are above the ellipsoid, so an undulation grid would count twice. Leave"
              + " it out.");
    }
    return of(new EllipsoidalHeights(model, grid.get()), 0, VerticalDatum.ELLIPSOID, job);
  }

  /** A model above the geoid that comes without its own: lifted by a shipped one, which is said. */
  private static Heights overGeoid(Raster model, Job job) {
    EllipsoidalHeights lifted = new EllipsoidalHeights(model, Egm96.raster());
    job.warn(String.format(
        Locale.ROOT,
        "The height model's heights are above the geoid. They are lifted to the ellipsoid by the geoid EGM96, %.1f m in its"
            + " middle. If they are above another geoid, give its undulation (--undulation) in metres, or its grid.",
        lifted.geoidInTheMiddle()));
    return of(lifted, 0, VerticalDatum.ELLIPSOID, job);
  }

  private static Heights of(Raster model, double undulation, VerticalDatum datum, Job job) {
    double shift = undulation;
    if (Double.isNaN(undulation)) {
      switch (datum) {
        case ELLIPSOID -> shift = 0;
        case GEOID -> throw new IllegalStateException("lifted by a geoid before");
        case UNKNOWN -> {
          shift = 0;
          job.warn(
              "The height model does not say what its heights are measured from. They are taken as heights above the"
                  + " ellipsoid. If they are above the geoid, as most terrain models are, the result is shifted by"
                  + " tens of metres times the tangent of the view angle: give the undulation (--undulation) in metres.");
        }
      }
    } else if (datum == VerticalDatum.ELLIPSOID && undulation != 0) {
      throw new RasterException(
          "The height model says its heights are above the ellipsoid, so an undulation of "
              + undulation
              + " m would count twice. Leave it out, or give 0.");
    }
    Statistics range = Statistics.of(model, 0, job)[0];
    if (range.valid() == 0) {
      throw new RasterException(
          model instanceof EllipsoidalHeights
              ? "No height of the model lies on the undulation grid. Give the grid of this area."
              : "The height model has no heights: all of it is no-data.");
    }
    long missing = model.grid().pixels() - range.valid();
    if (missing > 0) {
      job.warn(String.format(
          Locale.ROOT,
          "%.2g %% of the height model has no heights (voids). What lies there is left without data.",
          100.0 * missing / model.grid().pixels()));
    }
    double margin = 0.05 * (range.max() - range.min()) + 1;
    return new Heights(model, shift, range.min() + shift - margin, range.max() + shift + margin);
  }
}
