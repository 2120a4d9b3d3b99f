package sharpkestrel.place.fit;

import java.util.Comparator;
import sharpkestrel.geo.ImageModel;
import sharpkestrel.place.fit.Fit.Residual;
import sharpkestrel.place.fit.TiePoint.Use;

/** Switches off the worst point, fits again, and so on. */
public final class WorstFirst {

  private WorstFirst() {}

  /**
   * The points with the worst of them off, so many that the RMS of the others is under a limit; none is deleted.
   *
   * @param limit pixels
   * @throws sharpkestrel.raster.RasterException where the model would be left with no point to spare
   */
  public static TiePoints drop(TiePoints points, ImageModel base, ModelKind kind, double limit) {
    TiePoints left = points;
    while (true) {
      Fit fit = new Fitter(left, base).fitOnly(kind);
      if (fit.rms() <= limit) {
        return left;
      }
      if (fit.controlPoints() <= kind.fewest() + 1) {
        throw new LeastSquares.Undetermined("With " + fit.controlPoints()
            + " points left the RMS is still " + Math.round(fit.rms() * 100) / 100.0
            + " pixels, so the limit is not reached by switching points off. The model may not suit"
            + " the scene: choose a more pliant one, or raise the limit.");
      }
      int worst = fit.residuals().stream()
          .filter(r -> r.point().use() == Use.CONTROL)
          .max(Comparator.comparingDouble(Residual::length))
          .orElseThrow()
          .point()
          .id();
      left = left.each(p -> p.id() == worst ? p.as(Use.OFF) : p);
    }
  }
}
