package sharpkestrel.place.fit;

import sharpkestrel.geo.ImageModel;
import sharpkestrel.raster.CrsName;

/** What another model says, and where in the image that really is. */
public record CorrectedModel(ImageModel base, PlaneMap correction) implements ImageModel {

  @Override
  public CrsName crs() {
    return base.crs();
  }

  @Override
  public boolean usesHeights() {
    return base.usesHeights();
  }

  @Override
  public boolean isSmooth() {
    return base.isSmooth() && correction.isSmooth();
  }

  @Override
  public void toImage(double x, double y, double height, double[] image) {
    base.toImage(x, y, height, image);
    correction.apply(image[0], image[1], image);
  }
}
