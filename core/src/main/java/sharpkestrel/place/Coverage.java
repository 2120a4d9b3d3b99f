package sharpkestrel.place;

import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.ImageModel;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.RasterException;

/**
 * The ground that an image shows, found by asking its model all over a lattice; the model need not be one that leads
 * from the image to the ground.
 */
final class Coverage {

  private static final int LATTICE = 48;
  private static final int DOUBLINGS = 6;

  private final ImageModel model;
  private final CoordinateMap toModel;
  private final double[] heights;
  private final int width;
  private final int height;

  /**
   * @param toModel from the result's system to the model's
   * @param heights (input) lowest and highest, above the ellipsoid
   */
  Coverage(ImageModel model, CoordinateMap toModel, double[] heights, int width, int height) {
    this.model = model;
    this.toModel = toModel;
    this.heights = heights;
    this.width = width;
    this.height = height;
  }

  /**
   * The box about all that is shown, to about a fiftieth of its side outwards.
   *
   * @param near some ground that is shown in part
   */
  Extent around(Extent near) {
    Extent area = near;
    for (int k = 0; k < DOUBLINGS; k++) {
      Extent seen = seen(area);
      boolean whole = !seen.isEmpty()
          && seen.west() > area.west()
          && seen.south() > area.south()
          && seen.east() < area.east()
          && seen.north() < area.north();
      if (whole) {
        return seen(seen).intersect(seen);
      }
      area = seen.isEmpty()
          ? area.grown(Math.max(area.width(), area.height()) / 2)
          : area.grown(Math.max(seen.width(), seen.height()) / 2);
    }
    throw new RasterException("The model does not end: at the edge of "
        + area
        + " the scene would still show ground. It bends too far where there are no points; choose a stiffer model,"
        + " or give the area of the result (--extent).");
  }

  /** Bounds, one step of the lattice outwards, of the nodes that the image shows at some height. */
  private Extent seen(Extent area) {
    double stepX = area.width() / LATTICE;
    double stepY = area.height() / LATTICE;
    double[] image = new double[2];
    Extent all = new Extent(0, 0, 0, 0);
    for (int j = 0; j <= LATTICE; j++) {
      for (int i = 0; i <= LATTICE; i++) {
        double x = area.west() + i * stepX;
        double y = area.south() + j * stepY;
        double[] place = {x, y};
        toModel.apply(place, 1);
        for (double h : heights) {
          model.toImage(place[0], place[1], h, image);
          if (image[0] >= 0 && image[1] >= 0 && image[0] <= width && image[1] <= height) {
            Extent here = new Extent(x - stepX, y - stepY, x + stepX, y + stepY);
            all = all.isEmpty() ? here : all.union(here);
          }
        }
      }
    }
    return all;
  }
}
