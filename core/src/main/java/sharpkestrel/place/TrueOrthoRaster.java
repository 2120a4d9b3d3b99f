package sharpkestrel.place;

import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/** A scene rectified over a surface model, without what the scene does not show because something stands before it. */
final class TrueOrthoRaster extends DerivedRaster {

  private final RectifiedRaster rectified;
  private final HiddenGround hidden;

  TrueOrthoRaster(RectifiedRaster rectified, HiddenGround hidden) {
    super(rectified.grid(), rectified.bands(), rectified.attachments(), rectified.zoom());
    this.rectified = rectified;
    this.hidden = hidden;
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    rectified.read(level, window, target, request);
    if (Planes.allNaN(target)) {
      return;
    }
    boolean[] gone = hidden.in(level, window, request);
    for (float[] plane : target) {
      for (int i = 0; plane != null && i < plane.length; i++) {
        plane[i] = gone[i] ? Float.NaN : plane[i];
      }
    }
  }
}
