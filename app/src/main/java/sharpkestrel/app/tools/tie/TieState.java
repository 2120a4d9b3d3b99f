package sharpkestrel.app.tools.tie;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import sharpkestrel.geo.ImageModel;
import sharpkestrel.place.GroundHeights;
import sharpkestrel.place.fit.Advice;
import sharpkestrel.place.fit.Fit;
import sharpkestrel.place.fit.Fitter;
import sharpkestrel.place.fit.ModelKind;
import sharpkestrel.place.fit.TiePoint.Use;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.RasterException;

/**
 * What the models make of tie points.
 *
 * @param chosen the fit of the model that is asked for, else of the one that is advised
 * @param grid lines of a square lattice on the reference as the chosen model puts them into the scene: columns and rows in turn
 * @param trouble why there is no advice, or that it is being worked out
 */
public record TieState(
    Optional<Advice> advice, Optional<Fit> chosen, List<double[]> grid, String trouble) {

  private static final int GRID_LINES = 12;
  private static final int GRID_POINTS = 40;

  static TieState without(String trouble) {
    return new TieState(Optional.empty(), Optional.empty(), List.of(), trouble);
  }

  /**
   * All that the models need, so that they are fitted away from the interface thread.
   *
   * @param base where the scene lies without points
   * @param placed whether it lies anywhere without them
   * @param wanted the model asked for; null takes the advice
   * @param heights whether there are any
   * @param trouble what is wrong with the heights; empty for nothing
   */
  record Question(
      TiePoints points,
      ImageModel base,
      boolean placed,
      ModelKind wanted,
      boolean heights,
      String trouble,
      Grid grid,
      GroundHeights ground) {

    TieState answer() {
      if (!trouble.isEmpty()) {
        return without(trouble);
      }
      if (base.usesHeights() && !heights) {
        return without("The scene is raw: choose heights, which its sensor model needs.");
      }
      if (points.of(Use.CONTROL).isEmpty()) {
        return without(
            "Click a place in one picture, then the same place in the other; or let the points be found.");
      }
      try {
        Advice advice = Advice.of(new Fitter(points, base, placed), heights);
        Fit chosen =
            advice.fits().stream().filter(f -> f.kind() == wanted).findFirst().orElse(advice.fit());
        return new TieState(Optional.of(advice), Optional.of(chosen), lines(chosen), "");
      } catch (RasterException refused) {
        return without(refused.getMessage());
      }
    }

    private List<double[]> lines(Fit fit) {
      List<double[]> lines = new ArrayList<>();
      double[] image = new double[2];
      for (int way = 0; way < 2; way++) {
        for (int k = 0; k <= GRID_LINES; k++) {
          double[] line = new double[2 * (GRID_POINTS + 1)];
          for (int i = 0; i <= GRID_POINTS; i++) {
            double across = (double) k / GRID_LINES;
            double along = (double) i / GRID_POINTS;
            double col = grid.width() * (way == 0 ? along : across);
            double row = grid.height() * (way == 0 ? across : along);
            double x = grid.affine().x(col, row);
            double y = grid.affine().y(col, row);
            fit.model().toImage(x, y, fit.model().usesHeights() ? ground.at(x, y) : 0, image);
            line[2 * i] = image[0];
            line[2 * i + 1] = image[1];
          }
          lines.add(line);
        }
      }
      return lines;
    }
  }
}
