package sharpkestrel.geo;

import sharpkestrel.raster.CrsName;

/** A model asked in another system of ground coordinates than its own. */
public final class InSystem implements ImageModel {

  private final ImageModel model;
  private final CrsName crs;
  private final CoordinateMap toModel;

  private InSystem(ImageModel model, CrsName crs) {
    this.model = model;
    this.crs = crs;
    toModel = Crs.between(crs, model.crs());
  }

  public static ImageModel of(ImageModel model, CrsName crs) {
    return model.crs().equals(crs) ? model : new InSystem(model, crs);
  }

  @Override
  public CrsName crs() {
    return crs;
  }

  @Override
  public boolean usesHeights() {
    return model.usesHeights();
  }

  @Override
  public boolean isSmooth() {
    return model.isSmooth();
  }

  @Override
  public void toImage(double x, double y, double height, double[] image) {
    double[] place = {x, y};
    toModel.apply(place, 1);
    model.toImage(place[0], place[1], height, image);
  }
}
