package sharpkestrel.place;

import java.util.Optional;
import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Request;

/** Heights above the ellipsoid at single places. */
public final class GroundHeights {

  private final Optional<Heights> heights;
  private final CoordinateMap toModel;

  /**
   * @param heights none: no height is known anywhere
   * @param crs of the places
   */
  public GroundHeights(Optional<Heights> heights, CrsName crs) {
    this.heights = heights;
    toModel =
        heights.map(h -> Crs.between(crs, h.model().grid().crs())).orElse(CoordinateMap.IDENTITY);
  }

  /** NaN where the model has none. */
  public double at(double x, double y) {
    if (heights.isEmpty()) {
      return Double.NaN;
    }
    Heights known = heights.get();
    double[] place = {x, y};
    toModel.apply(place, 1);
    Affine toPixel = known.model().grid().affine().inverse();
    double[] pixel = {toPixel.x(place[0], place[1]), toPixel.y(place[0], place[1])};
    return HeightWindow.under(known, pixel, 2, 1, Request.BACKGROUND).at(pixel[0], pixel[1])
        + known.undulation();
  }
}
