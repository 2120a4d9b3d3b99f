package sharpkestrel.geo;

import sharpkestrel.raster.Affine;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;

/** The image of a placed raster, or the pixels of a plain lattice: an affine map, whatever the height. */
public record GridModel(CrsName crs, Affine toPixel) implements ImageModel {

  public static GridModel of(Grid grid) {
    return new GridModel(grid.crs(), grid.affine().inverse());
  }

  @Override
  public boolean usesHeights() {
    return false;
  }

  @Override
  public void toImage(double x, double y, double height, double[] image) {
    image[0] = toPixel.x(x, y);
    image[1] = toPixel.y(x, y);
  }
}
