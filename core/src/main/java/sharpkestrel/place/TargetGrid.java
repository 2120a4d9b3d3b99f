package sharpkestrel.place;

import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.RasterException;

/** What steps that place scenes share about the grids of their results. */
final class TargetGrid {

  private static final long MOST_PIXELS = 1L << 36;

  private TargetGrid() {}

  /** A pixel size without digits that mean nothing. */
  static double twoDigits(double size) {
    double digit = Math.pow(10, Math.floor(Math.log10(size)) - 1);
    return Math.round(size / digit) * digit;
  }

  /** North-up pixels over an area, refused where they are too many to be meant. */
  static Grid covering(Extent area, double size, Crs system) {
    if (area.width() / size * (area.height() / size) > MOST_PIXELS) {
      throw new RasterException("The result would have "
          + Math.round(area.width() / size)
          + " x "
          + Math.round(area.height() / size)
          + " pixels. Check the pixel size and the area: are they in the units of "
          + system.name()
          + "?");
    }
    return Grid.covering(area, size, system.name());
  }

  /** The area of a height model in another system. */
  static Extent extentOf(Heights heights, Crs system) {
    Grid grid = heights.model().grid();
    Extent own = grid.extent();
    CoordinateMap map = Crs.of(grid.crs()).to(system);
    double[] corners = {
      own.west(),
      own.south(),
      own.east(),
      own.south(),
      own.west(),
      own.north(),
      own.east(),
      own.north()
    };
    map.apply(corners, 4);
    Extent all = new Extent(corners[0], corners[1], corners[0], corners[1]);
    for (int i = 2; i < 8; i += 2) {
      all = all.union(new Extent(corners[i], corners[i + 1], corners[i], corners[i + 1]));
    }
    return all;
  }
}
